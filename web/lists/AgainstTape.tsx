import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import type { AgainstListAnswer, ListView } from '../../contract/lists.ts';
import { freeId } from '../../core/tape/edit.ts';
import { emptyTape, passesUnknown, type Line } from '../../core/tape/nodes.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { said } from '../app/history.ts';
import { countedPart } from '../desk/queries.ts';
import { useSavedTapes } from '../desk/tape/SaveTapeDialog.tsx';
import { Button, Trouble } from '../ui/controls.tsx';
import { putOnList, takeOffList, wordPut } from './acts.ts';
import { useOpenTape } from './open-list.ts';

/** A list held against a saved tape: what the tape finds that the list lacks, and members that no longer pass, each by its line. */
export function AgainstTape({ list }: { list: ListView }) {
  const format = useFormat();
  const openTape = useOpenTape();
  const client = useQueryClient();
  const [chosen, setChosen] = useState('');
  const [busy, setBusy] = useState(false);
  const saved = useSavedTapes();
  const tapes =
    saved.data?.tapes.filter(({ kind, tape }) => kind === 'tape' && tape.subject === list.subject) ?? [];
  const tape = tapes.find(({ id }) => id === chosen)?.tape;
  const { data, error } = useQuery({
    queryKey: ['lists', 'against', list.key, tape],
    queryFn: ({ signal }) =>
      call<AgainstListAnswer>(
        'POST',
        `/lists/${encodeURIComponent(list.key)}/against`,
        { tape: countedPart(tape!) },
        signal,
      ),
    enabled: tape !== undefined,
    retry: false,
  });
  if (tapes.length === 0) return null;
  const open = (name: string, lines: readonly Line[]) => {
    openTape({ ...countedPart(tape!), name, lines });
  };
  const onList: Line = { id: freeId(tape ?? emptyTape()), field: 'list', test: { any: [list.key] } };
  const isOpen = !list.frozen && !list.stays;
  const joining: Line[] = [...(tape?.lines ?? []), { ...onList, not: true }];
  const act = async (work: () => Promise<string>) => {
    setBusy(true);
    try {
      said(await work());
    } catch (failure) {
      toast.error((failure as Error).message);
    }
    setBusy(false);
  };
  const putOn = async () => {
    const wish = { tape: { ...countedPart(tape!), name: tape!.name, lines: joining }, sort: [] };
    const { added, of } = await putOnList(client, list, wish, false);
    return wordPut(list, added, of, format.number);
  };
  const takeOff = async () => {
    // Line by line, each those that it drops.
    const wishes = tape!.lines
      .filter(({ id }) => data!.lines.some((one) => one.id === id && one.dropped > 0))
      .map((line) => ({ tape: { ...countedPart(tape!), lines: [onList, turnedRound(line)] }, sort: [] }));
    const { removed } = await takeOffList(client, list, ...wishes);
    return `${format.number(removed)} taken off ${list.name}`;
  };
  const figure = (count: number, name: string, lines: readonly Line[]) => (
    <button
      type="button"
      className="figure underline underline-offset-4 disabled:no-underline"
      disabled={count === 0}
      title="See these on the Desk"
      onClick={() => open(name, lines)}
    >
      {format.number(count)}
    </button>
  );
  return (
    <section className="border-t border-edge py-2 pr-4 pl-10 text-[13px]">
      <label className="flex items-center gap-2">
        Against
        <select
          className="field min-w-0 flex-1 py-0.5"
          value={chosen}
          onChange={(event) => setChosen(event.target.value)}
        >
          <option value="">a saved tape …</option>
          {tapes.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <Trouble error={error ?? saved.error} />
      {data && tape && (
        <ul aria-label="Against the tape" className="pt-1">
          <li className="flex justify-between">
            <span>on the list and on the tape</span>
            <span className="figure">{format.number(data.both)}</span>
          </li>
          <li className="flex justify-between text-kept">
            <span>the tape finds, the list lacks</span>
            <span>
              {isOpen && data.joining > 0 && (
                <Button look="quiet" className="mr-2" disabled={busy} onClick={() => void act(putOn)}>
                  Put on
                </Button>
              )}
              {figure(data.joining, `Not yet on ${list.name}`, joining)}
            </span>
          </li>
          <li className="flex justify-between text-cut">
            <span>on the list, no longer on the tape</span>
            <span>
              {isOpen && data.leaving > 0 && (
                <Button look="quiet" className="mr-2" disabled={busy} onClick={() => void act(takeOff)}>
                  Take off
                </Button>
              )}
              <span className="figure">{format.number(data.leaving)}</span>
            </span>
          </li>
          {data.lines
            .filter(({ dropped }) => dropped > 0)
            .map(({ id, words, dropped }) => {
              const line = tape.lines.find((one) => one.id === id)!;
              return (
                <li key={id} className="flex justify-between gap-3 border-l-2 border-rule pl-3">
                  <span className="min-w-0 truncate" title={words}>
                    by {words}
                  </span>
                  <span className="text-cut">
                    {figure(dropped, `On ${list.name}, dropped by a line`, [onList, turnedRound(line)])}
                  </span>
                </li>
              );
            })}
        </ul>
      )}
    </section>
  );
}

/** The line that keeps exactly what another takes out. */
function turnedRound(line: Line): Line {
  const { not, unknown: _, must: _must, ...rest } = line;
  return {
    ...rest,
    ...(not ? {} : { not: true as const }),
    unknown: passesUnknown(line) ? 'drop' : 'keep',
  };
}
