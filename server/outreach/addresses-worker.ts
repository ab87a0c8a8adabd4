import { workerData } from 'node:worker_threads';
import { openOutreach, openUniverse } from '../db/open.ts';
import { runJob, stopIfCancelled, tellProgress } from '../jobs/thread.ts';
import { relate } from '../load/relate.ts';
import { jobLanded } from '../tables/landed-jobs.ts';
import { allOutcomes } from '../tables/outreach/outcomes.ts';
import { nextRevision } from '../tables/revision.ts';

/** The thread that takes what became of addresses into the universe, and makes the addresses anew from it, in one transaction. */
void runJob(() => {
  const { dir, job } = workerData as { dir: string; job: string };
  const outreach = openOutreach(dir, { readonly: true });
  const outcomes = allOutcomes(outreach);
  outreach.close();
  const db = openUniverse(dir);
  try {
    return db
      .transaction(() => {
        tellProgress(0, 1, 'learning from what came back');
        const write = db.prepare('INSERT OR REPLACE INTO mail_outcome VALUES (?, ?, ?)');
        for (const { mail, outcome, at } of outcomes.values()) write.run(mail, outcome, at);
        stopIfCancelled();
        relate(db, nextRevision(db, 'Addresses were made anew'), ['people']);
        stopIfCancelled();
        const result = { outcomes: outcomes.size };
        jobLanded(db, job, result);
        return result;
      })
      .immediate();
  } finally {
    db.close();
  }
});
