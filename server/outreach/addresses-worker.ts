import { workerData } from 'node:worker_threads';
import { openOutreach, openUniverse } from '../db/open.ts';
import { runJob, stopIfCancelled, tellProgress } from '../jobs/thread.ts';
import { relate } from '../load/relate.ts';
import { jobLanded } from '../tables/landed-jobs.ts';
import { allOutcomes } from '../tables/outreach/outcomes.ts';
import { answersFromCompanies } from '../tables/outreach/replies.ts';
import { nextRevision } from '../tables/revision.ts';
import { writeReplyEvents } from './reply-events.ts';

const DAY_MS = 86_400_000;

/**
 * The thread that takes what came back into the universe, in one transaction: what became of addresses, from which all are made
 * anew, and what was answered, as events of the companies.
 */
void runJob(() => {
  const { dir, job } = workerData as { dir: string; job: string };
  const outreach = openOutreach(dir, { readonly: true });
  const outcomes = allOutcomes(outreach);
  const answers = answersFromCompanies(outreach);
  outreach.close();
  const db = openUniverse(dir);
  try {
    return db
      .transaction(() => {
        tellProgress(0, 1, 'learning from what came back');
        const write = db.prepare('INSERT OR REPLACE INTO mail_outcome VALUES (?, ?, ?)');
        for (const { mail, outcome, at } of outcomes.values()) write.run(mail, outcome, at);
        stopIfCancelled();
        const revision = nextRevision(db, 'What came back to messages was taken in');
        const events = writeReplyEvents(db, answers, Math.floor(Date.now() / DAY_MS));
        relate(db, revision, events > 0 ? ['people', 'events'] : ['people']);
        stopIfCancelled();
        const result = { outcomes: outcomes.size, events };
        jobLanded(db, job, result);
        return result;
      })
      .immediate();
  } finally {
    db.close();
  }
});
