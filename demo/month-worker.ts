import { workerData } from 'node:worker_threads';
import { openUniverse } from '../server/db/open.ts';
import { runJob, tellProgress } from '../server/jobs/thread.ts';
import { nextMonthOf } from '../server/runs/months.ts';
import { jobLanded } from '../server/tables/landed-jobs.ts';
import { loadMonth } from './months/month.ts';

/** The thread that brings the demo to a month, through those before it: each is one transaction. */
void runJob(async () => {
  const { dir, month, job } = workerData as { dir: string; month: string; job: string };
  const db = openUniverse(dir);
  let result: Record<string, unknown> = {};
  try {
    for (let next = nextMonthOf(db); next !== null && next <= month; next = nextMonthOf(db)) {
      db.exec('BEGIN IMMEDIATE');
      const at = next;
      result = await loadMonth(db, { dir, job, month: at }, (message) =>
        tellProgress(0, null, `${at}: ${message}`),
      );
      if (at === month) jobLanded(db, job, result);
      db.exec('COMMIT');
    }
    return result;
  } catch (error) {
    if (db.inTransaction) db.exec('ROLLBACK');
    throw error;
  } finally {
    db.close();
  }
});
