import type { PlanView, RunView } from '../../contract/runs.ts';
import type { ChangeKind } from '../../core/runs/kinds.ts';
import { SUBJECTS } from '../../core/fields/registry.ts';
import { useFormat } from '../app/format.ts';
import { Button, Kbd } from '../ui/controls.tsx';
import { Roll } from '../ui/Roll.tsx';
import { CAUSE_WORDS, dayHere, STATE_WORDS, timeWords, tookWords } from './words.ts';

/** What can be done with a run from its paper. */
export interface RunActs {
  run(): void;
  openList(key: string): void;
  leave(): void;
  watch(): void;
  change(): void;
  /** Opens the records of a step on the Desk. */
  open(what: string, reason: string | null): void;
  toList(what: ChangeKind): void;
  exportThem(what: ChangeKind): void;
}

/** The paper of the Runs place: how a run came from what there was before to what there is now. */
export function RunRoll({
  loading,
  plan,
  run,
  acts,
}: {
  /** Whether it is not known yet what runs. */
  loading: boolean;
  plan: PlanView | null;
  run: RunView | null;
  acts: RunActs;
}) {
  const format = useFormat();
  if (loading) return <Roll title="Runs" steps={[]} busy foot={{ label: 'being read', total: null }} />;
  if (!plan)
    return (
      <Roll title="Nothing runs yet" steps={[]} foot={{ label: 'runs', total: 0 }}>
        <p className="text-[13px] text-soft">
          A saved tape that runs again and again says who joined it, who left, and why.
        </p>
      </Roll>
    );
  const busy = run?.state === 'running' || run?.state === 'waits';
  const many = run?.subject ? SUBJECTS.get(run.subject)!.many : 'companies';
  const steps = (run?.roll?.steps ?? []).map(({ step, label, note, delta, total }) => {
    const [what = '', ...reason] = step.split(' ');
    const opens = what === 'joined' || (what === 'left' && reason[0] !== 'gone');
    return {
      key: step,
      label,
      delta,
      adds: what === 'joined',
      total,
      note: note.replaceAll(/\d{4}-\d{2}-\d{2}/g, format.date),
      onOpen: opens ? () => acts.open(what, reason.join(' ')) : undefined,
    };
  });
  const fresh = freshOf(plan);
  const more = run && run.comparedTo !== null ? run.count! - run.before! : null;
  return (
    <Roll
      title={plan.name}
      about={
        <>
          {plan.when}
          {run?.startedAt && (
            <span className="block">
              {format.date(dayHere(run.startedAt))} {timeWords(run.startedAt)}, {CAUSE_WORDS[run.cause]} ·{' '}
              {busy ? STATE_WORDS[run.state] : `took ${tookWords(run.took)}`}
            </span>
          )}
        </>
      }
      before={
        <>
          {plan.trouble !== null && <Said look="text-unsure">{plan.trouble}</Said>}
          {run?.state === 'failed' && <Said look="text-cut">It failed: {run.message}</Said>}
          {run?.state === 'cancelled' && <Said look="text-soft">{run.message}</Said>}
          {!run && <Said look="text-soft">It has not run yet.</Said>}
        </>
      }
      steps={steps}
      busy={busy}
      below={
        <>
          {run && run.moves.length > 0 && <Moves run={run} onOpen={(reason) => acts.open('moved', reason)} />}
          {plan.kind === 'batch' && run?.comparedTo != null && (
            <SinceBefore run={run} onOpen={(what) => acts.open(what, null)} />
          )}
          {plan.next.length > 0 && (
            <p className="border-t border-dashed border-edge/70 py-2 pr-4 pl-10 text-[13px] text-soft">
              next{' '}
              {plan.next.map((at, i) => (
                <span key={at}>
                  {i > 0 && ', '}
                  <span className="figure text-ink">
                    {format.date(dayHere(at))} {timeWords(at)}
                  </span>
                </span>
              ))}
            </p>
          )}
        </>
      }
      foot={footOf(plan, run, many)}
      note={
        more === null ? null : `${more >= 0 ? '+' : '−'}${format.number(Math.abs(more))} since the run before`
      }
    >
      {run?.comparedTo != null && run.joined! > 0 && (
        <>
          <Button look="ink" className="px-2" onClick={() => acts.toList(fresh)}>
            The {format.number(run.joined!)} to a list <Kbd>S</Kbd>
          </Button>
          <Button className="px-2" onClick={() => acts.exportThem(fresh)}>
            Export the {format.number(run.joined!)} <Kbd>X</Kbd>
          </Button>
        </>
      )}
      {busy ? (
        <Button className="px-2" onClick={acts.leave}>
          Leave it
        </Button>
      ) : (
        <Button className="px-2" disabled={plan.trouble !== null} onClick={acts.run}>
          Run now <Kbd>R</Kbd>
        </Button>
      )}
      <Button className="px-2" onClick={acts.change}>
        Change <Kbd>E</Kbd>
      </Button>
      {plan.kind === 'tape' && (
        <Button className="px-2" onClick={acts.watch}>
          Watch <Kbd>W</Kbd>
        </Button>
      )}
      {run?.carriedBy?.list && (
        <Button className="px-2" onClick={() => acts.openList(run.carriedBy!.list!)}>
          Open the list
        </Button>
      )}
      {run?.state === 'done' && plan.kind === 'batch' && plan.target.into === 'file' && (
        <a
          href={`/api/runs/${run.id}/file`}
          className="rounded-md border border-edge bg-paper px-2 py-1 hover:border-ink"
        >
          CSV
        </a>
      )}
    </Roll>
  );
}

function Said({ look, children }: { look: string; children: React.ReactNode }) {
  return (
    <p className={`border-b border-dashed border-edge/70 py-2 pr-4 pl-10 text-[13px] ${look}`}>{children}</p>
  );
}

/** Of a run of a tape those who joined, of a sheet of searches what the run before had not found. */
export const freshOf = ({ kind }: Pick<PlanView, 'kind'>): ChangeKind =>
  kind === 'batch' ? 'new' : 'joined';

/** What the same searches found that they had not at the run before, and the other way round. */
function SinceBefore({ run, onOpen }: { run: RunView; onOpen(what: ChangeKind): void }) {
  const format = useFormat();
  const figure = (what: ChangeKind, count: number, words: string) => (
    <p className="flex items-baseline justify-between text-[13px]">
      {words}
      <button
        type="button"
        className="figure enabled:underline enabled:underline-offset-4 enabled:hover:decoration-2"
        title="See these on the Desk"
        disabled={count === 0}
        onClick={() => onOpen(what)}
      >
        {format.number(count)}
      </button>
    </p>
  );
  return (
    <div className="border-t border-edge py-2 pr-4 pl-10">
      {figure('new', run.joined!, 'not found at the run before')}
      {figure('left', run.left!, 'found then, and not now')}
    </div>
  );
}

function Moves({ run, onOpen }: { run: RunView; onOpen(reason: string): void }) {
  const format = useFormat();
  return (
    <div className="border-t border-edge py-2 pr-4 pl-10">
      <p className="flex items-baseline justify-between">
        <span>
          <span className="font-semibold">Moved</span>{' '}
          <span className="text-[13px] text-soft">and still on it, so not counted</span>
        </span>
        <span className="figure text-[15px] font-semibold">{format.number(run.moved!)}</span>
      </p>
      <ul className="border-l-2 border-rule pl-3 text-[13px]">
        {run.moves.map(({ reason, label, count }) => (
          <li key={reason} className="flex justify-between">
            {label}
            <button
              type="button"
              className="figure underline underline-offset-4 hover:decoration-2"
              title="See these on the Desk"
              onClick={() => onOpen(reason)}
            >
              {format.number(count)}
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** What the large figure counts, by kind; nothing is counted where a run came to no end. */
function footOf(
  { kind }: PlanView,
  run: RunView | null,
  many: string,
): { label: string; total: number | null } {
  const count = run?.count ?? null;
  if (count === null)
    return { label: run?.state === 'running' ? 'being counted' : 'nothing counted', total: null };
  const labels = {
    tape: `${many} now`,
    batch: many,
    gatherer: 'records',
    refresh: 'records now',
    match: 'rows found',
    export: 'rows',
  };
  return { label: labels[kind], total: count };
}
