import type { Target, TellWish } from '../../../contract/runs.ts';
import type { PlanKind } from '../../../core/runs/kinds.ts';
import { nextTimes, type Schedule } from '../../../core/runs/when.ts';
import { foldedWords } from '../../../core/text/fold.ts';
import type { Db } from '../../db/open.ts';

/** What is to run, and when. */

interface PlanRow {
  key: string;
  kind: PlanKind;
  name: string;
  target: string;
  schedule: string;
  tell: string;
  person: string;
  next_at: number | null;
  made_at: number;
  changed_at: number;
  removed_at: number | null;
}

export interface Plan {
  key: string;
  kind: PlanKind;
  name: string;
  target: Target;
  schedule: Schedule;
  tell: TellWish;
  person: string;
  /** Ms since 1970; null where the clock does not start it. */
  nextAt: number | null;
  changedAt: number;
}

export interface PlanWish {
  kind: PlanKind;
  name: string;
  target: Target;
  schedule: Schedule;
  tell: TellWish;
}

const MOST_KEY = 60;

const planOf = (row: PlanRow): Plan => ({
  ...{ key: row.key, kind: row.kind, name: row.name, person: row.person },
  target: JSON.parse(row.target) as Target,
  schedule: JSON.parse(row.schedule) as Schedule,
  tell: JSON.parse(row.tell) as TellWish,
  nextAt: row.next_at,
  changedAt: row.changed_at,
});

/** All that is planned, by name. */
export function allPlans(db: Db): Plan[] {
  return db
    .prepare<[], PlanRow>('SELECT * FROM plan WHERE removed_at IS NULL ORDER BY name COLLATE NOCASE')
    .all()
    .map(planOf);
}

export function planByKey(db: Db, key: string): Plan | undefined {
  const row = db
    .prepare<[string], PlanRow>('SELECT * FROM plan WHERE key = ? AND removed_at IS NULL')
    .get(key);
  return row && planOf(row);
}

/** Name of a plan, removed ones included, since runs of theirs are still listed. */
export function planName(db: Db, key: string): string {
  return (
    db.prepare<[string], string>('SELECT name FROM plan WHERE key = ?').pluck().get(key) ??
    'a plan that is gone'
  );
}

/** Kind of a plan, removed ones included. */
export function planKind(db: Db, key: string): PlanKind {
  return db.prepare<[string], PlanKind>('SELECT kind FROM plan WHERE key = ?').pluck().get(key)!;
}

/** Adds a plan under a key made of its name. */
export function addPlan(db: Db, wish: PlanWish, person: string, now: number): Plan {
  const stem = foldedWords(wish.name).join('-').slice(0, MOST_KEY) || 'run';
  const taken = db.prepare<[string], number>('SELECT 1 FROM plan WHERE key = ?').pluck();
  let key = stem;
  for (let n = 2; taken.get(key); n++) key = `${stem}-${n}`;
  db.prepare(
    `INSERT INTO plan (key, kind, name, target, schedule, tell, person, next_at, made_at, changed_at)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
  ).run(
    ...[key, wish.kind, wish.name, JSON.stringify(wish.target), JSON.stringify(wish.schedule)],
    ...[JSON.stringify(wish.tell), person, nextTimes(wish.schedule, now, 1)[0] ?? null, now, now],
  );
  return planByKey(db, key)!;
}

export function changePlan(db: Db, key: string, wish: PlanWish, now: number): Plan {
  db.prepare(
    'UPDATE plan SET name = ?, target = ?, schedule = ?, tell = ?, next_at = ?, changed_at = ? WHERE key = ?',
  ).run(
    ...[wish.name, JSON.stringify(wish.target), JSON.stringify(wish.schedule), JSON.stringify(wish.tell)],
    ...[nextTimes(wish.schedule, now, 1)[0] ?? null, now, key],
  );
  return planByKey(db, key)!;
}

/** Takes a plan away, or has it back. What it ran stays listed. */
export function setPlanRemoved(db: Db, key: string, at: number | null): void {
  db.prepare('UPDATE plan SET removed_at = ? WHERE key = ?').run(at, key);
}

/** Plans that the clock starts now or should have started, the longest due first. */
export function duePlans(db: Db, now: number): Plan[] {
  return db
    .prepare<[number], PlanRow>(
      'SELECT * FROM plan WHERE next_at <= ? AND removed_at IS NULL ORDER BY next_at, key',
    )
    .all(now)
    .map(planOf);
}

/** When the clock next starts something; null where it does not. */
export function nextDue(db: Db): number | null {
  return (
    db.prepare<[], number | null>('SELECT min(next_at) FROM plan WHERE removed_at IS NULL').pluck().get() ??
    null
  );
}

/** Notes that a plan was started, and when it is next. */
export function setNext(db: Db, { key, schedule }: Plan, now: number): void {
  db.prepare('UPDATE plan SET next_at = ? WHERE key = ?').run(nextTimes(schedule, now, 1)[0] ?? null, key);
}
