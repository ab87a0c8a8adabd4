import { workerData } from 'node:worker_threads';
import { openUniverseInBulk } from '../db/open.ts';
import { runJob, stopIfCancelled, tellProgress } from '../jobs/thread.ts';
import { loadCodeTrees, loadGazetteer } from '../reference.ts';
import { jobLanded } from '../tables/landed-jobs.ts';
import { sourceByKey } from '../tables/source.ts';
import { removeSource } from './remake.ts';

/** The thread that takes a source out of the universe, in one transaction. */
void runJob(() => {
  const { dir, key, job } = workerData as { dir: string; key: string; job: string };
  const db = openUniverseInBulk(dir);
  try {
    db.transaction(() => {
      removeSource(db, sourceByKey(db, key)!, loadCodeTrees(), loadGazetteer(), (done, total) => {
        stopIfCancelled();
        tellProgress(done, total);
      });
      jobLanded(db, job, { source: key });
    }).immediate();
  } finally {
    db.close();
  }
  return { source: key };
});
