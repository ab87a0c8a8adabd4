import { workerData } from 'node:worker_threads';
import { openUniverse } from '../server/db/open.ts';
import { runJob, stopIfCancelled, tellProgress } from '../server/jobs/thread.ts';
import { loadDemo } from './load-demo.ts';
import { fillWorkspace } from './workspace.ts';

/** The thread that makes the demo universe when it is asked for in the interface. */
void runJob(async () => {
  const { dir, companies, job } = workerData as { dir: string; companies: number; job: string };
  const db = openUniverse(dir);
  try {
    const tell = (done: number, total: number, message: string) => {
      // Once it is in the universe it cannot be cancelled any more.
      if (db.inTransaction) stopIfCancelled();
      tellProgress(done, total, message);
    };
    const made = await loadDemo(db, companies, tell, job);
    await fillWorkspace(dir, db);
    return made;
  } finally {
    db.close();
  }
});
