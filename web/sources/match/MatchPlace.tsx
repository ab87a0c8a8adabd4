import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Navigate, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import type { ListView } from '../../../contract/lists.ts';
import { ROW_STATES, type MatchView, type RowState } from '../../../contract/matches.ts';
import { emptyTape } from '../../../core/tape/nodes.ts';
import { SURE_BY, SURE_BY_WORDS } from '../../../core/match/outcome.ts';
import { said } from '../../app/history.ts';
import { useFormat } from '../../app/format.ts';
import { useKey } from '../../app/keys.ts';
import { useOpenList, useOpenTape } from '../../lists/open-list.ts';
import { useLists } from '../../lists/use-lists.ts';
import { Button, Kbd, Trouble } from '../../ui/controls.tsx';
import { Again } from './Again.tsx';
import { DoublesActs } from './DoublesActs.tsx';
import { EnrichDialog } from './EnrichDialog.tsx';
import { freeName } from './free-name.ts';
import { MatchRoll } from './MatchRoll.tsx';
import { MatchTable } from './MatchTable.tsx';
import { SettleStage } from './SettleStage.tsx';
import { fileOf, keepFile, makeList, useMatch, useMatchRows, type RowsShown } from './use-match.ts';
import { Weights } from './Weights.tsx';

const ALL: RowsShown = { states: ROW_STATES, by: null };
const DOUBTFUL: RowsShown = { states: ['doubtful'], by: null };

const TITLES: Record<RowState, string> = {
  sure: 'Sure',
  settled: 'Settled by hand',
  doubtful: 'Doubtful',
  none: 'None found',
  twice: 'Twice in the file',
  unreadable: 'Nothing to go by',
};

/** A file lined up with the universe: the doubtful rows to be settled, all rows as a table, and what is made of it. */
export function MatchPlace({
  id,
  onLeave,
  onLoad,
}: {
  id: string;
  onLeave(): void;
  onLoad(file: File): void;
}) {
  const { data: answer, error } = useMatch(id);
  const [params, setParams] = useSearchParams();
  const stage = stageOf(params);
  const show = (more: Record<string, string>) => setParams({ match: id, ...more });
  if (error)
    return (
      <main className="space-y-3 px-5 py-4">
        <Trouble error={error} />
        <Button onClick={onLeave}>Back to the sources</Button>
      </main>
    );
  if (!answer) return <main className="px-5 py-4 text-soft">Opening …</main>;
  const { match } = answer;
  return (
    <main className="flex min-h-0 flex-1">
      <div className="flex min-h-0 min-w-0 flex-1 flex-col">
        <p className="flex items-center gap-2 px-5 pt-2 text-[13px] text-soft">
          <Button look="quiet" className="underline" onClick={onLeave}>
            Sources
          </Button>
          <span aria-hidden="true">/</span> {match.name}
        </p>
        {stage.of === 'row' ? (
          <SettleStage
            key={id}
            answer={answer}
            row={stage.row}
            onRow={(row) => show({ row: String(row) })}
            onTable={() => show({ show: 'all' })}
          />
        ) : stage.of === 'first' && match.doubtful > 0 ? (
          <First match={match} />
        ) : stage.of === 'weights' ? (
          <Weights answer={answer} onBack={() => show({ show: 'all' })} />
        ) : (
          <MatchTable
            match={match}
            shown={stage.of === 'rows' ? stage.shown : ALL}
            title={stage.of === 'rows' ? titleOf(stage.shown) : 'All rows'}
            onRow={(row) => show({ row: String(row) })}
            onAll={stage.of === 'rows' ? () => show({ show: 'all' }) : null}
          />
        )}
      </div>
      <MatchRoll
        match={match}
        onShow={({ states, by }) => show({ show: [states.join(), by].filter(Boolean).join(':') })}
      >
        {match.of === 'doubles' ? (
          <DoublesActs match={match} onWeights={() => show({ show: 'weights' })} />
        ) : (
          <>
            <Again match={match} onMoved={() => show({ show: 'moved' })} />
            <MatchActs match={match} onLoad={onLoad} onWeights={() => show({ show: 'weights' })} />
          </>
        )}
      </MatchRoll>
    </main>
  );
}

type Stage =
  { of: 'first' | 'all' | 'weights' } | { of: 'row'; row: number } | { of: 'rows'; shown: RowsShown };

function stageOf(params: URLSearchParams): Stage {
  const row = params.get('row');
  if (row !== null && /^\d{1,9}$/.test(row)) return { of: 'row', row: Number(row) };
  const shown = params.get('show');
  if (shown === null) return { of: 'first' };
  if (shown === 'weights') return { of: 'weights' };
  if (shown === 'moved') return { of: 'rows', shown: { ...ALL, moved: true } };
  const [states, by] = shown.split(':');
  const known = states!
    .split(',')
    .filter((state): state is RowState => ROW_STATES.includes(state as RowState));
  if (known.length === 0) return { of: 'all' };
  const sureBy = SURE_BY.find((one) => one === by) ?? null;
  return { of: 'rows', shown: { states: known, by: sureBy } };
}

const titleOf = ({ states, by, moved }: RowsShown): string =>
  moved
    ? 'Moved'
    : states.map((state) => TITLES[state]).join(', ') + (by === null ? '' : `, by ${SURE_BY_WORDS[by]}`);

/** Goes to the first doubtful row. */
function First({ match }: { match: MatchView }) {
  const { data, error } = useMatchRows(match.id, DOUBTFUL);
  const first = data?.pages[0]?.rows[0];
  if (first)
    return <Navigate replace to={`/sources?match=${encodeURIComponent(match.id)}&row=${first.row}`} />;
  return error ? <Trouble error={error} /> : <p className="px-5 py-4 text-soft">Opening …</p>;
}

/** What can be done with a match: a list of those found, the file again, the rest as a file or as new companies. */
function MatchActs({
  match,
  onLoad,
  onWeights,
}: {
  match: MatchView;
  onLoad(file: File): void;
  onWeights(): void;
}) {
  const format = useFormat();
  const client = useQueryClient();
  const open = useOpenList();
  const openTape = useOpenTape();
  const { data: lists } = useLists();
  const [enriching, setEnriching] = useState(false);
  const [made, setMade] = useState<ListView | null>(null);
  const list = useMutation({
    mutationFn: () =>
      makeList(
        client,
        match,
        freeName(
          match.name,
          (lists?.lists ?? []).map(({ name }) => name),
        ),
      ),
    onSuccess: (answer) => {
      setMade(answer.list);
      said(`${format.number(answer.added)} companies are on the list “${answer.list.name}”.`);
    },
  });
  const rest = useMutation({ mutationFn: () => fileOf(match, 'left', []) });
  const filling = useMutation({ mutationFn: () => fileOf(match, 'fill', []) });
  const fillIn = () =>
    filling.mutate(undefined, {
      onSuccess: ({ file, leftOut }) => {
        if (leftOut > 0)
          toast(
            `${format.number(leftOut)} ${leftOut === 1 ? 'row is' : 'rows are'} left out: the companies are not in the universe any more. Match again to find them anew.`,
            { duration: 12_000 },
          );
        onLoad(new File([file], `${match.name}, filled in.csv`, { type: 'text/csv' }));
      },
    });
  const left = match.none + match.doubtful + match.unreadable;
  // The list that was made of it, while it is there.
  const there = lists?.lists.find(({ key }) => key === (made?.key ?? match.list));
  const people = (of: ListView) =>
    openTape({
      ...emptyTape('people'),
      lines: [{ id: 'l1', has: 'company', lines: [{ id: 'l2', field: 'list', test: { any: [of.key] } }] }],
    });
  /** Their people, by the list; which is made where there is none yet. */
  const toPeople = () =>
    there ? people(there) : list.mutate(undefined, { onSuccess: (answer) => people(answer.list) });
  useKey('s', () => list.mutate(), { off: match.found === 0 });
  useKey('p', toPeople, { off: match.found === 0 });
  useKey('x', () => setEnriching(true));
  useKey('i', fillIn, { off: match.found === 0 });
  const leftName = `${match.name}, not found.csv`;
  return (
    <>
      <Trouble error={list.error ?? rest.error ?? filling.error} />
      {there && (
        <Button look="ink" className="px-2" onClick={() => open(there)}>
          Open “{short(there.name)}” on the Desk
        </Button>
      )}
      <Button
        look={there ? 'plain' : 'ink'}
        className="px-2"
        disabled={match.found === 0 || list.isPending}
        onClick={() => list.mutate()}
      >
        Make a list of {format.number(match.foundCompanies)} <Kbd>S</Kbd>
      </Button>
      <Button className="px-2" disabled={match.found === 0 || list.isPending} onClick={toPeople}>
        Their people <Kbd>P</Kbd>
      </Button>
      <Button className="px-2" onClick={() => setEnriching(true)}>
        The file with columns <Kbd>X</Kbd>
      </Button>
      <Button
        className="px-2"
        disabled={match.found === 0 || filling.isPending}
        title="Loads the file as a source of the companies found: their revenue, mail, people, whatever it knows"
        onClick={fillIn}
      >
        Fill in <Kbd>I</Kbd>
      </Button>
      {left > 0 && (
        <p className="w-full text-[13px] text-soft">
          The other <span className="figure">{format.number(left)}</span>
          <Button
            look="quiet"
            className="underline"
            disabled={rest.isPending}
            onClick={() => rest.mutate(undefined, { onSuccess: ({ file }) => keepFile(file, leftName) })}
          >
            as a file
          </Button>
          or
          <Button
            look="quiet"
            className="underline"
            disabled={rest.isPending}
            onClick={() =>
              rest.mutate(undefined, {
                onSuccess: ({ file }) => onLoad(new File([file], leftName, { type: 'text/csv' })),
              })
            }
          >
            as new companies
          </Button>
        </p>
      )}
      <Button look="quiet" className="-ml-1.5 text-[13px] underline" onClick={onWeights}>
        how it was weighed
      </Button>
      {enriching && <EnrichDialog match={match} onClose={() => setEnriching(false)} />}
    </>
  );
}

const MOST_LETTERS = 18;
const short = (name: string) => (name.length > MOST_LETTERS ? `${name.slice(0, MOST_LETTERS - 1)}…` : name);
