import { useQuery, useQueryClient, type QueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { AddedAnswer, ListView } from '../../contract/responses.ts';
import { subjectOf } from '../../core/fields/registry.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { record, said } from '../app/history.ts';
import { Button, Dialog, Trouble } from '../ui/controls.tsx';
import { wordActed, type Acted } from './acted.ts';
import { picksBody } from './picks.ts';
import { countedPart } from './queries.ts';

/** Puts records, or the companies that they hang on, on a list. */
export function AddToListDialog({ acted, onClose }: { acted: Acted; onClose(): void }) {
  const format = useFormat();
  const client = useQueryClient();
  const { tape, sort, picks, one, gone } = acted;
  const [name, setName] = useState('');
  const [error, setError] = useState<Error | null>(null);
  const [busy, setBusy] = useState(false);
  const { data } = useLists();
  const { many } = subjectOf(tape.subject);
  const wish = { tape: countedPart(tape), sort, ...picksBody(picks) };
  const picked = picks.mode === 'all' || picks.keys.size > 0 || picks.runs.length > 0;
  /** Whether it was done; if not, the dialog says why. */
  const add = async (list: ListView, made: boolean): Promise<boolean> => {
    setBusy(true);
    setError(null);
    try {
      const { added, of } = await putOnList(client, list, wish, made);
      const known = of - added;
      said(
        `${format.number(added)} put on ${list.name}${known ? `, ${format.number(known)} were on it already` : ''}`,
      );
      onClose();
      return true;
    } catch (failure) {
      setError(failure as Error);
      setBusy(false);
      return false;
    }
  };
  const addToNew = async () => {
    try {
      const { list } = await call<{ list: ListView }>('POST', '/lists', { name: name.trim() });
      // Without members it was not wanted, and its name would be taken for the next try.
      if (!(await add(list, true))) await call('DELETE', `/lists/${encodeURIComponent(list.key)}`);
    } catch (failure) {
      setError(failure as Error);
    }
  };
  const what = wordActed(acted, format.number);
  return (
    <Dialog
      open
      title={
        tape.subject === 'companies'
          ? `${what.charAt(0).toUpperCase()}${what.slice(1)} to a list`
          : `The companies of ${what} to a list`
      }
      description={one ? undefined : picked ? 'those picked' : 'all of the tape'}
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
      {gone > 0 && (
        <p className="mt-2 text-[13px] text-unsure">
          {format.number(gone)} of the {many} picked no longer pass the tape and stay off.
        </p>
      )}
      <Trouble error={error} />
      {data && data.lists.length > 0 && (
        <ul aria-label="Lists" className="mt-4">
          {data.lists.map((list) => (
            <li key={list.key} className="border-t border-rule">
              <button
                type="button"
                disabled={busy}
                className="flex w-full justify-between py-1.5 text-left hover:bg-picked"
                onClick={() => void add(list, false)}
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

/** Puts records on a list, as a step that can be taken back: those that were there before stay, and a list made for it goes again. */
export async function putOnList(
  client: QueryClient,
  list: ListView,
  wish: object,
  made: boolean,
): Promise<AddedAnswer> {
  const path = `/lists/${encodeURIComponent(list.key)}`;
  let answer = await call<AddedAnswer>('POST', `${path}/members`, wish);
  await client.invalidateQueries();
  record({
    name: `putting ${answer.added} on ${list.name}`,
    undo: async () => {
      await call('DELETE', `${path}/additions/${encodeURIComponent(answer.at)}`);
      if (made) await call('DELETE', path);
      await client.invalidateQueries();
    },
    redo: async () => {
      if (made) await call('POST', '/lists', { name: list.name });
      answer = await call<AddedAnswer>('POST', `${path}/members`, wish);
      await client.invalidateQueries();
    },
  });
  return answer;
}

export function useLists() {
  return useQuery({
    queryKey: ['lists'],
    queryFn: ({ signal }) => call<{ lists: ListView[] }>('GET', '/lists', undefined, signal),
  });
}
