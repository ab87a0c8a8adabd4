import type { GatheredRow, RunPart, SearchFigures } from '../../../contract/gather-views.ts';
import { gatherRoll, recordKey, refusal, together, type RecordValues } from '../../../core/gather/records.ts';
import type { Roll } from '../../../core/lists/roll.ts';
import type { Db } from '../../db/open.ts';

/** The records of a run and what came to none, with the figures of its roll. */

/** What becomes of one row. */
export type RowFate =
  /** `fresh` where its search has not found it before. */
  { as: 'record' | 'twice'; record: number; fresh: boolean } | { as: 'refused' };

/** Takes a row of a page: as a record, as one that is there already, or refused with the reason. Runs within the page's transaction. */
export function takeRow(
  db: Db,
  row: {
    run: string;
    task: number;
    search: number;
    node: number;
    values: RecordValues;
    needs: readonly string[];
  },
): RowFate {
  const { run, task, search, node, values } = row;
  const cells = JSON.stringify(values);
  const reason = refusal(values, row.needs);
  if (reason !== null) {
    putAside(db, { run, task, node, what: 'refused', reason, cells });
    return { as: 'refused' };
  }
  const key = recordKey(values)!;
  const there = db
    .prepare<[string, string], { id: number; cells: string }>(
      'SELECT id, cells FROM gathered WHERE run = ? AND key = ?',
    )
    .get(run, key);
  const tag = db.prepare('INSERT INTO tag (record, search) VALUES (?, ?) ON CONFLICT DO NOTHING');
  if (there) {
    const both = together(JSON.parse(there.cells) as RecordValues, values);
    db.prepare('UPDATE gathered SET cells = ? WHERE id = ?').run(JSON.stringify(both), there.id);
    const fresh = tag.run(there.id, search).changes > 0;
    putAside(db, { run, task, node, what: 'twice', reason: String(there.id), cells });
    return { as: 'twice', record: there.id, fresh };
  }
  const { lastInsertRowid } = db
    .prepare('INSERT INTO gathered (run, key, cells, task, node, at) VALUES (?, ?, ?, ?, ?, ?)')
    .run(run, key, cells, task, node, Date.now());
  tag.run(lastInsertRowid, search);
  return { as: 'record', record: Number(lastInsertRowid), fresh: true };
}

export function putAside(
  db: Db,
  row: {
    run: string;
    task: number;
    node: number;
    what: 'refused' | 'twice' | 'advert';
    reason: string;
    cells: string;
  },
): void {
  db.prepare(
    'INSERT INTO put_aside (run, task, node, what, reason, cells) VALUES (@run, @task, @node, @what, @reason, @cells)',
  ).run(row);
}

/** Puts what the page of one company says to its record; what the list said stays. */
export function addDetail(db: Db, record: number, values: RecordValues): void {
  const cells = db.prepare<[number], string>('SELECT cells FROM gathered WHERE id = ?').pluck().get(record);
  if (cells === undefined) return;
  db.prepare('UPDATE gathered SET cells = ? WHERE id = ?').run(
    JSON.stringify(together(JSON.parse(cells) as RecordValues, values)),
    record,
  );
}

export interface TaskFigures {
  read: number;
  waiting: number;
  failed: number;
  notAllowed: number;
}

export function taskFigures(db: Db, run: string): TaskFigures {
  const of = new Map(
    db
      .prepare<[string], [string, number]>('SELECT state, count(*) FROM task WHERE run = ? GROUP BY state')
      .raw()
      .all(run),
  );
  const figure = (state: string) => of.get(state) ?? 0;
  return {
    read: figure('read'),
    waiting: figure('waiting'),
    failed: figure('failed'),
    notAllowed: figure('not-allowed'),
  };
}

export function rollOfRun(db: Db, run: string): Roll {
  const sums = db
    .prepare<[string], { found: number | null; adverts: number | null; twice: number | null }>(
      'SELECT sum(found) AS found, sum(adverts) AS adverts, sum(twice) AS twice FROM task WHERE run = ?',
    )
    .get(run)!;
  const refused = db
    .prepare<[string], { reason: string; count: number }>(
      "SELECT reason, count(*) AS count FROM put_aside WHERE run = ? AND what = 'refused' GROUP BY reason ORDER BY count(*) DESC, reason",
    )
    .all(run);
  const sites = db
    .prepare<[string], number>("SELECT spec ->> '$.sites' IS NOT NULL FROM run WHERE id = ?")
    .pluck()
    .get(run);
  return gatherRoll({
    sites: sites === 1,
    found: sums.found ?? 0,
    adverts: sums.adverts ?? 0,
    twice: sums.twice ?? 0,
    refused,
  });
}

/** What each search of a run brought so far. Counted once over the run, since there may be thousands of searches. */
export function searchFigures(db: Db, run: string): SearchFigures[] {
  const bySearch = (sql: string) => new Map(db.prepare<[string], [number, number]>(sql).raw().all(run));
  const records = bySearch(
    'SELECT tag.search, count(*) FROM gathered g JOIN tag ON tag.record = g.id WHERE g.run = ? GROUP BY tag.search',
  );
  const pages = bySearch(
    "SELECT search, count(*) FROM task WHERE run = ? AND state = 'read' GROUP BY search",
  );
  const waiting = bySearch(
    "SELECT search, count(*) FROM task WHERE run = ? AND state = 'waiting' GROUP BY search",
  );
  return db
    .prepare<[string], { nth: number; word: string; place: string }>(
      'SELECT nth, word, place FROM search WHERE run = ? ORDER BY nth',
    )
    .all(run)
    .map(({ nth, word, place }) => {
      const read = pages.get(nth) ?? 0;
      return {
        ...{ word, place, records: records.get(nth) ?? 0, pages: read },
        state: !waiting.get(nth) ? 'done' : read === 0 ? 'waits' : 'reads',
      };
    });
}

interface StoredRow {
  id: number;
  cells: string;
  url: string;
  at: number | null;
  reason: string | null;
}

const PARTS: Record<Exclude<RunPart, 'records' | 'failed' | 'not-allowed'>, string> = {
  twice: 'twice',
  refused: 'refused',
  adverts: 'advert',
};

/** Words and places by record. */
function tagsOf(db: Db, record: number): string[] {
  return db
    .prepare<[number], { word: string; place: string }>(
      `SELECT s.word, s.place FROM tag JOIN gathered g ON g.id = tag.record JOIN search s ON s.run = g.run AND s.nth = tag.search
       WHERE tag.record = ? ORDER BY s.nth`,
    )
    .all(record)
    .map(tagText);
}

export const tagText = ({ word, place }: { word: string; place: string }) =>
  [word, place].filter(Boolean).join(' / ');

/** Rows of a part of a run, in the order in which they were read. */
export function rowsOfRun(
  db: Db,
  run: string,
  part: RunPart,
  search: number | null,
  offset: number,
  limit: number,
): { total: number; rows: GatheredRow[] } {
  const time = (at: number | null) => (at === null ? null : new Date(at).toISOString());
  const view = (row: StoredRow, tags: string[]): GatheredRow => ({
    ...{ id: row.id, tags, page: row.url, at: time(row.at), reason: row.reason },
    values: JSON.parse(row.cells) as RecordValues,
  });
  const wish = { run, offset, limit, search };
  if (part === 'records') {
    const within =
      search === null ? '' : 'AND EXISTS (SELECT 1 FROM tag WHERE record = g.id AND search = @search)';
    const total = db
      .prepare<[typeof wish], number>(`SELECT count(*) FROM gathered g WHERE g.run = @run ${within}`)
      .pluck()
      .get(wish)!;
    const rows = db
      .prepare<[typeof wish], StoredRow>(
        `SELECT g.id, g.cells, t.url, g.at, NULL AS reason FROM gathered g JOIN task t ON t.id = g.task
         WHERE g.run = @run ${within} ORDER BY g.id LIMIT @limit OFFSET @offset`,
      )
      .all(wish);
    return { total, rows: rows.map((row) => view(row, tagsOf(db, row.id))) };
  }
  if (part === 'failed' || part === 'not-allowed') {
    const of = { ...wish, state: part };
    const total = db
      .prepare<[typeof of], number>('SELECT count(*) FROM task WHERE run = @run AND state = @state')
      .pluck()
      .get(of)!;
    const rows = db
      .prepare<[typeof of], StoredRow>(
        `SELECT id, '{}' AS cells, url, NULL AS at, error AS reason FROM task WHERE run = @run AND state = @state
         ORDER BY id LIMIT @limit OFFSET @offset`,
      )
      .all(of);
    return { total, rows: rows.map((row) => view(row, [])) };
  }
  const of = { ...wish, what: PARTS[part] };
  const total = db
    .prepare<[typeof of], number>('SELECT count(*) FROM put_aside WHERE run = @run AND what = @what')
    .pluck()
    .get(of)!;
  const rows = db
    .prepare<[typeof of], StoredRow & { search: number }>(
      `SELECT p.id, p.cells, t.url, t.read_at AS at, p.reason, t.search FROM put_aside p JOIN task t ON t.id = p.task
       WHERE p.run = @run AND p.what = @what ORDER BY p.id LIMIT @limit OFFSET @offset`,
    )
    .all(of);
  return {
    total,
    rows: rows.map((row) =>
      view(part === 'twice' ? { ...row, reason: null } : row, [tagText(searchOf(db, run, row.search))]),
    ),
  };
}

const searchOf = (db: Db, run: string, nth: number) =>
  db
    .prepare<[string, number], { word: string; place: string }>(
      'SELECT word, place FROM search WHERE run = ? AND nth = ?',
    )
    .get(run, nth) ?? { word: '', place: '' };

/** Every record of a run, one after the other. */
export function* recordsOf(
  db: Db,
  run: string,
): Generator<{ values: RecordValues; tags: string[]; url: string; at: number }> {
  const rows = db
    .prepare<[string], { id: number; cells: string; url: string; at: number }>(
      'SELECT g.id, g.cells, t.url, g.at FROM gathered g JOIN task t ON t.id = g.task WHERE g.run = ? ORDER BY g.id',
    )
    .all(run);
  for (const { id, cells, url, at } of rows)
    yield { values: JSON.parse(cells) as RecordValues, tags: tagsOf(db, id), url, at };
}

/** Fields that records of a run have, in how many. */
export function fieldsOfRun(db: Db, run: string): Map<string, number> {
  return new Map(
    db
      .prepare<[string], [string, number]>(
        'SELECT j.key, count(*) FROM gathered g, json_each(g.cells) j WHERE g.run = ? GROUP BY j.key',
      )
      .raw()
      .all(run),
  );
}
