import { useRef } from 'react';
import { useKey } from '../app/keys.ts';
import { Kbd } from './controls.tsx';

/** Finds by words among what a place lists; `f` goes to it, Escape leaves it. */
export function FindBox({
  label,
  value,
  onChange,
  className = 'w-52',
}: {
  label: string;
  value: string;
  onChange(value: string): void;
  className?: string;
}) {
  const box = useRef<HTMLInputElement>(null);
  useKey('f', () => box.current?.focus());
  return (
    <label className={`field flex items-center gap-2 py-1 ${className}`}>
      <input
        ref={box}
        aria-label={label}
        placeholder={label}
        value={value}
        className="min-w-0 flex-1 bg-transparent outline-none"
        onChange={(event) => onChange(event.target.value)}
        onKeyDown={(event) => event.key === 'Escape' && event.currentTarget.blur()}
      />
      <Kbd>f</Kbd>
    </label>
  );
}
