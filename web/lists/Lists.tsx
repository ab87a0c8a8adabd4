import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import type { ListView } from '../../contract/responses.ts';
import { emptyTape, type Tape } from '../../core/tape/nodes.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { did } from '../app/history.ts';
import { useLists } from '../desk/AddToListDialog.tsx';
import { addressOf } from '../desk/address.ts';
import { Button, Trouble } from '../ui/controls.tsx';
import { RemoveDialog } from '../ui/RemoveDialog.tsx';

/** The lists of the workspace. The members of one are looked at on the Desk, as a tape that keeps them. */
export function Lists() {
  const { data, error } = useLists();
  return (
    <main className="min-h-0 flex-1 overflow-auto px-5 pt-4 pb-6">
      <h1 className="title text-[21px]">Lists</h1>
      <Trouble error={error} />
      {data?.lists.length === 0 && (
        <p className="py-6 text-soft">
          None yet. On the Desk, pick rows with Space and press S to put them on a list; with none picked, all
          of the tape goes on it.
        </p>
      )}
      {data && data.lists.length > 0 && (
        <table className="mt-3 w-full max-w-3xl">
          <thead>
            <tr className="border-b border-edge text-left text-[12px]">
              <th className="py-1.5 font-semibold">Name</th>
              <th className="text-right font-semibold">Companies</th>
              <th className="pl-6 font-semibold">Made</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {data.lists.map((list) => (
              <ListRow key={list.key} list={list} />
            ))}
          </tbody>
        </table>
      )}
    </main>
  );
}

function tapeOf(list: ListView): Tape {
  return {
    ...emptyTape(),
    name: list.name,
    lines: [{ id: 'l1', field: 'list', test: { any: [list.key] } }],
  };
}

function ListRow({ list }: { list: ListView }) {
  const format = useFormat();
  const client = useQueryClient();
  const [name, setName] = useState<string | null>(null);
  const [error, setError] = useState<Error | null>(null);
  const [removing, setRemoving] = useState(false);
  const path = `/lists/${encodeURIComponent(list.key)}`;
  const put = async (to: string) => {
    await call('PUT', path, { name: to });
    await client.invalidateQueries();
  };
  const act = async (work: () => Promise<unknown>) => {
    try {
      await work();
      setName(null);
      setError(null);
    } catch (failure) {
      setError(failure as Error);
    }
  };
  const rename = (to: string) =>
    act(async () => {
      const before = list.name;
      await put(to);
      if (to !== before)
        did(`${before} is now ${to}`, { name: 'a new name', undo: () => put(before), redo: () => put(to) });
    });
  const remove = () =>
    act(async () => {
      await call('DELETE', path);
      await client.invalidateQueries();
      toast(`Removed the list ${list.name}`);
    });
  return (
    <tr className="border-b border-rule">
      <td className="py-1.5">
        {name === null ? (
          <Link
            to={addressOf({ tape: tapeOf(list), sort: [], openLine: null, company: null })}
            className="font-semibold hover:underline"
          >
            {list.name}
          </Link>
        ) : (
          <form
            className="flex gap-2"
            onSubmit={(event) => {
              event.preventDefault();
              if (name.trim() !== '') void rename(name.trim());
            }}
          >
            <input
              autoFocus
              aria-label="Name of the list"
              value={name}
              maxLength={120}
              onChange={(event) => setName(event.target.value)}
              onKeyDown={(event) => event.key === 'Escape' && setName(null)}
              className="field py-1"
            />
            <Button type="submit">Rename</Button>
          </form>
        )}
        <Trouble error={error} />
      </td>
      <td className="figure text-right">{format.number(list.members)}</td>
      <td className="pl-6 text-soft">{format.date(list.madeAt.slice(0, 10))}</td>
      <td className="text-right">
        <Button look="quiet" onClick={() => setName(list.name)}>
          Rename
        </Button>
        <Button look="quiet" aria-label={`Remove ${list.name}`} onClick={() => setRemoving(true)}>
          Remove
        </Button>
        <RemoveDialog
          name={removing ? list.name : null}
          onClose={() => setRemoving(false)}
          onRemove={() => void remove()}
        >
          Its <span className="figure">{format.number(list.members)}</span> members stay in the universe; that
          they were put together is forgotten and cannot be taken back. Tapes with a line on this list will be
          refused by its name.
        </RemoveDialog>
      </td>
    </tr>
  );
}
