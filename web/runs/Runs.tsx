import { lazy, Suspense, useState } from 'react';
import { useSearchParams } from 'react-router';
import { toast } from 'sonner';
import type { ExportStepAnswer } from '../../contract/export-views.ts';
import type { PlanView, RunView } from '../../contract/runs.ts';
import { PLAN_KINDS, type ChangeKind } from '../../core/runs/kinds.ts';
import { isoOf } from '../../core/dates.ts';
import { emptyTape } from '../../core/tape/nodes.ts';
import { fold } from '../../core/text/fold.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { did } from '../app/history.ts';
import { useKey } from '../app/keys.ts';
import type { Acted } from '../desk/acted.ts';
import { useOpenTape } from '../desk/open-tape.ts';
import { NO_PICKS } from '../desk/picks.ts';
import { Button, Kbd, Trouble } from '../ui/controls.tsx';
import { FindBox } from '../ui/FindBox.tsx';
import { Tabs } from '../ui/Tabs.tsx';
import { ChangesSheet } from './ChangesSheet.tsx';
import { NextMonth } from './NextMonth.tsx';
import { PastRuns } from './PastRuns.tsx';
import { PlanDialog } from './PlanDialog.tsx';
import { PlanTable } from './PlanTable.tsx';
import { freshOf, RunRoll } from './RunRoll.tsx';
import { SearchesSheet } from './SearchesSheet.tsx';
import { useComparison, usePlan, useRuns, useRunsChanged } from './use-runs.ts';
import { WatchDialog, type Watchable } from './WatchDialog.tsx';
import { Watches } from './Watches.tsx';
import { dayHere, KIND_WORDS, timeWords } from './words.ts';

const ExportDialog = lazy(() =>
  import('../exports/make/ExportDialog.tsx').then((module) => ({ default: module.ExportDialog })),
);

const TABS = [
  ['plans', 'What runs'],
  ['past', 'What ran'],
  ['watches', 'Watched'],
] as const;

/** What ran, runs and will run, with what came of it; the roll says how the selected run came to its number. */
export function Runs() {
  const changed = useRunsChanged();
  const openTape = useOpenTape();
  const [query, setQuery] = useSearchParams();
  const { data, error } = useRuns();
  const [text, setText] = useState('');
  const [kind, setKind] = useState('');
  const [editing, setEditing] = useState<PlanView | 'new' | null>(null);
  const [watching, setWatching] = useState<Watchable | null>(null);
  const [exporting, setExporting] = useState<Acted | null>(null);
  const tab = TABS.find(([key]) => key === query.get('tab'))?.[0] ?? 'plans';
  const words = fold(text.trim());
  const wanted = (name: string, of: string) => fold(name).includes(words) && (kind === '' || kind === of);
  const plans = (data?.plans ?? []).filter((plan) =>
    wanted(`${plan.name} ${plan.what} ${plan.when}`, plan.kind),
  );
  const current =
    data?.plans.find(({ key }) => key === query.get('plan')) ??
    [...plans].sort((a, b) => ((a.last?.startedAt ?? '') < (b.last?.startedAt ?? '') ? 1 : -1))[0] ??
    null;
  const { data: own } = usePlan(current?.key ?? null);
  const runs = own?.plan.key === current?.key ? (own?.runs ?? []) : [];
  const run = runs.find(({ id }) => id === query.get('run')) ?? runs[0] ?? null;
  const select = (key: string) => setQuery({ plan: key });
  const move = (step: number) => {
    const rows = [...document.querySelectorAll<HTMLElement>('[data-plan]')];
    const at = rows.findIndex((row) => row.dataset.plan === current?.key);
    const next = rows[Math.max(0, Math.min(rows.length - 1, at + step))];
    if (!next) return;
    select(next.dataset.plan!);
    next.scrollIntoView({ block: 'nearest' });
  };
  const attempt = async (work: () => Promise<unknown>) => {
    try {
      await work();
      changed();
    } catch (failure) {
      toast.error((failure as Error).message);
    }
  };
  const tapeOf = (what: string, reason: string | null) =>
    call<ExportStepAnswer>(
      'GET',
      `/runs/${run!.id}/tape?what=${what}${reason === null ? '' : `&reason=${encodeURIComponent(reason)}`}`,
    );
  const open = (what: string, reason: string | null) =>
    attempt(async () => {
      const { tape, why } = await tapeOf(what, reason);
      if (tape) openTape(tape);
      else toast(why ?? 'These cannot be opened.');
    });
  const exportThem = (what: ChangeKind) =>
    attempt(async () => {
      const { tape, why } = await tapeOf(what, null);
      if (!tape) return toast(why ?? 'These cannot be exported.');
      const { joined, left, moved } = run!;
      const count = { joined, new: joined, left, moved }[what] ?? 0;
      setExporting({
        tape: tape,
        sort: [],
        picks: NO_PICKS,
        one: false,
        count,
        gone: 0,
        total: count,
      });
    });
  const toList = (what: ChangeKind) =>
    attempt(async () => {
      const name =
        `${current!.name}, ${what} ${run!.asOf === null ? run!.startedAt!.slice(0, 10) : isoOf(run!.asOf)}`.slice(
          0,
          120,
        );
      const made = await call<{ list: { key: string; name: string; members: number } }>(
        'POST',
        `/runs/${run!.id}/list`,
        { what, name },
      );
      did(`${made.list.members} on ${made.list.name}`, {
        name: `making ${made.list.name}`,
        undo: () => call('DELETE', `/lists/${made.list.key}`).then(changed),
        redo: () => call('POST', `/lists/${made.list.key}/restore`).then(changed),
      });
    });
  const start = () => current && attempt(() => call('POST', `/plans/${current.key}/run`));
  const remove = () =>
    current &&
    attempt(async () => {
      const { key, name } = current;
      await call('DELETE', `/plans/${key}`);
      did(`${name} runs no more; what it ran stays listed`, {
        name: `removing ${name}`,
        undo: () => call('POST', `/plans/${key}/restore`).then(changed),
        redo: () => call('DELETE', `/plans/${key}`).then(changed),
      });
      setQuery({});
    });
  const acts = {
    run: () => void start(),
    openList: (key: string) =>
      openTape({
        ...emptyTape(run?.subject ?? 'companies'),
        lines: [{ id: 'l1', field: 'list', test: { any: [key] } }],
      }),
    leave: () => void attempt(() => call('POST', `/runs/${run!.id}/cancel`)),
    watch: () => current && setWatching({ subject: 'tapes', key: current.key, name: current.name }),
    change: () => setEditing(current),
    open: (what: string, reason: string | null) => void open(what, reason),
    toList: (what: ChangeKind) => void toList(what),
    exportThem: (what: ChangeKind) => void exportThem(what),
  };
  const compares = run?.comparedTo != null && run.joined! > 0;
  useKey('n', () => setEditing('new'));
  useKey('j', () => move(1));
  useKey('arrowdown', () => move(1));
  useKey('arrowup', () => move(-1));
  useKey('r', () => void start());
  useKey('e', () => current && setEditing(current));
  useKey('w', () => current?.kind === 'tape' && acts.watch());
  useKey('s', () => compares && void toList(freshOf(current!)));
  useKey('x', () => compares && void exportThem(freshOf(current!)));
  useKey('k', () => {
    const before = runs[runs.indexOf(run!) + 1];
    if (before && current) setQuery({ plan: current.key, run: before.id });
  });
  useKey('delete', () => void remove());

  return (
    <div className="flex min-h-0 flex-1">
      <main className="flex min-h-0 min-w-0 flex-1 flex-col px-5 pt-3">
        <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
          <h1 className="title flex-1 text-[21px]">Runs</h1>
          <NextMonth month={data?.month ?? null} onDone={changed} />
          <FindBox label="Find a run" value={text} onChange={setText} className="w-44" />
          {tab !== 'watches' && (
            <select
              aria-label="Kind"
              className="field py-1"
              value={kind}
              onChange={(event) => setKind(event.target.value)}
            >
              <option value="">All kinds</option>
              {(tab === 'plans' ? PLAN_KINDS : (Object.keys(KIND_WORDS) as (keyof typeof KIND_WORDS)[])).map(
                (one) => (
                  <option key={one} value={one}>
                    {KIND_WORDS[one]}
                  </option>
                ),
              )}
            </select>
          )}
          <Button onClick={() => setEditing('new')}>
            New run <Kbd>n</Kbd>
          </Button>
        </div>
        <div className="mt-1">
          <Tabs
            label="Runs"
            tabs={TABS}
            current={tab}
            onChange={(key) => setQuery(key === 'plans' ? {} : { tab: key })}
          />
        </div>
        <Trouble error={error} />
        <div className="min-h-0 flex-1 overflow-y-auto pb-4">
          {tab === 'watches' && <Watches words={text} />}
          {tab === 'past' && data && <PastRuns past={data.past} wanted={wanted} />}
          {tab === 'plans' && (
            <>
              {data && data.plans.length === 0 && (
                <p className="py-5 text-soft">
                  Nothing runs yet. “New run” lets a saved tape, a gatherer, a sheet of searches, a refresh or
                  an export run: by hand, at a time, again and again, or after another.
                </p>
              )}
              {plans.length > 0 && (
                <PlanTable
                  plans={plans}
                  current={current?.key ?? null}
                  onCurrent={select}
                  onOpen={setEditing}
                />
              )}
              {data && data.plans.length > 0 && plans.length === 0 && (
                <p className="py-4 text-soft">Nothing that runs has these words. Esc leaves the search.</p>
              )}
              {current && run && (
                <RunPart
                  key={run.id}
                  plan={current}
                  run={run}
                  runs={runs}
                  onRun={(id) => setQuery({ plan: current.key, run: id })}
                />
              )}
            </>
          )}
        </div>
      </main>
      <RunRoll loading={!data && !error} plan={current} run={run} acts={acts} />
      {editing && (
        <PlanDialog
          plan={editing === 'new' ? null : editing}
          others={data?.plans ?? []}
          onClose={() => setEditing(null)}
          onMade={({ key }) => setQuery({ plan: key })}
        />
      )}
      {watching && <WatchDialog of={watching} onClose={() => setWatching(null)} />}
      {exporting && (
        <Suspense>
          <ExportDialog acted={exporting} onClose={() => setExporting(null)} />
        </Suspense>
      )}
    </div>
  );
}

/** What came of the selected run, below the table: changes, searches, or its log; and which run it is compared with. */
function RunPart({
  plan,
  run,
  runs,
  onRun,
}: {
  plan: PlanView;
  run: RunView;
  runs: readonly RunView[];
  onRun(id: string): void;
}) {
  const format = useFormat();
  const [against, setAgainst] = useState<string | null>(null);
  const compared = useComparison(against, against === null ? null : run.id);
  const done = runs.filter((one) => one.state === 'done' && one.nth < run.nth && one.subject !== null);
  const shown = compared.data?.run ?? run;
  const asOf = (id: string | null) => {
    const found = runs.find((one) => one.id === id);
    return found?.asOf == null ? '–' : format.date(isoOf(found.asOf));
  };
  const title =
    plan.kind === 'tape' ? 'What changed' : plan.kind === 'batch' ? 'Its searches' : 'What happened';
  return (
    <section aria-label={title} className="mt-4">
      <header className="flex items-center gap-3 border-b border-edge pb-1">
        <h2 className="title text-[16px]">{title}</h2>
        <select
          aria-label="Which run"
          className="field py-0.5 text-[13px]"
          value={run.id}
          onChange={(event) => onRun(event.target.value)}
        >
          {runs.map((one) => (
            <option key={one.id} value={one.id}>
              run {one.nth},{' '}
              {one.startedAt
                ? `${format.date(dayHere(one.startedAt))} ${timeWords(one.startedAt)}`
                : 'in line'}
            </option>
          ))}
        </select>
        {plan.kind === 'tape' && done.length > 0 && (
          <label className="flex items-center gap-1.5 text-[13px] text-soft">
            beside
            <select
              className="field py-0.5"
              value={against ?? ''}
              onChange={(event) => setAgainst(event.target.value || null)}
            >
              <option value="">the run before</option>
              {done
                .filter(({ id }) => id !== run.comparedTo)
                .map((one) => (
                  <option key={one.id} value={one.id}>
                    run {one.nth}, as of {one.asOf === null ? '–' : format.date(isoOf(one.asOf))}
                  </option>
                ))}
            </select>
          </label>
        )}
        <span className="ml-auto flex items-center gap-3 text-[13px] text-soft">
          {plan.kind === 'tape' && run.comparedTo !== null && (
            <a
              href={`/api/runs/${run.id}/changes/file`}
              className="underline underline-offset-4 hover:text-ink"
              title="Old and new value side by side"
            >
              as CSV
            </a>
          )}
          the run before <Kbd>k</Kbd>
        </span>
      </header>
      <Trouble error={compared.error} />
      {plan.kind === 'batch' && <SearchesSheet run={run} />}
      {plan.kind === 'tape' && shown.comparedTo !== null && (
        <>
          <ChangesSheet
            run={shown}
            compared={compared.data?.changes ?? null}
            dates={[asOf(shown.comparedTo), run.asOf === null ? '–' : format.date(isoOf(run.asOf))]}
          />
          {shown.joined === 0 && shown.left === 0 && shown.moved === 0 && (
            <p className="py-3 text-soft">Nobody joined, left or moved.</p>
          )}
        </>
      )}
      {plan.kind === 'tape' && shown.comparedTo === null && run.state === 'done' && (
        <p className="py-3 text-soft">
          The first run: from the next one on, it says here who joined, who left and who moved.
        </p>
      )}
      {plan.kind !== 'tape' && plan.kind !== 'batch' && (
        <ul className="py-1">
          {(run.log.length ? run.log : [run.message ?? 'It is on its way.']).map((line, i) => (
            <li key={i} className="border-b border-rule py-1">
              {line}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
