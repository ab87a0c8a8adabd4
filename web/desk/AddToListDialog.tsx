import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { BeforeAddingAnswer, ListView } from '../../contract/lists.ts';
import { subjectOf, SUBJECTS } from '../../core/fields/registry.ts';
import { listAtHand } from '../../core/lists/at-hand.ts';
import { call } from '../api.ts';
import { fold } from '../../core/text/fold.ts';
import { useFormat } from '../app/format.ts';
import { said } from '../app/history.ts';
import { copyToList, putOnList, takeOffList, wordPut } from '../lists/acts.ts';
import { NewListName } from '../lists/NewListName.tsx';
import { useLists } from '../lists/use-lists.ts';
import { askedFunctions } from '../people/FunctionsEditor.tsx';
import { useRememberedFunctions, withoutTape } from '../people/right-people.ts';
import { RightPersonPicker } from '../people/RightPersonPicker.tsx';
import { Button, Dialog, Segments, Trouble } from '../ui/controls.tsx';
import { useOpenTape } from './open-tape.ts';
import { notePut } from './putting.ts';
import { wishOf, wordActed, type Acted } from './acted.ts';

/** Of what one person a company can be chosen. */
const CHOOSES: readonly string[] = ['companies', 'people'];

/** Puts records on a list, or what they hang on, or what hangs on them; says before how many are new to each. */
export function AddToListDialog({ acted, onClose }: { acted: Acted; onClose(): void }) {
  const format = useFormat();
  const client = useQueryClient();
  const { tape, picks, one, gone, count } = acted;
  const own = subjectOf(tape.subject);
  const [name, setName] = useState('');
  const [subject, setSubject] = useState(tape.subject);
  const [first, setFirst] = useState('');
  const [move, setMove] = useState<'add' | 'move'>('add');
  const [error, setError] = useState<Error | null>(null);
  const [busy, setBusy] = useState(false);
  const { data } = useLists();
  const [whom, setWhom] = useState<'all' | 'one'>('all');
  const [functions, setFunctions] = useRememberedFunctions();
  const openTape = useOpenTape();
  // One person of each company, where people are meant and there are more than one to choose from.
  const choosing =
    subject === 'people' && CHOOSES.includes(tape.subject) && (!one || tape.subject === 'companies');
  const asked = choosing && whom === 'one' ? askedFunctions(functions) : null;
  const limit = /^\d+$/.test(first) && Number(first) > 0 ? Number(first) : undefined;
  const wish = { ...wishOf(acted, limit), ...(asked ? { functions: asked } : {}) };
  const before = useQuery({
    queryKey: ['lists', 'before', wish, subject],
    queryFn: ({ signal }) =>
      call<BeforeAddingAnswer>('POST', `/lists/before?subject=${subject}`, wish, signal),
    retry: false,
  });
  const picked = picks.mode === 'all' || picks.keys.size > 0 || picks.runs.length > 0;
  const words = fold(name.trim());
  const lists =
    data?.lists.filter((list) => list.subject === subject && fold(list.name).includes(words)) ?? [];
  const from = listAtHand(tape);
  const here = data?.lists.find((list) => list.key === from?.list);
  /** Whether it was done; if not, the dialog says why. */
  const act = async (work: () => Promise<string>): Promise<boolean> => {
    setBusy(true);
    setError(null);
    try {
      const words = await work();
      said(words);
      onClose();
      return true;
    } catch (failure) {
      setError(failure as Error);
      setBusy(false);
      return false;
    }
  };
  const add = (list: ListView, made: boolean) =>
    act(async () => {
      const moving = move === 'move' && from !== null && subject === tape.subject && !asked;
      const { added, of } = moving
        ? await copyToList(client, from.list, list, wish, true)
        : await putOnList(client, list, wish, made);
      notePut(subject, list);
      return wordPut(list, added, of, format.number, moving ? 'moved to' : 'put on');
    });
  /** On the list that is called just so, else on a new one. */
  const addToNamed = async () => {
    const there = lists.find((list) => fold(list.name) === words && !list.frozen && !list.stays);
    if (there) return void (await add(there, false));
    try {
      const { list } = await call<{ list: ListView }>('POST', '/lists', { name: name.trim(), subject });
      // Without members it was not wanted, and its name would be taken for the next try.
      if (!(await add(list, true))) await call('DELETE', `/lists/${encodeURIComponent(list.key)}`);
    } catch (failure) {
      setError(failure as Error);
    }
  };
  const others =
    tape.subject === 'companies' ? ['companies', 'people', 'sites'] : [tape.subject, 'companies'];
  const counted = {
    ...acted,
    count: count ?? (subject === tape.subject ? (before.data?.count ?? null) : null),
  };
  const what = wordActed(counted, format.number);
  return (
    <Dialog
      open
      title={`${what.charAt(0).toUpperCase()}${what.slice(1)} to a list`}
      description={one ? undefined : picked ? 'those picked' : 'all of the tape'}
      onClose={onClose}
      width={560}
    >
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2 pb-3 text-[13px]">
        <Segments
          label="What goes on the list"
          value={subject}
          onChange={setSubject}
          options={others.map((id) => ({
            key: id,
            label: id === tape.subject ? `these ${own.many}` : `their ${SUBJECTS.get(id)!.many}`,
          }))}
        />
        {!one && (
          <label className="flex items-center gap-2">
            the first
            <input
              value={first}
              inputMode="numeric"
              aria-label="Only the first so many, in the order of the sheet"
              placeholder={count === null ? 'all' : format.number(count)}
              className="field figure w-24 py-1 text-right"
              onChange={(event) => setFirst(event.target.value.replace(/\D/g, ''))}
            />
            in the order of the sheet
          </label>
        )}
      </div>
      {choosing && (
        <div className="space-y-2 pb-3 text-[13px]">
          <Segments
            label="Which people"
            value={whom}
            onChange={setWhom}
            options={[
              { key: 'all', label: 'all of them' },
              { key: 'one', label: 'one a company, the right person' },
            ]}
          />
          {asked && <RightPersonPicker functions={functions} onFunctions={setFunctions} />}
        </div>
      )}
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim() !== '' && !busy) void addToNamed();
        }}
      >
        <NewListName
          name={name}
          off={busy}
          onName={setName}
          placeholder="What is typed here also finds a list below"
        >
          Put on it
        </NewListName>
      </form>
      <p className="mt-2 min-h-5 text-[13px] text-soft" aria-live="polite">
        {before.data && (
          <>
            <span className="figure text-ink">{format.number(before.data.count)}</span>{' '}
            {SUBJECTS.get(subject)![before.data.count === 1 ? 'one' : 'many']}
            {before.data.suppressed > 0 && (
              <span className="text-cut">
                , of which <span className="figure">{format.number(before.data.suppressed)}</span>{' '}
                {before.data.suppressed === 1 ? 'is' : 'are'} kept off every export
              </span>
            )}
          </>
        )}
        {asked && before.data && before.data.without > 0 && (
          <span>
            {'; '}
            {before.data.withoutKeys.length > 0 ? (
              <Button
                look="quiet"
                className="px-0 text-[13px] underline"
                onClick={() => {
                  openTape(withoutTape(asked, before.data.withoutKeys));
                  onClose();
                }}
              >
                {wordWithout(before.data.without, format.number)}
              </Button>
            ) : (
              wordWithout(before.data.without, format.number)
            )}
          </span>
        )}
        {gone > 0 && (
          <span className="text-unsure">
            {' '}
            {format.number(gone)} of the {own.many} picked no longer pass the tape and stay off.
          </span>
        )}
      </p>
      <Trouble error={error ?? before.error} />
      {from && here && subject === tape.subject && !asked && !here.frozen && !here.stays && (
        <div className="mt-2 flex items-center gap-3 text-[13px]">
          <Segments
            label="Whether they stay on their list"
            value={move}
            onChange={setMove}
            options={[
              { key: 'add', label: `they stay on ${here.name}` },
              { key: 'move', label: 'they move' },
            ]}
          />
          <Button
            disabled={busy}
            onClick={() =>
              void act(async () => {
                const { removed } = await takeOffList(client, here, wish);
                return `${format.number(removed)} taken off ${here.name}`;
              })
            }
          >
            Take off {here.name}
          </Button>
        </div>
      )}
      {lists.length > 0 && (
        <table className="mt-3 w-full" aria-label="Lists">
          <thead>
            <tr className="border-b border-edge text-[12px]">
              <th className="py-1 text-left font-semibold">List</th>
              <th className="text-right font-semibold">Members</th>
              <th className="text-right font-semibold">There already</th>
              <th className="text-right font-semibold">New to it</th>
            </tr>
          </thead>
          <tbody>
            {lists.map((list) => {
              const there = before.data?.there[list.key];
              const closed = list.frozen ? 'frozen' : list.stays ? 'follows other lists' : null;
              return (
                <tr key={list.key} className="border-b border-rule hover:bg-picked">
                  <td className="py-0.5">
                    <button
                      type="button"
                      disabled={busy || closed !== null}
                      className="w-full py-1 text-left enabled:hover:underline disabled:text-soft"
                      onClick={() => void add(list, false)}
                    >
                      {list.name}
                      {closed && <span className="text-[12px]"> {closed}</span>}
                      {list.suppression && <span className="text-[12px] text-cut"> suppression</span>}
                    </button>
                  </td>
                  <td className="figure text-right text-[13px] text-soft">{format.number(list.members)}</td>
                  <td className="figure text-right text-[13px] text-soft">
                    {there === undefined ? '…' : format.number(there)}
                  </td>
                  <td className="figure text-right text-[13px] font-semibold">
                    {there === undefined || !before.data ? '…' : format.number(before.data.count - there)}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </Dialog>
  );
}

/** "12 companies have nobody of these". */
function wordWithout(count: number, figure: (n: number) => string): string {
  return `${figure(count)} ${count === 1 ? 'company has' : 'companies have'} nobody of these`;
}
