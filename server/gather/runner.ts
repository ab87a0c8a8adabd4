import type { GatherState } from '../../contract/gather-views.ts';
import { isParked } from '../../core/gather/site-state.ts';
import { siteRecord } from '../../core/gather/read-site.ts';
import { changeOfBuild, type RecordValues } from '../../core/gather/records.ts';
import type { PageRequest, Step } from '../../core/gather/forms.ts';
import { filled } from '../../core/gather/forms.ts';
import type { Search } from '../../core/gather/words-places.ts';
import { Problem } from '../../core/tape/problem.ts';
import type { CallThread } from '../call-thread.ts';
import type { Db } from '../db/open.ts';
import type { Log } from '../log.ts';
import { addPage, htmlOf } from '../tables/gather/gatherers.ts';
import { addDetail, putAside, takeRow } from '../tables/gather/gathered.ts';
import {
  addSpent,
  addTask,
  keptPage,
  latePages,
  nextTask,
  noteFailure,
  noteNotAllowed,
  noteRead,
  runById,
  runningRuns,
  searchAt,
  setState,
  type TaskRow,
} from '../tables/gather/runs.ts';
import type { GatherCalls, ReadPage } from './calls.ts';
import { PageTrouble, type FetchedPage, type Fetcher } from './fetcher.ts';
import type { GatherSpec } from './spec.ts';

/** Pauses before a page that failed is tried again, in ms; then it is given up and listed. */
export const PAUSES: readonly number[] = [1_000, 5_000, 20_000, 60_000];
/** Pages that are looked at for a change of their build. */
const LATE = 30;
/** Longest that a step may wait, in ms. */
const MOST_WAIT = 60_000;

export interface RunnerNeeds {
  db: Db;
  fetcher: Fetcher;
  thread: CallThread<GatherCalls>;
  log: Log;
  pauses?: readonly number[];
}

const sameFigures = (a: string, b: string) => a.replace(/\W/g, '') === b.replace(/\W/g, '');

/** What a run reads, with the page since which its build was said to be right. */
export type RunSpec = GatherSpec & { since?: number };

/** A page as it was read, before it is written. */
interface Done {
  page: FetchedPage;
  /** Of a page of results. */
  read: ReadPage | null;
  /** Of a page of one company. */
  detail: Record<string, string> | null;
  /** Of a company's own site. */
  site: Record<string, string> | null;
}

/**
 * Carries out runs of gatherers: reads what waits, page by page. Each page is written in one transaction with its rows and the
 * pages that it leads to, so that a program that is stopped at any moment goes on behind the last page that was written.
 */
export class Runner {
  private readonly needs: RunnerNeeds;
  private readonly going = new Map<string, Promise<void>>();
  private stopped = false;
  private readonly naps = new Set<() => void>();

  constructor(needs: RunnerNeeds) {
    this.needs = needs;
  }

  /** Goes on with what was under way when the program stopped. */
  start(): void {
    for (const run of runningRuns(this.needs.db)) this.wake(run);
  }

  /** Carries out a run, as long as it is running. */
  wake(run: string): void {
    if (this.stopped || this.going.has(run)) return this.rouse();
    const going = this.carryOut(run)
      .catch((error: unknown) => {
        this.needs.log.error({ err: error, run }, 'A run of a gatherer stopped');
        this.set(run, 'asks', `It stopped by an error of the program: ${(error as Error).message}`);
      })
      .finally(() => this.going.delete(run));
    this.going.set(run, going);
  }

  async stop(): Promise<void> {
    this.stopped = true;
    this.rouse();
    await Promise.all(this.going.values());
  }

  /** Waits until a run does nothing any more. */
  async idle(run: string): Promise<void> {
    this.rouse();
    await this.going.get(run);
  }

  private rouse(): void {
    for (const wake of this.naps) wake();
  }

  private nap(ms: number): Promise<void> {
    return new Promise((resolve) => {
      const wake = () => {
        clearTimeout(timer);
        this.naps.delete(wake);
        resolve();
      };
      const timer = setTimeout(wake, ms);
      timer.unref();
      this.naps.add(wake);
    });
  }

  private set(run: string, state: GatherState, why: string | null): void {
    setState(this.needs.db, run, state, why);
  }

  private async carryOut(run: string): Promise<void> {
    const { db } = this.needs;
    for (;;) {
      const row = runById(db, run);
      if (this.stopped || row?.state !== 'running') return;
      const next = nextTask(db, run, Date.now());
      if (next === null) return this.finish(run);
      const began = Date.now();
      if ('at' in next) await this.nap(Math.min(60_000, next.at - Date.now()));
      else {
        const asks = await this.attempt(next.task, JSON.parse(row.spec) as RunSpec);
        if (asks !== null) this.set(run, 'asks', asks);
      }
      addSpent(db, run, Date.now() - began);
    }
  }

  private finish(run: string): void {
    const { db } = this.needs;
    const wrong = db
      .prepare<[string], { count: number; error: string | null }>(
        "SELECT count(*) AS count, min(error) AS error FROM task WHERE run = ? AND state IN ('failed', 'not-allowed')",
      )
      .get(run)!;
    this.set(run, 'done', wrong.count ? `${wrong.count} pages could not be read. ${wrong.error}` : null);
  }

  /** Reads one page. Returns what has to be asked before it goes on; null where nothing has. */
  private async attempt(task: TaskRow, spec: RunSpec): Promise<string | null> {
    const { db, pauses = PAUSES } = this.needs;
    try {
      const done = await this.read(task, spec);
      if (this.stopped) return null;
      db.transaction(() => this.write(task, spec, done))();
    } catch (error) {
      if (error instanceof PageTrouble) {
        const pause = pauses[task.attempts];
        if (error.kind === 'not-allowed') noteNotAllowed(db, task.id, error.message);
        else {
          const again =
            error.kind === 'never' || pause === undefined
              ? null
              : Date.now() + Math.max(pause, (error.wait ?? 0) * 1000);
          if (again === null && task.kind === 'site')
            db.transaction(() => this.writeSite(task, deadOrMoved(error), null, error.message))();
          else noteFailure(db, task.id, error.message, again);
        }
        return null;
      }
      if (!(error instanceof Problem)) throw error;
      // A step that a page has no box for is a matter of that search; what was taught wrong is one of the run.
      if (error.code !== 'step-not-done' && error.code !== 'too-slow') return error.message;
      noteFailure(db, task.id, error.message, null);
      return null;
    }
    if (task.kind === 'detail' || task.kind === 'site') return null;
    const changed = changeOfBuild(latePages(db, task.run, LATE, spec.since ?? 0));
    return changed === null ? null : `${changed}. Point at one more example, or go on as it is.`;
  }

  private async read(task: TaskRow, spec: RunSpec): Promise<Done> {
    const { db, thread } = this.needs;
    const kept = task.page ?? (task.kind === 'detail' ? keptPage(db, task.run, task.url) : null);
    const page = kept === null ? await this.fetch(task, spec) : htmlOf(db, kept);
    if (task.kind === 'detail')
      return { page, read: null, site: null, detail: await thread.call('detail', page.html, spec) };
    if (task.kind === 'site') return { page, read: null, detail: null, site: await this.siteOf(page, spec) };
    return {
      page,
      read: await thread.call('read', page.html, page.url, task.nth, spec),
      detail: null,
      site: null,
    };
  }

  private fetch(task: TaskRow, spec: RunSpec): Promise<FetchedPage> {
    const { fetcher } = this.needs;
    if (task.kind !== 'search') return fetcher.page({ method: 'get', url: task.url, body: null }, spec.pause);
    return this.searched(spec, searchAt(this.needs.db, task.run, task.search));
  }

  /** What a company's site says on its first page and those worth reading; one of these that cannot be read is left out. */
  private async siteOf(home: FetchedPage, spec: RunSpec): Promise<Record<string, string>> {
    if (isParked(home.html)) return { 'site-state': 'parked' };
    const { fetcher, thread } = this.needs;
    const first = await thread.call('site', home.html, home.url);
    const read = [{ url: home.url, facts: first.facts }];
    for (const url of first.pages) {
      const page = await fetcher
        .page({ method: 'get', url, body: null }, spec.pause)
        .catch((error: unknown) => {
          if (error instanceof PageTrouble) return null;
          throw error;
        });
      if (page) read.push({ url, facts: (await thread.call('site', page.html, page.url)).facts });
    }
    return siteRecord(read);
  }

  /** The first page of a search: its address with word and place filled in, and what its steps lead to. */
  async searched(spec: Pick<GatherSpec, 'start' | 'steps' | 'pause'>, search: Search): Promise<FetchedPage> {
    const { fetcher, thread } = this.needs;
    const encoded = { word: encodeURIComponent(search.word), place: encodeURIComponent(search.place) };
    let request: PageRequest = { method: 'get', url: filled(spec.start, encoded), body: null };
    let rest: Step[] = spec.steps;
    for (;;) {
      const page = await fetcher.page(request, spec.pause);
      const waits = rest.findIndex((step) => step.do !== 'wait');
      for (const step of waits < 0 ? rest : rest.slice(0, waits))
        if (step.do === 'wait') await this.nap(Math.min(MOST_WAIT, step.seconds * 1000));
      rest = waits < 0 ? [] : rest.slice(waits);
      if (rest.length === 0) return page;
      const led = await thread.call('steps', page.html, page.url, rest, search);
      if (led === null) return page;
      ({ request, rest } = led);
    }
  }

  /** Writes a page with what came of it. */
  private write(task: TaskRow, spec: RunSpec, { page, read, detail, site }: Done): void {
    const { db } = this.needs;
    const { run, search } = task;
    // Pages of one company are the same whatever search leads to them; what a form answers is another at one address.
    const kept =
      task.page ??
      (task.kind === 'detail' ? keptPage(db, run, page.url) : null) ??
      addPage(db, {
        gatherer: runById(db, run)!.gatherer,
        run,
        url: page.url,
        html: page.html,
        saved: false,
      });
    if (site !== null) return this.writeSite(task, site, kept);
    const outcome = { found: 0, adverts: 0, twice: 0, refused: 0, filled: {} as Record<string, number> };
    if (detail !== null && task.record !== null) addDetail(db, task.record, detail);
    if (read !== null) {
      for (const node of read.adverts)
        putAside(db, { run, task: task.id, node, what: 'advert', reason: '', cells: '{}' });
      let fresh = 0;
      for (const { node, values } of read.rows) {
        for (const field of Object.keys(values)) outcome.filled[field] = (outcome.filled[field] ?? 0) + 1;
        const fate = takeRow(db, { run, task: task.id, search, node, values, needs: spec.needs });
        if (fate.as === 'refused') outcome.refused++;
        else {
          if (fate.as === 'twice') outcome.twice++;
          if (fate.fresh) fresh++;
          if (spec.detail !== null && values.page && fate.as === 'record')
            addTask(db, {
              run,
              search,
              kind: 'detail',
              nth: task.nth,
              url: values.page,
              record: fate.record,
              page: null,
            });
        }
      }
      outcome.adverts = read.adverts.length;
      outcome.found = read.rows.length + outcome.adverts;
      // A page that brings nothing that this search has not found already is the last, whatever it leads to.
      if (read.next !== null && fresh > 0 && task.nth < spec.pages && task.kind !== 'saved')
        addTask(db, {
          run,
          search,
          kind: 'next',
          nth: task.nth + 1,
          url: read.next,
          record: null,
          page: null,
        });
    }
    noteRead(db, task.id, kept, outcome);
  }

  /** Writes what a site says as the record of its company, with the day; or that it does not answer. */
  private writeSite(task: TaskRow, said: Record<string, string>, page: number | null, error?: string): void {
    const { db } = this.needs;
    const { run, search, url } = task;
    const known = JSON.parse(task.known) as RecordValues;
    const today = new Date().toISOString().slice(0, 10);
    const values = {
      ...{ web: new URL(url).host, 'site-answers': 'yes', 'site-checked': today },
      ...(page === null ? {} : { surveyed: today }),
      ...said,
      // By its own number a company is found again; another one on its site stands beside.
      ...known,
      ...(said.registration && known.registration && !sameFigures(said.registration, known.registration)
        ? { 'own:Registration on the site': said.registration }
        : {}),
    };
    const fate = takeRow(db, { run, task: task.id, search, node: 0, values, needs: [] });
    const outcome = {
      found: 1,
      adverts: 0,
      twice: Number(fate.as === 'twice'),
      refused: Number(fate.as === 'refused'),
    };
    noteRead(db, task.id, page, { ...outcome, filled: {} }, error);
  }
}

function deadOrMoved({ movedTo }: PageTrouble): Record<string, string> {
  return movedTo === null
    ? { 'site-answers': 'no', 'site-state': 'dead' }
    : { 'site-state': 'moved', 'site-moved-to': movedTo };
}
