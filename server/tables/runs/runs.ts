import { nanoid } from 'nanoid';
import { deflateRawSync, inflateRawSync } from 'node:zlib';
import type { ChangeRow, MoveFigure, RunCause, RunState, RunView } from '../../../contract/runs.ts';
import type { Roll } from '../../../core/lists/roll.ts';
import type { ChangeOrder } from '../../../core/runs/change-order.ts';
import { packIds, unpackIds } from '../../../core/runs/members.ts';
import type { Db } from '../../db/open.ts';

/** Runs of plans: what was carried out, when, and what came of it. */

/** What carries a run out elsewhere. */
export interface Carrier {
  job?: string;
  export?: string;
  gathered?: string;
  list?: string;
}

export interface RunRow {
  id: string;
  plan: string;
  nth: number;
  cause: RunCause;
  state: RunState;
  due_at: number;
  started_at: number | null;
  ended_at: number | null;
  message: string | null;
  carried_by: string | null;
  subject: string | null;
  tape: string | null;
  revision: number | null;
  universe: string | null;
  as_of: number | null;
  count: number | null;
  before: number | null;
  joined: number | null;
  left_off: number | null;
  moved: number | null;
  compared_to: string | null;
  roll: string | null;
  moves: string | null;
  log: string;
}

/** Puts a run in line. */
export function addRun(db: Db, plan: string, cause: RunCause, due: number): string {
  const id = nanoid(12);
  db.prepare(
    `INSERT INTO run (id, plan, nth, cause, state, due_at)
     VALUES (?, ?, (SELECT COALESCE(max(nth), 0) + 1 FROM run WHERE plan = ?), ?, 'waits', ?)`,
  ).run(id, plan, plan, cause, due);
  return id;
}

export function runById(db: Db, id: string): RunRow | undefined {
  return db.prepare<[string], RunRow>('SELECT * FROM run WHERE id = ?').get(id);
}

/** Runs in line, the first due first. */
export function waitingRuns(db: Db): RunRow[] {
  return db.prepare<[], RunRow>("SELECT * FROM run WHERE state = 'waits' ORDER BY due_at, id").all();
}

/** Whether a plan is running or stands in line. */
export function isUnderWay(db: Db, plan: string): boolean {
  return (
    db.prepare("SELECT 1 FROM run WHERE plan = ? AND state IN ('waits', 'running') LIMIT 1").get(plan) !==
    undefined
  );
}

export function beginRun(db: Db, id: string, now: number): void {
  db.prepare("UPDATE run SET state = 'running', started_at = ? WHERE id = ?").run(now, id);
}

export function setCarrier(db: Db, id: string, carrier: Carrier): void {
  db.prepare('UPDATE run SET carried_by = ? WHERE id = ?').run(JSON.stringify(carrier), id);
}

/** Runs of a plan that are kept; of one that runs every few minutes, older ones are taken away. */
const RUNS_KEPT = 500;

export function endRun(
  db: Db,
  id: string,
  {
    state,
    message,
    now,
    log,
  }: { state: RunState; message: string | null; now: number; log: readonly string[] },
): void {
  db.prepare('UPDATE run SET state = ?, message = ?, ended_at = ?, log = ? WHERE id = ?').run(
    ...[state, message, now, JSON.stringify(log), id],
  );
  db.prepare(
    `DELETE FROM run WHERE plan = (SELECT plan FROM run WHERE id = @id)
       AND nth <= (SELECT nth FROM run WHERE id = @id) - ${RUNS_KEPT} AND state NOT IN ('waits', 'running')`,
  ).run({ id });
}

/** What was running when the program ended did not come to its end. Returns how many. */
export function failUnfinished(db: Db, now: number): number {
  return db
    .prepare(
      "UPDATE run SET state = 'failed', ended_at = ?, message = 'The program was stopped while this ran.' WHERE state = 'running'",
    )
    .run(now).changes;
}

/** What a run of a tape or batch found. */
export interface Found {
  subject: string;
  tape: string;
  revision: number;
  universe: string;
  asOf: number;
  ids: Uint32Array;
  comparedTo: string | null;
  before: number | null;
  joined: number;
  left: number;
  moved: number;
  roll: Roll;
  moves: MoveFigure[];
  changes: readonly ChangeRow[];
}

export function writeFound(db: Db, id: string, found: Found): void {
  db.prepare(
    `UPDATE run SET subject = ?, tape = ?, revision = ?, universe = ?, as_of = ?, count = ?, before = ?, joined = ?,
       left_off = ?, moved = ?, compared_to = ?, roll = ?, moves = ? WHERE id = ?`,
  ).run(
    ...[
      found.subject,
      found.tape,
      found.revision,
      found.universe,
      found.asOf,
      found.ids.length,
      found.before,
    ],
    ...[found.joined, found.left, found.moved, found.comparedTo],
    ...[JSON.stringify(found.roll), JSON.stringify(found.moves), id],
  );
  db.prepare('INSERT OR REPLACE INTO run_members (run, members) VALUES (?, ?)').run(
    id,
    deflateRawSync(packIds(found.ids)),
  );
  const put = db.prepare(
    `INSERT INTO run_change (run, nth, what, reason, key, name, place, why, was, now, there)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
  );
  found.changes.forEach(({ what, reason, key, name, place, why, was, now, there }, nth) =>
    put.run(id, nth, what, reason, key, name, place, why, was, now, Number(there)),
  );
}

/** The roll of a run that keeps no members, such as a batch; its foot is what there is. */
export function setRunRoll(db: Db, id: string, roll: Roll, subject: string): void {
  db.prepare('UPDATE run SET roll = ?, count = ?, subject = ? WHERE id = ?').run(
    JSON.stringify(roll),
    roll.foot,
    subject,
    id,
  );
}

/** Notes which records a search of a batch was the first to find. */
export function addFresh(db: Db, id: string, reason: string, keys: readonly string[]): void {
  db.prepare(
    `INSERT INTO run_change (run, nth, what, reason, key, name, why, there)
     SELECT @id, (SELECT COALESCE(max(nth), -1) FROM run_change WHERE run = @id) + 1 + j.key, 'joined', @reason, j.value, '', '', 1
     FROM json_each(@keys) j`,
  ).run({ id, reason, keys: JSON.stringify(keys) });
}

/** Notes what the same searches found at a run and not at the one before, and the other way round. */
export function noteSince(
  db: Db,
  id: string,
  before: { id: string; count: number },
  fresh: readonly string[],
  lost: readonly string[],
): void {
  const put = db.prepare(
    `INSERT INTO run_change (run, nth, what, reason, key, name, why, there)
     SELECT @id, (SELECT COALESCE(max(nth), -1) FROM run_change WHERE run = @id) + 1 + j.key, @what, @what, j.value, '', @why, 1
     FROM json_each(@keys) j`,
  );
  put.run({ id, what: 'new', why: 'not found at the run before', keys: JSON.stringify(fresh) });
  put.run({ id, what: 'left', why: 'found at the run before', keys: JSON.stringify(lost) });
  db.prepare(
    'UPDATE run SET before = ?, compared_to = ?, joined = ?, left_off = ?, moved = 0 WHERE id = ?',
  ).run(...[before.count, before.id, fresh.length, lost.length, id]);
}

/** The numbers of the records that a run kept, ascending; null where it kept none, such as one that failed. */
export function membersOf(db: Db, id: string): Uint32Array | null {
  const packed = db
    .prepare<[string], Buffer>('SELECT members FROM run_members WHERE run = ?')
    .pluck()
    .get(id);
  return packed ? unpackIds(inflateRawSync(packed)) : null;
}

/** Bytes that the members of a run take. */
export function bytesOfMembers(db: Db, id: string): number {
  return (
    db.prepare<[string], number>('SELECT length(members) FROM run_members WHERE run = ?').pluck().get(id) ?? 0
  );
}

/** The last run of a plan that came to its end, before another. */
export function runBefore(db: Db, plan: string, nth: number): RunRow | undefined {
  return db
    .prepare<[string, number], RunRow>(
      "SELECT * FROM run WHERE plan = ? AND nth < ? AND state = 'done' ORDER BY nth DESC LIMIT 1",
    )
    .get(plan, nth);
}

/** Runs of a plan, the newest first. */
export function runsOfPlan(db: Db, plan: string, limit = 200): RunRow[] {
  return db
    .prepare<[string, number], RunRow>('SELECT * FROM run WHERE plan = ? ORDER BY nth DESC LIMIT ?')
    .all(plan, limit);
}

/** The newest runs of all plans. */
export function newestRuns(db: Db, limit: number): RunRow[] {
  return db.prepare<[number], RunRow>('SELECT * FROM run ORDER BY due_at DESC, id LIMIT ?').all(limit);
}

interface StoredChange extends Omit<ChangeRow, 'there'> {
  there: number;
}

/** What stands in a column by which changes are sorted: values by the figure that they begin with, then as texts. */
const SORTED_BY: Readonly<Record<ChangeOrder, string>> = {
  name: 'name COLLATE NOCASE {}',
  why: 'why COLLATE NOCASE {}',
  was: "was IS NULL, CAST(REPLACE(was, 'about ', '') AS REAL) {}, was COLLATE NOCASE {}",
  now: "now IS NULL, CAST(REPLACE(now, 'about ', '') AS REAL) {}, now COLLATE NOCASE {}",
};

/** Which changes of a run are asked for: of a kind, of a reason, so many from a place on; `order` is null for as they were found. */
export interface ChangesWish {
  what: string | null;
  reason: string | null;
  offset: number;
  limit: number;
  order?: { by: ChangeOrder; descending: boolean } | null;
}

/** What changed at a run, and how much of it there is. */
export function changesOfRun(
  db: Db,
  id: string,
  { what, reason, offset, limit, order = null }: ChangesWish,
): { changes: ChangeRow[]; total: number } {
  const sorted = order ? `${SORTED_BY[order.by].replaceAll('{}', order.descending ? 'DESC' : 'ASC')}, ` : '';
  const where = `run = @id AND (@what IS NULL OR what = @what) AND (@reason IS NULL OR reason = @reason)`;
  const values = { id, what, reason, offset, limit };
  const total = db
    .prepare<[object], number>(`SELECT count(*) FROM run_change WHERE ${where}`)
    .pluck()
    .get(values)!;
  const changes = db
    .prepare<[object], StoredChange>(
      `SELECT what, reason, key, name, place, why, was, now, there FROM run_change WHERE ${where}
       ORDER BY ${sorted}nth LIMIT @limit OFFSET @offset`,
    )
    .all(values)
    .map((row) => ({ ...row, there: row.there === 1 }));
  return { changes, total };
}

/** Keys of the records of a kind of change, or of one reason. */
export function changedKeys(db: Db, id: string, what: string, reason: string | null): string[] {
  return db
    .prepare<[object], string>(
      `SELECT DISTINCT key FROM run_change WHERE run = @id AND what = @what AND (@reason IS NULL OR reason = @reason) AND there = 1
       ORDER BY key`,
    )
    .pluck()
    .all({ id, what, reason });
}

/** A run as it is shown. */
export function viewRun(row: RunRow): RunView {
  const iso = (at: number | null) => (at === null ? null : new Date(at).toISOString());
  return {
    ...{ id: row.id, plan: row.plan, nth: row.nth, cause: row.cause, state: row.state, message: row.message },
    dueAt: iso(row.due_at)!,
    startedAt: iso(row.started_at),
    endedAt: iso(row.ended_at),
    took: row.started_at === null || row.ended_at === null ? null : row.ended_at - row.started_at,
    carriedBy: row.carried_by === null ? null : (JSON.parse(row.carried_by) as Carrier),
    ...{ count: row.count, before: row.before, joined: row.joined, left: row.left_off, moved: row.moved },
    comparedTo: row.compared_to,
    subject: row.subject,
    asOf: row.as_of,
    roll: row.roll === null ? null : (JSON.parse(row.roll) as Roll),
    moves: row.moves === null ? [] : (JSON.parse(row.moves) as MoveFigure[]),
    log: JSON.parse(row.log) as string[],
  };
}
