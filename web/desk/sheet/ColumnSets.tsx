import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Star, Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import type { ColumnSetView } from '../../../contract/responses.ts';
import { READY_SETS } from '../../../core/fields/column-sets.ts';
import { isOwnColumn } from '../../../core/tape/own-columns.ts';
import { call } from '../../api.ts';
import { Button } from '../../ui/controls.tsx';
import { useColumns, useDesk } from '../store.ts';

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

/** Named choices of columns: ready ones and one's own, one of which the workspace opens with. */
export function ColumnSets() {
  const subject = useDesk((state) => state.tape.subject);
  const columns = useColumns();
  const { setColumns } = useDesk.getState();
  const client = useQueryClient();
  const { data } = useColumnSets();
  const [name, setName] = useState('');
  const own = (data?.sets ?? []).filter((set) => set.subject === subject);
  const ready = READY_SETS.filter((set) => set.subject === subject);
  const change = async (work: () => Promise<unknown>) => {
    try {
      await work();
      await client.invalidateQueries({ queryKey: ['column-sets'] });
    } catch (failure) {
      toast.error((failure as Error).message);
    }
  };
  const here = (set: { columns: readonly string[] }) => set.columns.join() === columns.join();
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
                void change(() =>
                  call('PUT', `/column-sets/${set.id}`, {
                    subject,
                    name: set.name,
                    columns: set.columns,
                    usual: !set.usual,
                  }),
                )
              }
            >
              <Star size={14} fill={set.usual ? 'currentColor' : 'none'} />
            </Button>
            <Button
              look="quiet"
              aria-label={`Remove ${set.name}`}
              onClick={() => void change(() => call('DELETE', `/column-sets/${set.id}`))}
            >
              <Trash2 size={14} />
            </Button>
          </li>
        ))}
      </ul>
      <form
        className="mt-1 flex gap-1"
        onSubmit={(event) => {
          event.preventDefault();
          const kept = columns.filter((id) => !isOwnColumn(id));
          void change(() => call('POST', '/column-sets', { subject, name: name.trim(), columns: kept })).then(
            () => setName(''),
          );
        }}
      >
        <input
          className="field min-w-0 flex-1 py-0.5 text-[13px]"
          value={name}
          maxLength={80}
          placeholder="Keep these as …"
          aria-label="Name of a column set"
          onChange={(event) => setName(event.target.value)}
        />
        <Button type="submit" className="py-0.5! text-[13px]" disabled={name.trim() === ''}>
          Keep
        </Button>
      </form>
    </div>
  );
}
