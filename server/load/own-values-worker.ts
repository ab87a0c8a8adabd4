import { workerData } from 'node:worker_threads';
import { openUniverse } from '../db/open.ts';
import { runJob } from '../jobs/thread.ts';
import { loadCodeTrees, loadGazetteer } from '../reference.ts';
import { jobLanded } from '../tables/landed-jobs.ts';
import { landOwnValues, type Correcting } from './own-values.ts';

/** The thread that corrects values of companies by hand. */

export interface CorrectingData extends Record<string, unknown> {
  dir: string;
  what: string;
  corrections: Correcting[];
}

void runJob(() => {
  const { dir, what, corrections, job } = workerData as CorrectingData & { job: string };
  const db = openUniverse(dir);
  try {
    return db
      .transaction(() => {
        const tables = { trees: loadCodeTrees(), places: loadGazetteer() };
        const result = { companies: landOwnValues(db, what, { corrections }, tables) };
        jobLanded(db, job, result);
        return result;
      })
      .immediate();
  } finally {
    db.close();
  }
});
