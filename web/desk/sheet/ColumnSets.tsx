import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Star, Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import type { ColumnSetView } from '../../../contract/responses.ts';
import { READY_SETS } from '../../../core/fields/column-sets.ts';
import { isOfAnyTape } from '../../../core/tape/own-columns.ts';
import { call } from '../../api.ts';
import { Button } from '../../ui/controls.tsx';
import { record } from '../../app/history.ts';
import { useDesk } from '../store.ts';

function useColumnSets() {
  return useQuery({
    queryKey: ['column-sets'],
    queryFn: ({ signal }) => call<{ sets: ColumnSetView[] }>('GET', '/column-sets', undefined, signal),
    staleTime: 60_000,
  });
}

/** Takes the workspace's usual columns where none were chosen by hand. */
export function useUsualColumns(): void {
  const { data } = useColumnSets();
  useEffect(() => {
    for (const set of data?.sets ?? []) if (set.usual) useDesk.getState().useUsual(set.subject, set.columns);
  }, [data]);
}

/** A set as it is written. */
type SetBody = Omit<ColumnSetView, 'id'>;

function bodyOf({ subject, name, columns, usual }: ColumnSetView): SetBody {
  return { subject, name, columns, usual };
}

/** Named choices of columns: ready ones and one's own, one of which the workspace opens with. */
export function ColumnSets({
  subject,
  columns,
  onColumns: setColumns,
}: {
  subject: string;
  columns: readonly string[];
  onColumns(columns: readonly string[]): void;
}) {
  const client = useQueryClient();
  const { data } = useColumnSets();
  const [name, setName] = useState('');
  const own = (data?.sets ?? []).filter((set) => set.subject === subject);
  const ready = READY_SETS.filter((set) => set.subject === subject);
  /** Writes a set as a step that can be taken back; `before` and `after` are null where there is none. */
  const write = async (what: string, id: string | null, before: SetBody | null, after: SetBody | null) => {
    let own = id;
    const put = async (set: SetBody | null) => {
      if (!set) await call('DELETE', `/column-sets/${own}`);
      else if (own) await call('PUT', `/column-sets/${own}`, set);
      else {
        const { set: made } = await call<{ set: ColumnSetView }>('POST', '/column-sets', set);
        own = made.id;
      }
      if (!set) own = null;
      await client.invalidateQueries({ queryKey: ['column-sets'] });
    };
    try {
      await put(after);
      record({ name: what, undo: () => put(before), redo: () => put(after) });
    } catch (failure) {
      toast.error((failure as Error).message);
    }
  };
  const here = (set: { columns: readonly string[] }) => set.columns.join() === columns.join();
  const keep = () => {
    if (name.trim() === '') return;
    const kept = columns.filter(isOfAnyTape);
    const made = { subject, name: name.trim(), columns: kept, usual: false };
    void write(`keeping ${made.name}`, null, null, made).then(() => setName(''));
  };
  return (
    <div className="px-3 pb-2">
      <p className="pb-1 text-[12px] text-soft">Column sets</p>
      <p className="flex flex-wrap gap-1">
        {ready.map((set) => (
          <Button
            key={set.id}
            className="px-2! py-0.5! text-[13px]"
            aria-pressed={here(set)}
            onClick={() => setColumns(set.columns)}
          >
            {set.name}
          </Button>
        ))}
      </p>
      <ul className="mt-1">
        {own.map((set) => (
          <li key={set.id} className="flex items-center gap-1">
            <button
              type="button"
              className="min-w-0 flex-1 truncate py-1 text-left hover:underline"
              aria-pressed={here(set)}
              onClick={() => setColumns(set.columns)}
            >
              {set.name}{' '}
              <span className="text-[12px] text-soft">{set.usual ? 'the workspace opens with it' : ''}</span>
            </button>
            <Button
              look="quiet"
              aria-label={`Open the workspace with ${set.name}`}
              aria-pressed={set.usual}
              title={set.usual ? 'No longer open with it' : 'Open the workspace with it'}
              onClick={() =>
                void write(
                  set.usual ? `opening with ${set.name} no longer` : `opening with ${set.name}`,
                  set.id,
                  bodyOf(set),
                  { ...bodyOf(set), usual: !set.usual },
                )
              }
            >
              <Star size={14} fill={set.usual ? 'currentColor' : 'none'} />
            </Button>
            <Button
              look="quiet"
              aria-label={`Remove ${set.name}`}
              onClick={() => void write(`removing ${set.name}`, set.id, bodyOf(set), null)}
            >
              <Trash2 size={14} />
            </Button>
          </li>
        ))}
      </ul>
      <div className="mt-1 flex gap-1">
        <input
          className="field min-w-0 flex-1 py-0.5 text-[13px]"
          value={name}
          maxLength={80}
          placeholder="Keep these as …"
          aria-label="Name of a column set"
          onChange={(event) => setName(event.target.value)}
          onKeyDown={(event) => {
            // It may stand within a form, such as that of an export.
            if (event.key !== 'Enter') return;
            event.preventDefault();
            keep();
          }}
        />
        <Button className="py-0.5! text-[13px]" disabled={name.trim() === ''} onClick={keep}>
          Keep
        </Button>
      </div>
    </div>
  );
}
