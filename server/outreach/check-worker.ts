import { workerData } from 'node:worker_threads';
import { openOutreach } from '../db/open.ts';
import { runJob, stopIfCancelled, tellProgress } from '../jobs/thread.ts';
import { noteOutcome } from '../tables/outreach/outcomes.ts';
import { askHost, HOST_ANSWERS, type HostAnswer } from './ask-host.ts';

/** The thread that asks mail hosts about addresses, one after the other and not too fast. */

export interface CheckData extends Record<string, unknown> {
  dir: string;
  mails: string[];
  port: number;
  from: string;
}

/** Between two questions: a host that is asked faster takes it for an attack. */
const PACE_MS = 60;

void runJob(async () => {
  const { dir, mails, port, from } = workerData as CheckData;
  const db = openOutreach(dir);
  const counts = Object.fromEntries(HOST_ANSWERS.map((answer) => [answer, 0])) as Record<HostAnswer, number>;
  try {
    for (const [i, mail] of mails.entries()) {
      stopIfCancelled();
      const answer = await askHost('127.0.0.1', port, from, mail);
      counts[answer]++;
      // A host that takes anything, puts off or keeps silent says nothing of the address.
      if (answer === 'refuses')
        noteOutcome(db, { mail, outcome: 'refuted', how: 'its mail host has no such mailbox' });
      if (answer === 'accepts')
        noteOutcome(db, { mail, outcome: 'confirmed', how: 'its mail host takes it, and refuses others' });
      tellProgress(i + 1, mails.length, `${counts.accepts} taken, ${counts.refuses} refused`);
      await new Promise((resolve) => setTimeout(resolve, PACE_MS));
    }
  } finally {
    db.close();
  }
  return { asked: mails.length, ...counts };
});
