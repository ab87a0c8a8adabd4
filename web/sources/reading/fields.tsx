import type { ReactNode } from 'react';

/** A control with its label above. */
export function Labelled({ label, children }: { label: string; children: ReactNode }) {
  return (
    <label className="block">
      <span className="block pb-1 text-[13px] text-soft">{label}</span>
      {children}
    </label>
  );
}

/** One of some choices. `aria` names it where no label stands above. */
export function Choice({
  label,
  aria,
  value,
  options,
  onChange,
}: {
  label?: string;
  aria?: string;
  value: string;
  options: readonly (readonly [string, string])[];
  onChange(value: string): void;
}) {
  const select = (
    <select
      className={label === undefined ? 'field py-0.5 text-[13px]' : 'field'}
      aria-label={aria}
      value={value}
      onChange={(event) => onChange(event.target.value)}
    >
      {options.map(([key, name]) => (
        <option key={key} value={key}>
          {name}
        </option>
      ))}
    </select>
  );
  return label === undefined ? select : <Labelled label={label}>{select}</Labelled>;
}
