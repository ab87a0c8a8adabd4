import { capital } from '../../../core/text/capital.ts';
import clsx from 'clsx';
import type { ReactNode } from 'react';
import type { MatchView, RowState } from '../../../contract/matches.ts';
import { SURE_BY, SURE_BY_WORDS, type SureBy } from '../../../core/match/outcome.ts';
import { useFormat } from '../../app/format.ts';
import { Roll } from '../../ui/Roll.tsx';
import { WORDS } from './words.ts';
import type { RowsShown } from './use-match.ts';

/** The paper of a match: from the rows of the file to those to be matched, and what became of them; each figure opens its rows. */
export function MatchRoll({
  match,
  onShow,
  children,
}: {
  match: MatchView;
  onShow(shown: RowsShown): void;
  children: ReactNode;
}) {
  const format = useFormat();
  const { rows, notData, unreadable, twice, toMatch, sure, settled, doubtful, none, found } = match;
  const show = (states: RowState[], by: SureBy | null = null) => onShow({ states, by });
  const percent = (count: number) => (toMatch === 0 ? 0 : Math.round((100 * count) / toMatch));
  const words = WORDS[match.of];
  const allSure = SURE_BY.reduce((sum, by) => sum + sure[by], 0);
  const steps = [
    { key: 'rows', label: capital(words.rows), delta: rows, total: rows },
    ...(notData > 0
      ? [{ key: 'not-data', label: 'Not data: totals, notes', delta: -notData, total: rows - notData }]
      : []),
    ...(match.of === 'doubles'
      ? []
      : [
          {
            key: 'unreadable',
            label: 'Nothing to go by',
            note: 'no name, number, domain or phone in them',
            delta: -unreadable,
            total: rows - notData - unreadable,
            onOpen: () => show(['unreadable']),
          },
          {
            key: 'twice',
            label: 'Twice in the file',
            note: 'they go with the first of their kind',
            delta: -twice,
            total: toMatch,
            onOpen: () => show(['twice']),
          },
        ]),
  ];
  return (
    <Roll
      title={match.name}
      about={
        <>
          {match.of === 'file'
            ? `companies in mind, ${match.fileName}`
            : 'companies that the universe may have twice'}
          <span className="block">
            {match.person && `${match.person}, `}
            {format.date(match.madeAt.slice(0, 10))}, against{' '}
            <span className="figure">{format.number(match.companies)}</span> companies
          </span>
          {match.changed && <span className="block text-unsure">The universe has changed since.</span>}
        </>
      }
      steps={steps}
      opens="See these rows"
      below={
        <ul aria-label="What became of the rows" className="border-t border-edge">
          <Came
            label="Sure"
            look="bg-kept"
            text="text-kept"
            count={allSure}
            from={0}
            of={toMatch}
            onOpen={() => show(['sure'])}
          >
            <ul className="ml-1 border-l-2 border-rule pl-3 text-[13px]">
              {SURE_BY.filter((by) => by !== 'key' || sure.key > 0).map((by) => (
                <li key={by} className="flex justify-between">
                  by {SURE_BY_WORDS[by]}
                  <Opens count={sure[by]} onOpen={() => show(['sure'], by)} />
                </li>
              ))}
            </ul>
          </Came>
          <Came
            label="Settled by hand"
            look="bg-kept"
            text="text-kept"
            count={settled}
            from={allSure}
            of={toMatch}
            onOpen={() => show(['settled'])}
          />
          <Came
            label="Doubtful, left to settle"
            look="unsure-bar"
            text="text-unsure"
            count={doubtful}
            from={found}
            of={toMatch}
            onOpen={() => show(['doubtful'])}
          />
          <Came
            label="None found"
            look="hatched"
            text="text-cut"
            count={none}
            from={found + doubtful}
            of={toMatch}
            onOpen={() => show(['none'])}
          />
        </ul>
      }
      foot={
        match.of === 'file'
          ? { label: words.foot, total: percent(found), unit: '%' }
          : { label: words.foot, total: found }
      }
      note={
        <>
          <span className="figure">{format.number(found)}</span> of{' '}
          <span className="figure">{format.number(toMatch)}</span>{' '}
          {match.of === 'file' ? 'rows' : 'companies'}
          {match.of === 'file' && doubtful > 0 && (
            <>
              , <span className="figure">{percent(found + doubtful)}</span> % at most
            </>
          )}
          {match.of === 'file' && match.foundCompanies !== found && (
            <span className="block">
              they are <span className="figure">{format.number(match.foundCompanies)}</span> companies
            </span>
          )}
        </>
      }
    >
      {children}
    </Roll>
  );
}

function Came({
  label,
  look,
  text,
  count,
  from,
  of,
  onOpen,
  children,
}: {
  label: string;
  look: string;
  text: string;
  count: number;
  from: number;
  of: number;
  onOpen(): void;
  children?: ReactNode;
}) {
  const share = (part: number) => `${(100 * part) / Math.max(1, of)}%`;
  return (
    <li className="border-b border-dashed border-edge/70 py-1.5 pr-4 pl-10">
      <div className="flex items-baseline justify-between gap-3">
        <span className={clsx('font-semibold', text)}>{label}</span>
        <Opens count={count} onOpen={onOpen} large />
      </div>
      {children}
      <div className="relative mt-1 h-2" aria-hidden="true">
        <div className="absolute top-1 w-full border-t border-rule" />
        <div className={clsx('absolute h-2', look)} style={{ left: share(from), width: share(count) }} />
      </div>
    </li>
  );
}

function Opens({ count, onOpen, large = false }: { count: number; onOpen(): void; large?: boolean }) {
  const format = useFormat();
  return (
    <button
      type="button"
      className={clsx('figure enabled:hover:underline', large && 'text-[15px] font-semibold')}
      disabled={count === 0}
      title="See these rows"
      onClick={onOpen}
    >
      {format.number(count)}
    </button>
  );
}
