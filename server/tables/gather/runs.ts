import { nanoid } from 'nanoid';
import type { GatherState } from '../../../contract/gather-views.ts';
import { searchesOf } from '../../../core/gather/words-places.ts';
import type { Db } from '../../db/open.ts';
import type { GatherSpec } from '../../gather/spec.ts';
import { savedPages } from './gatherers.ts';

/** Runs of gatherers and the pages they read: each page is written whole with all that comes of it, or not at all. */

export interface RunRow {
  id: string;
  gatherer: string;
  nth: number;
  spec: string;
  state: GatherState;
  why: string | null;
  person: string;
  started_at: number;
  ended_at: number | null;
  spent_ms: number;
}

export type TaskKind = 'search' | 'next' | 'detail' | 'saved' | 'site';

/** A company whose own site is read. */
export interface SiteOf {
  name: string;
  country: string | null;
  registration: string | null;
  /** Null where none is known. */
  web: string | null;
}

export interface TaskRow {
  id: number;
  run: string;
  search: number;
  kind: TaskKind;
  nth: number;
  url: string;
  /** Of a site: what is known of its company, by field. */
  known: string;
  record: number | null;
  state: 'waiting' | 'read' | 'failed' | 'not-allowed';
  attempts: number;
  due_at: number;
  error: string | null;
  page: number | null;
}

/**
 * Begins a run: one search for each word at each place, one page for each that was saved, or one site for each company.
 * @param sites the companies, where their sites are read
 */
export function addRun(
  db: Db,
  gatherer: string,
  spec: GatherSpec,
  person: string,
  sites: readonly SiteOf[] | null = null,
): string {
  const id = nanoid(12);
  const saved = spec.start === '' && sites === null ? savedPages(db, gatherer) : null;
  db.transaction(() => {
    db.prepare(
      `INSERT INTO run (id, gatherer, nth, spec, state, person, started_at)
       VALUES (@id, @gatherer, (SELECT 1 + coalesce(max(nth), 0) FROM run WHERE gatherer = @gatherer), @spec, 'running', @person, @now)`,
    ).run({ id, gatherer, spec: JSON.stringify(spec), person, now: Date.now() });
    const search = db.prepare('INSERT INTO search (run, nth, word, place) VALUES (?, ?, ?, ?)');
    if (saved || sites) search.run(id, 1, '', '');
    if (sites) return sites.forEach((site) => addSite(db, id, site));
    if (saved) {
      saved.forEach(({ url, id: page }, i) =>
        addTask(db, {
          run: id,
          search: 1,
          kind: 'saved',
          nth: i + 1,
          url: `${url} #${page}`,
          record: null,
          page,
        }),
      );
      return;
    }
    searchesOf(spec.words, spec.places).forEach(({ word, place }, i) => {
      search.run(id, i + 1, word, place);
      addTask(db, {
        run: id,
        search: i + 1,
        kind: 'search',
        nth: 1,
        url: spec.start,
        record: null,
        page: null,
      });
    });
  })();
  return id;
}

/** A company's site to be read; one without is put aside at once, with the reason. */
function addSite(db: Db, run: string, { name, web, country, registration }: SiteOf): void {
  const task = db.prepare(
    `INSERT INTO task (run, search, kind, nth, url, known, state, due_at, found, refused)
     VALUES (@run, 1, 'site', 1, @url, @known, @state, 0, @none, @none) ON CONFLICT DO NOTHING`,
  );
  const url = web === null ? `none ${name}` : `http://${web}/`;
  const { lastInsertRowid, changes } = task.run({
    ...{ run, url },
    known: JSON.stringify({ name, ...(country && { country }), ...(registration && { registration }) }),
    ...{ state: web === null ? 'read' : 'waiting', none: Number(web === null) },
  });
  if (web === null && changes > 0)
    db.prepare(
      "INSERT INTO put_aside (run, task, node, what, reason, cells) VALUES (?, ?, 0, 'refused', 'without a website', ?)",
    ).run(run, lastInsertRowid, JSON.stringify({ name }));
}

export function addTask(
  db: Db,
  task: Pick<TaskRow, 'run' | 'search' | 'kind' | 'nth' | 'url' | 'record' | 'page'>,
): void {
  db.prepare(
    `INSERT INTO task (run, search, kind, nth, url, record, page, state, due_at)
     VALUES (@run, @search, @kind, @nth, @url, @record, @page, 'waiting', 0) ON CONFLICT DO NOTHING`,
  ).run(task);
}

export const runById = (db: Db, id: string) =>
  db.prepare<[string], RunRow>('SELECT * FROM run WHERE id = ?').get(id);

export const runsOf = (db: Db, gatherer: string) =>
  db
    .prepare<[string], RunRow & { records: number }>(
      'SELECT *, (SELECT count(*) FROM gathered WHERE run = run.id) AS records FROM run WHERE gatherer = ? ORDER BY nth DESC LIMIT 50',
    )
    .all(gatherer);

/** Runs that were under way when the program stopped. */
export const runningRuns = (db: Db) =>
  db.prepare<[], string>("SELECT id FROM run WHERE state = 'running'").pluck().all();

export function setState(db: Db, id: string, state: GatherState, why: string | null = null): void {
  const over = state === 'done' || state === 'stopped';
  db.prepare('UPDATE run SET state = ?, why = ?, ended_at = ? WHERE id = ?').run(
    state,
    why,
    over ? Date.now() : null,
    id,
  );
}

export const addSpent = (db: Db, id: string, ms: number) =>
  db.prepare('UPDATE run SET spent_ms = spent_ms + ? WHERE id = ?').run(Math.round(ms), id);

export const removeRun = (db: Db, id: string) => db.prepare('DELETE FROM run WHERE id = ?').run(id);

/** The next page to read, search by search: what is due by now, else when the next is; null where nothing waits. */
export function nextTask(db: Db, run: string, now: number): { task: TaskRow } | { at: number } | null {
  const task = db
    .prepare<[string, number], TaskRow>(
      "SELECT * FROM task WHERE run = ? AND state = 'waiting' AND due_at <= ? ORDER BY search, id LIMIT 1",
    )
    .get(run, now);
  if (task) return { task };
  const at = db
    .prepare<[string], number | null>("SELECT min(due_at) FROM task WHERE run = ? AND state = 'waiting'")
    .pluck()
    .get(run);
  return at === null || at === undefined ? null : { at };
}

export const searchAt = (db: Db, run: string, nth: number) =>
  db
    .prepare<[string, number], { word: string; place: string }>(
      'SELECT word, place FROM search WHERE run = ? AND nth = ?',
    )
    .get(run, nth)!;

/** A page that could not be read: tried again later, or given up where there is no later. */
export function noteFailure(db: Db, task: number, error: string, again: number | null): void {
  db.prepare(`UPDATE task SET attempts = attempts + 1, error = ?, state = ?, due_at = ? WHERE id = ?`).run(
    error,
    again === null ? 'failed' : 'waiting',
    again ?? 0,
    task,
  );
}

export const noteNotAllowed = (db: Db, task: number, error: string) =>
  db.prepare("UPDATE task SET state = 'not-allowed', error = ? WHERE id = ?").run(error, task);

/** Pages that were given up wait again. Returns how many. */
export const tryFailed = (db: Db, run: string) =>
  db
    .prepare("UPDATE task SET state = 'waiting', attempts = 0, due_at = 0 WHERE run = ? AND state = 'failed'")
    .run(run).changes;

export interface PageOutcome {
  found: number;
  adverts: number;
  twice: number;
  refused: number;
  filled: Record<string, number>;
}

export function noteRead(
  db: Db,
  task: number,
  page: number | null,
  outcome: PageOutcome,
  error: string | null = null,
): void {
  db.prepare(
    `UPDATE task SET state = 'read', attempts = attempts + 1, error = ?, page = ?, read_at = ?, found = ?, adverts = ?,
       twice = ?, refused = ?, filled = ? WHERE id = ?`,
  ).run(
    error,
    page,
    Date.now(),
    outcome.found,
    outcome.adverts,
    outcome.twice,
    outcome.refused,
    JSON.stringify(outcome.filled),
    task,
  );
}

/** The last pages of results as they were read, of those behind the task `since`, to be looked at for a change of their build. */
export function latePages(
  db: Db,
  run: string,
  most: number,
  since: number,
): { nth: number; rows: number; filled: Record<string, number> }[] {
  const RESULTS = "run = ? AND kind NOT IN ('detail', 'site') AND state = 'read'";
  const rows = db
    .prepare<[string, number, number], { rows: number; filled: string }>(
      `SELECT found - adverts AS rows, filled FROM task WHERE ${RESULTS} AND id > ? ORDER BY read_at DESC, id DESC LIMIT ?`,
    )
    .all(run, since, most);
  const read = db.prepare<[string], number>(`SELECT count(*) FROM task WHERE ${RESULTS}`).pluck().get(run)!;
  return rows
    .map(({ rows: found, filled }, i) => ({
      nth: read - i,
      rows: found,
      filled: JSON.parse(filled) as Record<string, number>,
    }))
    .reverse();
}

/** Takes the pages as they come from here on: a change of their build is looked for anew. */
export function takeAsItIs(db: Db, run: string): void {
  db.prepare(
    `UPDATE run SET spec = json_set(spec, '$.since', (SELECT coalesce(max(id), 0) FROM task WHERE run = @run AND state = 'read')) WHERE id = @run`,
  ).run({ run });
}

/** Makes the pages of results that were read wait to be read again from what is kept of them, with what was taught since. */
export function readAgain(db: Db, run: string, spec: GatherSpec): void {
  db.transaction(() => {
    db.prepare('UPDATE run SET spec = ? WHERE id = ?').run(JSON.stringify(spec), run);
    db.prepare('DELETE FROM gathered WHERE run = ?').run(run);
    db.prepare('DELETE FROM put_aside WHERE run = ?').run(run);
    db.prepare("DELETE FROM task WHERE run = ? AND kind = 'detail'").run(run);
    db.prepare(
      "UPDATE task SET state = 'waiting', due_at = 0, found = 0, adverts = 0, twice = 0, refused = 0, filled = '{}' WHERE run = ? AND state = 'read'",
    ).run(run);
  })();
}

/** A page of this run that was read from an address already; null where there is none. */
export const keptPage = (db: Db, run: string, url: string) =>
  db
    .prepare<[string, string], number>(
      'SELECT id FROM page WHERE run = ? AND url = ? ORDER BY id DESC LIMIT 1',
    )
    .pluck()
    .get(run, url) ?? null;
