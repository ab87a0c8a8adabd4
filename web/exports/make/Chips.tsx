import clsx from 'clsx';

/** Many short choices in lines, one of them taken. */
export function Chips<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: T | null;
  options: readonly { key: NoInfer<T>; label: string; title?: string }[];
  onChange(value: NoInfer<T>): void;
}) {
  return (
    <div role="radiogroup" aria-label={label} className="flex flex-wrap gap-1.5">
      {options.map((option) => (
        <button
          key={option.key}
          type="button"
          role="radio"
          aria-checked={value === option.key}
          title={option.title}
          onClick={() => onChange(option.key)}
          className={clsx(
            'rounded border px-2 py-1 text-[13px]',
            value === option.key ? 'border-ink bg-ink text-paper' : 'border-edge bg-paper hover:border-ink',
          )}
        >
          {option.label}
        </button>
      ))}
    </div>
  );
}
