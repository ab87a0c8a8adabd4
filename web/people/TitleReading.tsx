import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { DEPARTMENTS } from '../../core/fields/companies/making.ts';
import { LEVELS } from '../../core/fields/people.ts';
import type { TitleReadingView } from '../../contract/people.ts';
import { Button } from '../ui/controls.tsx';
import { readTitleAs, type TitleWish } from './titles.ts';

/** Department and level that a title says, each chosen anew for everybody who has it; and the way back. */
export function TitleReading({
  title,
  department,
  level,
  own,
}: {
  title: string;
  department: string | null;
  level: string | null;
  own: TitleReadingView | null;
}) {
  const client = useQueryClient();
  const [busy, setBusy] = useState(false);
  const put = async (wish: TitleWish) => {
    setBusy(true);
    try {
      await readTitleAs(client, title, wish, own && { department: own.department, level: own.level });
    } catch (failure) {
      toast.error((failure as Error).message);
    }
    setBusy(false);
  };
  return (
    <span className="flex flex-wrap items-center gap-2">
      <select
        aria-label={`Department of “${title}”`}
        className="field w-36 py-0.5"
        disabled={busy}
        value={department ?? ''}
        onChange={(event) => void put({ department: event.target.value || null, level })}
      >
        <option value="">unknown</option>
        {DEPARTMENTS.map((one) => (
          <option key={one}>{one}</option>
        ))}
      </select>
      <select
        aria-label={`Level of “${title}”`}
        className="field w-28 py-0.5"
        disabled={busy}
        value={level ?? ''}
        onChange={(event) => void put({ department, level: event.target.value || null })}
      >
        <option value="">unknown</option>
        {LEVELS.map((one) => (
          <option key={one}>{one}</option>
        ))}
      </select>
      {own && (
        <Button look="quiet" className="underline" disabled={busy} onClick={() => void put(null)}>
          As before
        </Button>
      )}
    </span>
  );
}
