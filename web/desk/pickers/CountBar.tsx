/** A count as a bar from zero, green where it is picked. */
export function CountBar({ count, most, picked }: { count: number; most: number; picked: boolean }) {
  return (
    <span className="relative block h-2 w-full bg-rule/70" aria-hidden="true">
      <span
        className={`absolute inset-y-0 left-0 ${picked ? 'bg-kept' : 'bg-bar'}`}
        style={{ width: `${most > 0 ? (100 * count) / most : 0}%`, minWidth: count > 0 ? 2 : 0 }}
      />
    </span>
  );
}
