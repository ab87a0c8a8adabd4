import { workerData } from 'node:worker_threads';
import { openUniverse, openWorkspace } from '../server/db/open.ts';
import { runJob, stopIfCancelled, tellProgress } from '../server/jobs/thread.ts';
import { loadDemo } from './load-demo.ts';
import { fillWorkspace } from './workspace.ts';

/** The thread that makes the demo universe when it is asked for in the interface. */
void runJob(async () => {
  const { dir, companies } = workerData as { dir: string; companies: number };
  const db = openUniverse(dir);
  try {
    const made = await loadDemo(db, companies, (done, total, message) => {
      stopIfCancelled();
      tellProgress(done, total, message);
    });
    const workspace = openWorkspace(dir);
    fillWorkspace(workspace, db);
    workspace.close();
    return made;
  } finally {
    db.close();
  }
});
