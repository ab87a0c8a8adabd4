import clsx from 'clsx';

/** Parts of a place, one of which is open. */
export function Tabs<T extends string>({
  label,
  tabs,
  current,
  onChange,
}: {
  label: string;
  tabs: readonly (readonly [key: T, label: string])[];
  current: T;
  onChange(key: T): void;
}) {
  return (
    <nav aria-label={label} className="flex gap-4 border-b border-edge">
      {tabs.map(([key, words]) => (
        <button
          key={key}
          type="button"
          aria-current={current === key ? 'page' : undefined}
          className={clsx(
            '-mb-px border-b-2 px-0.5 pb-1.5',
            current === key ? 'border-ink font-semibold' : 'border-transparent text-soft hover:text-ink',
          )}
          onClick={() => onChange(key)}
        >
          {words}
        </button>
      ))}
    </nav>
  );
}
