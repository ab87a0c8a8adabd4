import type { RunCause } from '../../contract/runs.ts';
import { changeWords, toldAs, type EndedRun } from '../../core/runs/telling.ts';
import { isMissed } from '../../core/runs/when.ts';
import type { Db } from '../db/open.ts';
import type { EngineHost } from '../engine/host.ts';
import type { Jobs } from '../jobs/jobs.ts';
import type { Log } from '../log.ts';
import { HttpProblem } from '../http/check.ts';
import { revisionOf } from '../tables/revision.ts';
import { nextNotice } from '../tables/runs/notices.ts';
import { allPlans, duePlans, nextDue, planByKey, setNext, type Plan } from '../tables/runs/plans.ts';
import {
  addRun,
  beginRun,
  endRun,
  failUnfinished,
  isUnderWay,
  runById,
  setCarrier,
  waitingRuns,
  type RunRow,
} from '../tables/runs/runs.ts';
import { allWatches, setSeen } from '../tables/runs/watches.ts';
import { Counting } from './counting.ts';
import { Left, type Errand } from './errand.ts';
import { tell } from './telling.ts';
import { happenedTo, MOST_ITEMS } from './watching.ts';

/** What the clock and the hand set going; bound to the services of the program once these are open. */
export interface Carriers {
  carry: Readonly<Record<Plan['kind'], (errand: Errand) => Promise<string>>>;
  /** Tells what is due. */
  send(now: number): Promise<void>;
}

interface Needs {
  dir: string;
  universe: Db;
  listsDb: Db;
  engine: EngineHost;
  jobs: Jobs;
  log: Log;
}

/** What is never done twice at once: counting has one thread, and the universe is written by one load. */
const LANES: Readonly<Record<Plan['kind'], string>> = {
  tape: 'counting',
  batch: 'counting',
  refresh: 'writing',
  gatherer: 'gathering',
  match: 'matching',
  export: 'exporting',
};

/** Longest sleep between two looks at the clock, since timers of days do not hold and clocks are put right. */
const MOST_SLEEP = 30_000;
/** Least sleep, so that what fails is not tried without a pause. */
const LEAST_SLEEP = 250;
/** Pause before something that found the universe being written is tried again. */
const BUSY_MS = 1000;

/** Plans as the clock and people start them, one after another in each lane; what came of it is kept and told. */
export class Runs {
  readonly db: Db;
  readonly counting: Counting;
  private readonly needs: Needs;
  private carriers: Carriers | null = null;
  /** Ms since 1970. */
  readonly now: () => number;
  private readonly under: Map<string, { lane: string; leave: boolean }> = new Map();
  private readonly works = new Set<Promise<void>>();
  private timer: NodeJS.Timeout | null = null;
  private stopped = false;
  private looked = -1;
  private telling: Promise<void> = Promise.resolve();

  /** @param now ms since 1970; tests have clocks of their own */
  constructor(db: Db, needs: Needs, now: () => number = Date.now) {
    this.db = db;
    this.needs = needs;
    this.now = now;
    this.counting = new Counting(needs.dir, needs.engine);
  }

  /** Goes on after a start: what was running has failed, what was missed runs once or is left out, as asked. */
  start(carriers: Carriers): void {
    this.carriers = carriers;
    failUnfinished(this.db, this.now());
    this.wake();
  }

  /** Looks for what is due, begins what can begin, and looks again when the next is due. */
  wake(): void {
    if (this.stopped || !this.carriers) return;
    const failed = (error: unknown) =>
      this.needs.log.error({ error }, 'What is due could not be begun or told; it is tried again');
    try {
      this.enqueueDue();
      this.begin();
    } catch (error) {
      // Such as on a full disk: the clock goes on.
      failed(error);
    }
    this.telling = this.telling
      .then(() => this.watch())
      .catch(failed)
      .then(() => this.carriers?.send(this.now()))
      .catch(failed)
      // What was found may be due before what was known.
      .then(() => this.sleep());
    this.sleep();
  }

  private sleep(): void {
    if (this.timer) clearTimeout(this.timer);
    if (this.stopped) return;
    const due = [nextDue(this.db), nextNotice(this.db)].filter((at) => at !== null);
    const wait = Math.min(MOST_SLEEP, ...due.map((at) => Math.max(LEAST_SLEEP, at - this.now())));
    this.timer = setTimeout(() => this.wake(), wait);
    this.timer.unref();
  }

  /** Puts what the clock says in line; never a plan that is under way. */
  private enqueueDue(): void {
    const now = this.now();
    for (const plan of duePlans(this.db, now)) {
      const due = plan.nextAt!;
      const late = isMissed(due, now);
      const { schedule } = plan;
      const skip =
        late && (schedule.how === 'once' || schedule.how === 'repeats') && schedule.missed === 'skip';
      this.db.transaction(() => {
        setNext(this.db, plan, now);
        if (isUnderWay(this.db, plan.key)) return;
        const id = addRun(this.db, plan.key, 'clock', due);
        if (skip)
          endRun(this.db, id, {
            ...{ state: 'cancelled', now, log: [] },
            message: 'Its time passed while the program was off; it was left out, as asked.',
          });
      })();
    }
  }

  /** Starts a plan by hand. @throws HttpProblem where it is under way */
  startPlan(plan: Plan, cause: RunCause = 'hand'): RunRow {
    if (isUnderWay(this.db, plan.key))
      throw new HttpProblem(409, 'under-way', `“${plan.name}” is running or stands in line already.`, {
        field: 'key',
        value: plan.key,
        rule: 'one run of a plan at a time',
      });
    const id = addRun(this.db, plan.key, cause, this.now());
    this.begin();
    return runById(this.db, id)!;
  }

  /** Leaves a run that waits or runs. False where it is over. */
  cancel(id: string): boolean {
    const run = runById(this.db, id);
    if (run?.state === 'waits') {
      endRun(this.db, id, { state: 'cancelled', message: 'Left before it began.', now: this.now(), log: [] });
      return true;
    }
    const under = this.under.get(id);
    if (!under || run?.state !== 'running') return false;
    under.leave = true;
    const { job } = JSON.parse(run.carried_by ?? '{}') as { job?: string };
    if (job) this.needs.jobs.cancel(job);
    return true;
  }

  /** Begins what waits, as far as its lane is free. */
  private begin(): void {
    if (this.stopped || !this.carriers) return;
    const busy = new Set([...this.under.values()].map(({ lane }) => lane));
    for (const run of waitingRuns(this.db)) {
      const plan = planByKey(this.db, run.plan);
      if (!plan) {
        endRun(this.db, run.id, {
          state: 'cancelled',
          message: 'Its plan was removed.',
          now: this.now(),
          log: [],
        });
        continue;
      }
      const lane = LANES[plan.kind];
      if (busy.has(lane)) continue;
      busy.add(lane);
      this.under.set(run.id, { lane, leave: false });
      beginRun(this.db, run.id, this.now());
      const work = this.carry(plan, runById(this.db, run.id)!);
      this.works.add(work);
      void work.finally(() => this.works.delete(work));
    }
  }

  private async carry(plan: Plan, run: RunRow): Promise<void> {
    const { db } = this;
    const log: string[] = [];
    let end: { state: EndedRun['state']; message: string | null };
    try {
      const message = await this.whileFree(run.id, () =>
        this.carriers!.carry[plan.kind]({
          ...{ plan, run },
          say: (text) => log.push(text),
          carriedBy: (carrier) => setCarrier(db, run.id, carrier),
          left: () => this.stopped || this.under.get(run.id)!.leave,
        }),
      );
      end = { state: 'done', message };
    } catch (error) {
      if (error instanceof Left)
        end = this.stopped
          ? { state: 'failed', message: 'The program was stopped while this ran.' }
          : { state: 'cancelled', message: 'Left by hand.' };
      else end = { state: 'failed', message: error instanceof Error ? error.message : String(error) };
    }
    try {
      endRun(db, run.id, { ...end, now: this.now(), log });
      this.under.delete(run.id);
      this.ended(plan, runById(db, run.id)!);
    } catch (error) {
      this.under.delete(run.id);
      this.needs.log.error({ run: run.id, error }, 'The end of a run could not be written');
    }
    this.wake();
  }

  /** Tries again where the universe is being written by somebody else. */
  private async whileFree(id: string, work: () => Promise<string>): Promise<string> {
    for (;;) {
      try {
        return await work();
      } catch (error) {
        if (!(error instanceof HttpProblem) || error.code !== 'busy') throw error;
        if (this.stopped || this.under.get(id)!.leave) throw new Left();
        await new Promise((resolve) => setTimeout(resolve, BUSY_MS));
      }
    }
  }

  /** Tells of a run as was asked, and starts what runs after it. */
  private ended(plan: Plan, run: RunRow): void {
    const now = this.now();
    const ended: EndedRun = {
      state: run.state as EndedRun['state'],
      joined: run.joined,
      left: run.left_off,
      moved: run.moved,
    };
    const as = toldAs(plan.tell, ended);
    const changes = changeWords(ended);
    if (as !== null)
      tell(
        this.db,
        {
          kind: as,
          title:
            as === 'failure' ? `${plan.name} failed` : `${plan.name}: ${changes ?? run.message ?? 'ran'}`,
          why:
            as === 'changes'
              ? `you are told when more than ${plan.tell.changes} change`
              : 'you are told when it ran',
          items: [run.message ?? ''].filter(Boolean),
          link: `/runs?plan=${encodeURIComponent(plan.key)}&run=${run.id}`,
          ways: plan.tell.ways,
        },
        plan.tell.rate,
        now,
      );
    if (ended.state === 'cancelled') return;
    const changed = (ended.joined ?? 0) + (ended.left ?? 0) + (ended.moved ?? 0) > 0;
    for (const next of allPlans(this.db)) {
      const { schedule } = next;
      if (schedule.how !== 'after' || schedule.plan !== plan.key || isUnderWay(this.db, next.key)) continue;
      const wanted =
        schedule.outcome === 'any' || (ended.state === 'done' && (schedule.outcome === 'done' || changed));
      if (wanted) addRun(this.db, next.key, 'after', now);
    }
  }

  /** Looks what happened to what is watched, once the universe or a list is not as it was; between two watches others have their turn. */
  private async watch(): Promise<void> {
    const { universe, listsDb } = this.needs;
    const { revision } = revisionOf(universe);
    const lists = listsDb.prepare<[], number>('SELECT revision FROM facts').pluck().get()!;
    const mark = revision * 1e6 + lists;
    if (mark === this.looked) return;
    const now = this.now();
    for (const watch of allWatches(this.db)) {
      await new Promise((resolve) => setImmediate(resolve));
      if (this.stopped) return;
      const items = happenedTo({ universe, lists: listsDb, runs: this.db }, watch, revision, now);
      setSeen(this.db, watch.id, revision, now);
      if (items.length === 0) continue;
      const more = items.length - MOST_ITEMS;
      tell(
        this.db,
        {
          kind: 'watch',
          title: `${watch.name}: ${items.length === 1 ? items[0]! : `${items.length.toLocaleString('en-GB')} things happened`}`,
          why: 'you watch it',
          items:
            more > 0 ? [...items.slice(0, MOST_ITEMS), `and ${more.toLocaleString('en-GB')} more`] : items,
          link: linkOf(watch),
          ways: watch.ways,
        },
        watch.rate,
        now,
      );
    }
    this.looked = mark;
  }

  /** Waits until nothing runs and nothing waits; for tests and for closing down. */
  async idle(): Promise<void> {
    while (this.works.size) await Promise.all(this.works);
    await this.telling;
  }

  async stop(): Promise<void> {
    this.stopped = true;
    if (this.timer) clearTimeout(this.timer);
    for (const [id] of this.under) this.cancel(id);
    await this.idle();
    await this.counting.stop();
    this.db.close();
  }
}

function linkOf({ subject, key }: { subject: string; key: string }): string {
  if (subject === 'tapes') return `/runs?plan=${encodeURIComponent(key)}`;
  return `/watched/${subject}/${encodeURIComponent(key)}`;
}
