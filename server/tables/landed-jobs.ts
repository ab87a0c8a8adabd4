import type { Db } from '../db/open.ts';

/** Says within the transaction of a job's change that it is made, and with which result. */
export function jobLanded(db: Db, job: string, result: object): void {
  db.prepare('INSERT INTO landed_job VALUES (?, ?)').run(job, JSON.stringify(result));
}

/** The result of a job whose change is in the universe; null where it is not. */
export function landedResult(db: Db, job: string): Record<string, unknown> | null {
  const result = db.prepare<[string], string>('SELECT result FROM landed_job WHERE job = ?').pluck().get(job);
  return result === undefined ? null : (JSON.parse(result) as Record<string, unknown>);
}

/** Forgets what landed: once the jobs of an earlier process have been told what became of them, nobody asks again. */
export function forgetLanded(db: Db): void {
  db.prepare('DELETE FROM landed_job').run();
}
