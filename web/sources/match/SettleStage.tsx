import { useQueryClient } from '@tanstack/react-query';
import clsx from 'clsx';
import { useRef, useState } from 'react';
import type { CandidateView, MatchAnswer, MatchPairAnswer } from '../../../contract/matches.ts';
import type { ComparedField } from '../../../core/match/compare.ts';
import { KM_A_MILE } from '../../../core/geo/distance.ts';
import { useFormat } from '../../app/format.ts';
import { useKey } from '../../app/keys.ts';
import { useSettings } from '../../app/settings.ts';
import { Button, Kbd, Trouble } from '../../ui/controls.tsx';
import {
  ChanceRuler,
  chanceText,
  chanceWords,
  DifferingName,
  FIELD_WORDS,
  MARK_WORDS,
  MarkSign,
} from './marks.tsx';
import { Together } from './Together.tsx';
import { WORDS } from './words.ts';
import { settle, usePair } from './use-match.ts';

/** Candidates that stand side by side; further ones are reached by scrolling. */
const MOST = 9;

/** The doubtful rows one by one: the row of the file, and beside it the companies that it may be. */
export function SettleStage({
  answer,
  row,
  onRow,
  onTable,
}: {
  answer: MatchAnswer;
  row: number;
  onRow(row: number): void;
  onTable(): void;
}) {
  const { match } = answer;
  const client = useQueryClient();
  const { data: pair, error } = usePair(match.id, row);
  const [trouble, setTrouble] = useState<Error | null>(null);
  const ready = pair?.row === row ? pair : null;
  // A key pressed twice means the same row, and is one act.
  const giving = useRef<number | null>(null);
  const give = (key: string | null) => {
    if (!ready || giving.current === row) return;
    giving.current = row;
    const next = ready.next;
    settle(
      client,
      match,
      [key === null ? { row, as: 'none' } : { row, as: 'taken', key }],
      key === null ? `none for row ${row}` : `the company of row ${row}`,
    )
      .then(() => {
        setTrouble(null);
        if (next !== null) onRow(next);
      }, setTrouble)
      .finally(() => (giving.current = null));
  };
  const go = (to: number | null | undefined) => {
    if (to !== null && to !== undefined) onRow(to);
  };
  useKey('0', () => give(null));
  useKey('space', () => go(ready?.next));
  useKey('j', () => go(ready?.next));
  useKey('k', () => go(ready?.back));
  return (
    <section className="flex min-h-0 min-w-0 flex-1 flex-col px-5 pt-3 pb-3" aria-label="Settle the doubtful">
      <header className="flex flex-wrap items-baseline gap-x-4 gap-y-1 pb-2">
        <h1 className="title text-[23px]">Settle the doubtful</h1>
        <p className="text-soft max-[1200px]:hidden">{WORDS[match.of].about}</p>
        <span className="ml-auto flex items-center gap-2">
          {pair && (
            <span className="mr-2">
              <span className="figure font-semibold">{pair.nth}</span> of{' '}
              <span className="figure font-semibold">{pair.of}</span>
            </span>
          )}
          <Button look="quiet" disabled={ready?.back == null} onClick={() => go(ready?.back)}>
            back <Kbd>k</Kbd>
          </Button>
          <Button look="quiet" disabled={ready?.next == null} onClick={() => go(ready?.next)}>
            on <Kbd>j</Kbd>
          </Button>
          <Button onClick={onTable}>All as a table</Button>
        </span>
      </header>
      <Trouble error={error ?? trouble} />
      {pair && (
        <div className={clsx('min-h-0 flex-1 overflow-auto', pair.row !== row && 'opacity-60')}>
          <PairTable answer={answer} pair={pair} onGive={give} onLater={() => go(ready?.next)} />
        </div>
      )}
      <Together answer={answer} />
      <Settled answer={answer} pair={pair} />
    </section>
  );
}

function PairTable({
  answer: { match, limits },
  pair,
  onGive,
  onLater,
}: {
  answer: MatchAnswer;
  pair: MatchPairAnswer;
  onGive(key: string | null): void;
  onLater(): void;
}) {
  const format = useFormat();
  const shown = pair.candidates.slice(0, MOST);
  const own = new Map(pair.fields.map(({ field, value }) => [field, value]));
  const cell = 'border-l border-rule px-2.5 py-1.5 align-top';
  return (
    <table className={clsx('border-y border-edge text-left', shown.length > 1 ? 'w-full' : 'min-w-[70%]')}>
      <thead>
        <tr className="border-b border-edge align-top">
          <th className="w-[84px]">
            <span className="sr-only">Field</span>
          </th>
          <th className={clsx(cell, 'w-[228px] min-w-[228px] bg-paper font-normal')}>
            <span className="text-[12px] text-soft">
              {WORDS[match.of].row}{' '}
              {match.of === 'file' && <span className="figure">{format.number(pair.row)}</span>}
            </span>
            <span className="title block text-[16px]">
              {own.get('name') ?? own.get('domain') ?? 'no name'}
            </span>
            {pair.carried.length > 0 && (
              <span className="block text-[12px] text-soft" title="Other cells of the row, kept with it">
                {pair.carried.map(({ heading, value }) => `${heading} ${value}`).join(', ')}
              </span>
            )}
          </th>
          {shown.map((candidate, i) => (
            <th key={candidate.key} className={clsx(cell, 'max-w-[300px] min-w-[172px] font-normal')}>
              <CandidateKey nth={i + 1} onTake={() => onGive(candidate.key)} />
              <span className="figure ml-2 text-[20px] font-semibold">
                {chanceText(candidate.chance)}
              </span>{' '}
              <span className="text-[13px]">{chanceWords(candidate.chance, limits.sure)}</span>
              <ChanceRuler chance={candidate.chance} limits={limits} />
            </th>
          ))}
          {shown.length === 0 && (
            <th className={clsx(cell, 'font-normal text-soft')}>Nothing in the universe is like this row.</th>
          )}
        </tr>
      </thead>
      <tbody>
        {pair.fields.map(({ field, value }) => (
          <tr key={field} className="border-b border-rule">
            <th scope="row" className="py-1.5 pr-2 text-[13px] font-normal text-soft">
              {FIELD_WORDS[field]}
            </th>
            <td className={clsx(cell, 'bg-paper')}>
              <Value field={field} value={value} none="none" />
            </td>
            {shown.map((candidate) => (
              <Compared
                key={candidate.key}
                candidate={candidate}
                field={field}
                own={value}
                className={cell}
              />
            ))}
            {shown.length === 0 && <td className={cell} />}
          </tr>
        ))}
        <tr>
          <th scope="row" className="py-2 align-top text-[13px] font-normal text-soft">
            Why
          </th>
          <td className={clsx(cell, 'bg-paper pb-2.5')}>
            <p className="pb-2.5 text-[13px]">
              <span className="figure font-semibold">{pair.candidates.length}</span> of{' '}
              <span className="figure">{format.number(match.companies)}</span> companies{' '}
              {pair.candidates.length === 1 ? 'is' : 'are'} like it
              {pair.settledBy !== null && (
                <span className="block text-soft">
                  settled by {pair.settledBy}: {pair.state === 'none' ? 'none of them' : 'as marked'}
                </span>
              )}
            </p>
            <span className="flex flex-wrap gap-1.5">
              <Button className="px-2" onClick={() => onGive(null)}>
                None <Kbd>0</Kbd>
              </Button>
              <Button className="px-2" onClick={onLater} disabled={pair.next === null}>
                Later <Kbd>Space</Kbd>
              </Button>
            </span>
          </td>
          {shown.map((candidate, i) => (
            <td key={candidate.key} className={clsx(cell, 'pb-2.5')}>
              <p className="pb-2.5 text-[13px]">
                {candidate.why}
                {candidate.group !== null && candidate.group !== candidate.name && (
                  <span className="block text-soft">It belongs to {candidate.group}.</span>
                )}
              </p>
              <Button
                look={(pair.settledBy === null ? i === 0 : pair.key === candidate.key) ? 'ink' : 'plain'}
                className="px-2"
                disabled={candidate.gone}
                onClick={() => onGive(candidate.key)}
              >
                {pair.settledBy !== null && pair.key === candidate.key ? 'Taken' : 'This one'}{' '}
                <Kbd>{i + 1}</Kbd>
              </Button>
            </td>
          ))}
          {shown.length === 0 && <td className={cell} />}
        </tr>
      </tbody>
    </table>
  );
}

/** The figure that takes a candidate, beside which its key is heard. */
function CandidateKey({ nth, onTake }: { nth: number; onTake(): void }) {
  useKey(String(nth), onTake);
  return <Kbd>{nth}</Kbd>;
}

function Compared({
  candidate,
  field,
  own,
  className,
}: {
  candidate: CandidateView;
  field: ComparedField;
  own: string | null;
  className: string;
}) {
  const { distance } = useSettings();
  const { value, mark } = candidate.fields.find((one) => one.field === field)!;
  return (
    <td className={className}>
      <span className="flex items-baseline">
        <span className="translate-y-0.5">
          <MarkSign mark={mark} />
        </span>
        {value === null ? (
          <em className="text-soft">unknown</em>
        ) : field === 'name' ? (
          <span>
            <DifferingName value={value} other={own} mark={mark} />
          </span>
        ) : (
          <Value field={field} value={value} none="unknown" />
        )}
        {field === 'town' && mark === 'different' && candidate.km !== null && (
          <span className="ml-1.5 text-[12px] whitespace-nowrap text-soft">
            {apartIn(candidate.km, distance)} away
          </span>
        )}
      </span>
    </td>
  );
}

/** A distance in words, in the unit of the settings. */
function apartIn(km: number, unit: 'km' | 'miles'): string {
  return unit === 'km' ? `${Math.round(km)} km` : `${Math.round(km / KM_A_MILE)} miles`;
}

const FIGURES: ReadonlySet<ComparedField> = new Set(['number', 'postcode', 'country', 'phone', 'headcount']);

function Value({ field, value, none }: { field: ComparedField; value: string | null; none: string }) {
  if (value === null) return <em className="text-soft">{none}</em>;
  return <span className={clsx('break-words', FIGURES.has(field) && 'figure')}>{value}</span>;
}

/** What the marks mean, and how many of the doubtful are settled: one box each where they are few. */
function Settled({ answer: { match }, pair }: { answer: MatchAnswer; pair: MatchPairAnswer | undefined }) {
  const format = useFormat();
  const of = pair?.of ?? 0;
  const settled = Math.max(0, of - match.doubtful);
  return (
    <footer className="space-y-2 pt-2">
      <p className="flex flex-wrap items-center gap-x-5 gap-y-1 text-[13px]">
        {(['equal', 'alike', 'different', 'missing'] as const).map((mark) => (
          <span key={mark} className="flex items-center">
            <MarkSign mark={mark} />
            {MARK_WORDS[mark]}
          </span>
        ))}
        <span className="ml-auto text-soft">accents, case and legal forms do not count</span>
      </p>
      <p className="flex items-center gap-4 border-t border-edge pt-2">
        {of <= MOST_BOXES && (
          <span className="flex gap-[3px]" aria-hidden="true">
            {Array.from({ length: of }, (_, i) => (
              <span
                key={i}
                className={clsx('h-3.5 w-2 border', i < settled ? 'border-kept bg-kept' : 'border-edge')}
              />
            ))}
          </span>
        )}
        <span>
          <span className="figure font-semibold">{format.number(settled)}</span> settled,{' '}
          <span className="figure font-semibold">{format.number(match.doubtful)}</span> left
        </span>
        <span className="ml-auto text-soft">
          take back <Kbd>Ctrl Z</Kbd>
        </span>
      </p>
    </footer>
  );
}

const MOST_BOXES = 45;
