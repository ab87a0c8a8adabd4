import { statSync } from 'node:fs';
import { workerData } from 'node:worker_threads';
import { openUniverseInBulk } from '../db/open.ts';
import { runJob, tellProgress } from '../jobs/thread.ts';
import { jobLanded } from '../tables/landed-jobs.ts';
import type { LoadWorkerData } from './load-data.ts';
import { loadFile } from './load-file.ts';

/** The thread that loads a file as a source, of companies or of what hangs on them: all in one transaction, so that it lands whole or not at all. */

async function load(data: LoadWorkerData): Promise<Record<string, unknown>> {
  const db = openUniverseInBulk(data.dir);
  const total = statSync(data.path).size;
  db.exec('BEGIN IMMEDIATE');
  try {
    const result = await loadFile(db, data);
    jobLanded(db, data.job, result);
    db.exec('COMMIT');
    tellProgress(total, total);
    return result;
  } catch (error) {
    if (db.inTransaction) db.exec('ROLLBACK');
    throw error;
  } finally {
    db.close();
  }
}

void runJob(() => load(workerData as LoadWorkerData));
