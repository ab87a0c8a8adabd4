import type { SureBy } from '../../core/match/outcome.ts';
import type { Db } from '../db/open.ts';

/** Which companies were joined to which, in the universe. */

export interface Join {
  /** Keys: the company that is gone, and the one that has its records now. */
  gone: string;
  key: string;
  how: SureBy | 'hand';
  chance: number | null;
  person: string;
}

/** The key that each joined key now stands for. */
export function joinsOf(db: Db): ReadonlyMap<string, string> {
  return new Map(db.prepare<[], [string, string]>('SELECT gone, key FROM company_join').raw().all());
}

/** Notes a join; what was joined to the company that is gone is joined to the other from now on. */
export function noteJoin(db: Db, { gone, key, how, chance, person }: Join): void {
  db.prepare('UPDATE company_join SET key = ? WHERE key = ?').run(key, gone);
  db.prepare(
    'INSERT OR REPLACE INTO company_join (gone, key, how, chance, person, at) VALUES (?, ?, ?, ?, ?, ?)',
  ).run(gone, key, how, chance, person, new Date().toISOString());
}

/** What was joined to a company. */
export function joinedTo(db: Db, key: string): (Omit<Join, 'key'> & { at: string })[] {
  return db
    .prepare<[string], Omit<Join, 'key'> & { at: string }>(
      'SELECT gone, how, chance, person, at FROM company_join WHERE key = ? ORDER BY at, gone',
    )
    .all(key);
}

/** Looks up the id of the company that has a key, or that one was joined to that had it. */
export function companyUnder(db: Db): (key: string) => number | undefined {
  const joins = joinsOf(db);
  const id = db.prepare<[string], number>('SELECT id FROM company WHERE key = ?').pluck();
  return (key) => id.get(joins.get(key) ?? key);
}

/** The key that the company of a key has now: another where it was joined to one; null where it is not there. */
export function keyUnder(db: Db): (key: string) => string | null {
  const joins = joinsOf(db);
  const own = db.prepare<[string], string>('SELECT key FROM company WHERE key = ?').pluck();
  return (key) => own.get(joins.get(key) ?? key) ?? null;
}

export function joinOf(db: Db, gone: string): string | null {
  return (
    db.prepare<[string], string>('SELECT key FROM company_join WHERE gone = ?').pluck().get(gone) ?? null
  );
}

export function forgetJoin(db: Db, gone: string): void {
  db.prepare('DELETE FROM company_join WHERE gone = ?').run(gone);
}
