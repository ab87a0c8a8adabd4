import { useQuery, useQueryClient } from '@tanstack/react-query';
import clsx from 'clsx';
import { useRef, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { toast } from 'sonner';
import type { ListView } from '../../../contract/lists.ts';
import type { RowsAnswer } from '../../../contract/responses.ts';
import { CALL_OUTCOMES, tagsFor, type CallOutcome } from '../../../core/lists/calls.ts';
import { spellFunctions } from '../../../core/people/functions.ts';
import { call } from '../../api.ts';
import { useFormat } from '../../app/format.ts';
import { useKey } from '../../app/keys.ts';
import { addressOf } from '../../desk/address.ts';
import { countedPart } from '../../desk/queries.ts';
import { askedFunctions } from '../../people/FunctionsEditor.tsx';
import { choiceOf, useRememberedFunctions, useRightPeople } from '../../people/right-people.ts';
import { Button, Kbd, Trouble } from '../../ui/controls.tsx';
import { PrintButton } from '../../ui/PrintButton.tsx';
import { describeMembers } from '../acts.ts';
import { tapeOfList, useLists } from '../use-lists.ts';
import { calledOf, columnsFor } from './called.ts';
import { CallRoll } from './CallRoll.tsx';

/** As many as anybody calls; a longer list goes on once these are called and taken off. */
const MOST_CALLED = 1000;

/** A list as a call sheet: whom to call, what was noted last, and what came of it by one key. */
export function CallSheet() {
  const { list: key } = useParams();
  const { data, error } = useLists();
  const list = data?.lists.find((one) => one.key === key);
  if (!list)
    return (
      <main className="flex-1 px-5 pt-4">
        <Trouble error={error} />
        {data && <p className="text-soft">There is no list under this address any more.</p>}
      </main>
    );
  if (list.subject !== 'companies' && list.subject !== 'people')
    return <p className="flex-1 px-5 pt-4 text-soft">Only companies and people are called.</p>;
  return <Sheet key={list.key} list={list} />;
}

function Sheet({ list }: { list: ListView }) {
  const format = useFormat();
  const client = useQueryClient();
  const navigate = useNavigate();
  const { ready, own } = useRightPeople();
  const [functions, setFunctions] = useRememberedFunctions();
  const [at, setAt] = useState(0);
  const [noting, setNoting] = useState(false);
  const ofCompanies = list.subject === 'companies';
  const asked = askedFunctions(functions);
  const columns = columnsFor(ofCompanies, asked);
  const tape = tapeOfList(list);
  const wish = { tape: countedPart(tape), sort: [], columns, offset: 0, limit: MOST_CALLED };
  const { data, error } = useQuery({
    queryKey: ['rows', 'calls', wish],
    queryFn: ({ signal }) => call<RowsAnswer>('POST', '/rows', wish, signal),
    placeholderData: (before) => before,
    retry: false,
  });
  const rows = (data?.rows ?? []).map((row) => calledOf(row, ofCompanies, asked));
  const here = rows[Math.min(at, rows.length - 1)];
  const body = useRef<HTMLTableSectionElement>(null);
  const go = (to: number) => {
    const next = Math.max(0, Math.min(rows.length - 1, to));
    setAt(next);
    body.current?.rows[next]?.scrollIntoView({ block: 'nearest' });
  };
  const say = async (outcome: CallOutcome | null) => {
    if (!here) return;
    if (outcome !== null && at < rows.length - 1) go(at + 1);
    if (outcome === here.outcome) return;
    try {
      await describeMembers(client, list, { members: [here.key] }, tagsFor(outcome));
    } catch (failure) {
      toast.error((failure as Error).message);
    }
  };
  const note = async (text: string) => {
    setNoting(false);
    if (!here || text === (here.note ?? '')) return;
    try {
      await describeMembers(client, list, { members: [here.key] }, { note: text });
    } catch (failure) {
      toast.error((failure as Error).message);
    }
  };
  const open = () =>
    here &&
    void navigate(
      addressOf({
        tape,
        sort: [],
        openLine: null,
        company: ofCompanies ? here.key : `people/${here.key}`,
      }),
    );
  useKey('j', () => go(at + 1));
  useKey('k', () => go(at - 1));
  useKey('arrowdown', () => go(at + 1));
  useKey('arrowup', () => go(at - 1));
  useKey('e', () => setNoting(true));
  useKey('enter', open);
  useKey('0', () => void say(null));
  useKey('1', () => void say(CALL_OUTCOMES[0]));
  useKey('2', () => void say(CALL_OUTCOMES[1]));
  useKey('3', () => void say(CALL_OUTCOMES[2]));
  useKey('4', () => void say(CALL_OUTCOMES[3]));
  useKey('5', () => void say(CALL_OUTCOMES[4]));
  useKey('6', () => void say(CALL_OUTCOMES[5]));
  const choices = [...ready, ...own];
  return (
    <div className="flex min-h-0 flex-1">
      <main className="flex min-h-0 min-w-0 flex-1 flex-col px-5 pt-3">
        <div className="flex items-center gap-3 border-b border-edge pb-2">
          <h1 className="title min-w-0 flex-1 truncate text-[21px]">Calls: {list.name}</h1>
          {ofCompanies && (
            <label className="flex items-center gap-2 text-[13px]">
              ask for
              <select
                aria-label="Whom to ask for"
                className="field w-56 py-1"
                title={spellFunctions(asked)}
                value={choiceOf(choices, asked)?.key ?? ''}
                onChange={(event) => {
                  const chosen = choices.find((one) => one.key === event.target.value);
                  if (chosen) setFunctions(chosen.functions);
                }}
              >
                {!choiceOf(choices, asked) && <option value="">{spellFunctions(asked)}</option>}
                {choices.map((one) => (
                  <option key={one.key} value={one.key}>
                    {one.label}
                  </option>
                ))}
              </select>
            </label>
          )}
          <PrintButton kind="sheet" body={{ tape, sort: [], columns }} name={`Calls ${list.name}`} />
          <Button onClick={() => void navigate('/lists')}>Lists</Button>
        </div>
        <div role="group" aria-label="What came of it" className="flex flex-wrap gap-1 py-2 text-[13px]">
          {CALL_OUTCOMES.map((outcome, i) => (
            <Button
              key={outcome}
              className="px-1.5 py-1"
              look={here?.outcome === outcome ? 'ink' : 'plain'}
              aria-pressed={here?.outcome === outcome}
              disabled={!here}
              onClick={() => void say(outcome)}
            >
              {outcome} <Kbd>{i + 1}</Kbd>
            </Button>
          ))}
          <Button look="quiet" disabled={!here || here.outcome === null} onClick={() => void say(null)}>
            none <Kbd>0</Kbd>
          </Button>
          <Button look="quiet" disabled={!here} onClick={() => setNoting(true)}>
            note <Kbd>E</Kbd>
          </Button>
        </div>
        <Trouble error={error} />
        <div className="min-h-0 flex-1 overflow-y-auto pb-4">
          {!data && !error && <p className="py-4 text-soft">Looking up numbers …</p>}
          {data && rows.length === 0 && <p className="py-4 text-soft">Nobody is on this list yet.</p>}
          {rows.length > 0 && (
            <table className="w-full" aria-label="Calls">
              <thead>
                <tr className="border-b border-edge text-left text-[12px]">
                  <th className="py-1 pr-3 font-semibold">{ofCompanies ? 'Company' : 'Person'}</th>
                  <th className="py-1 pr-3 font-semibold">Phone</th>
                  <th className="py-1 pr-3 font-semibold">{ofCompanies ? 'Ask for' : 'Company'}</th>
                  <th className="py-1 pr-3 font-semibold">Last note</th>
                  <th className="py-1 font-semibold">What came of it</th>
                </tr>
              </thead>
              <tbody ref={body}>
                {rows.map((row, i) => (
                  <tr
                    key={row.key}
                    aria-selected={row === here}
                    className={clsx(
                      'border-b border-rule align-top',
                      row === here && 'bg-picked shadow-[inset_3px_0_0_var(--color-ink)]',
                    )}
                    onClick={() => setAt(i)}
                  >
                    <td className="py-1.5 pr-3 pl-2">
                      <strong>{row.name}</strong>
                      {row.where && <span className="block text-[13px] text-soft">{row.where}</span>}
                    </td>
                    <td className="figure py-1.5 pr-3 whitespace-nowrap">
                      <Phone number={row.phone} />
                    </td>
                    <td className="py-1.5 pr-3">
                      {row.person ? (
                        <>
                          {row.person.name}
                          {row.person.title && (
                            <span className="block text-[13px] text-soft">{row.person.title}</span>
                          )}
                          {row.person.phone && <Phone number={row.person.phone} />}
                        </>
                      ) : (
                        <span className="text-soft">{ofCompanies ? 'nobody of these' : 'unknown'}</span>
                      )}
                    </td>
                    <td className="py-1.5 pr-3 text-[13px]">
                      {noting && row === here ? (
                        <input
                          autoFocus
                          aria-label={`Note on ${row.name}`}
                          className="field w-full py-0.5"
                          maxLength={2000}
                          defaultValue={row.note ?? ''}
                          onBlur={(event) => void note(event.target.value.trim())}
                          onKeyDown={(event) => {
                            if (event.key === 'Enter') event.currentTarget.blur();
                            if (event.key === 'Escape') setNoting(false);
                          }}
                        />
                      ) : (
                        row.note
                      )}
                    </td>
                    <td className="py-1.5 text-[13px] font-semibold">{row.outcome}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {data && data.total > rows.length && (
            <p className="py-3 text-soft">
              The first <span className="figure">{format.number(rows.length)}</span> of{' '}
              <span className="figure">{format.number(data.total)}</span> members.
            </p>
          )}
        </div>
      </main>
      <CallRoll list={list} rows={rows} />
    </div>
  );
}

function Phone({ number }: { number: string | null }) {
  if (number === null) return <span className="font-sans text-soft italic">unknown</span>;
  return (
    <a
      href={`tel:${number.replace(/[^\d+]/g, '')}`}
      className="figure block underline decoration-rule underline-offset-4"
    >
      {number}
    </a>
  );
}
