import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import type { ListView } from '../../contract/responses.ts';
import { subjectOf } from '../../core/fields/registry.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { Button, Dialog, Trouble } from '../ui/controls.tsx';
import { countedPart, useTally } from './queries.ts';
import { pickedCount, useDesk } from './store.ts';

/** Puts the picked companies, or all of the tape where none is picked, on a list. */
export function AddToListDialog({ onClose }: { onClose(): void }) {
  const format = useFormat();
  const client = useQueryClient();
  const { tape, picks } = useDesk.getState();
  const { data: tally } = useTally();
  const [name, setName] = useState('');
  const [error, setError] = useState<Error | null>(null);
  const [busy, setBusy] = useState(false);
  const { data } = useLists();
  const { one, many } = subjectOf(tape.subject);
  const total = tally?.tally ?? 0;
  const picked = pickedCount(picks, total);
  const count = picked || total;
  const wish = {
    tape: countedPart(tape),
    ...(picks.mode === 'some' && picks.keys.size ? { keys: [...picks.keys] } : {}),
    ...(picks.mode === 'all' && picks.except.size ? { except: [...picks.except] } : {}),
  };
  const add = async (list: ListView) => {
    setBusy(true);
    setError(null);
    try {
      const { added, of } = await call<{ added: number; of: number }>(
        'POST',
        `/lists/${encodeURIComponent(list.key)}/members`,
        wish,
      );
      await client.invalidateQueries();
      const known = of - added;
      toast(
        `${format.number(added)} put on ${list.name}${known ? `, ${format.number(known)} were on it already` : ''}`,
      );
      onClose();
    } catch (failure) {
      setError(failure as Error);
      setBusy(false);
    }
  };
  const addToNew = async () => {
    try {
      const { list } = await call<{ list: ListView }>('POST', '/lists', { name: name.trim() });
      await add(list);
    } catch (failure) {
      setError(failure as Error);
    }
  };
  return (
    <Dialog
      open
      title={
        tape.subject === 'companies'
          ? `${format.number(count)} ${count === 1 ? 'company' : 'companies'} to a list`
          : `The companies of ${format.number(count)} ${count === 1 ? one : many} to a list`
      }
      description={picked ? 'those picked' : 'all of the tape'}
      onClose={onClose}
      width={480}
    >
      <form
        className="flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim() !== '' && !busy) void addToNew();
        }}
      >
        <label className="flex flex-1 flex-col gap-1">
          A new list named
          <input
            autoFocus
            value={name}
            maxLength={120}
            onChange={(event) => setName(event.target.value)}
            className="field border-ink"
          />
        </label>
        <Button type="submit" look="ink" disabled={name.trim() === '' || busy}>
          Put on it
        </Button>
      </form>
      <Trouble error={error} />
      {data && data.lists.length > 0 && (
        <ul aria-label="Lists" className="mt-4">
          {data.lists.map((list) => (
            <li key={list.key} className="border-t border-rule">
              <button
                type="button"
                disabled={busy}
                className="flex w-full justify-between py-1.5 text-left hover:bg-picked"
                onClick={() => void add(list)}
              >
                {list.name} <span className="text-soft">{format.number(list.members)} companies</span>
              </button>
            </li>
          ))}
        </ul>
      )}
    </Dialog>
  );
}

export function useLists() {
  return useQuery({
    queryKey: ['lists'],
    queryFn: ({ signal }) => call<{ lists: ListView[] }>('GET', '/lists', undefined, signal),
  });
}
