import type { ReactNode } from 'react';
import { Button } from '../ui/controls.tsx';

/** Where a new list is named, and made once it has a name. */
export function NewListName({
  name,
  off,
  onName,
  placeholder,
  children,
}: {
  name: string;
  /** Whether it cannot be made yet, whatever its name. */
  off: boolean;
  onName(name: string): void;
  placeholder?: string;
  /** What making it does. */
  children: ReactNode;
}) {
  return (
    <div className="flex items-end gap-2">
      <label className="flex flex-1 flex-col gap-1">
        A new list named
        <input
          autoFocus
          value={name}
          maxLength={120}
          placeholder={placeholder}
          onChange={(event) => onName(event.target.value)}
          className="field border-ink"
        />
      </label>
      <Button type="submit" look="ink" disabled={name.trim() === '' || off}>
        {children}
      </Button>
    </div>
  );
}
