import { workerData } from 'node:worker_threads';
import { openUniverse } from '../db/open.ts';
import { runJob, tellProgress } from '../jobs/thread.ts';
import { jobLanded } from '../tables/landed-jobs.ts';
import { nextRevision, noteSubjectChange } from '../tables/revision.ts';
import { readTitleAs } from '../tables/title-readings.ts';

/** The thread that reads a title otherwise, for everybody who has it. */

export interface TitlesData extends Record<string, unknown> {
  dir: string;
  title: string;
  /** Null where the title is read as it was loaded. */
  reading: { department: string | null; level: string | null; person: string; at: string } | null;
}

void runJob(() => {
  const { dir, title, reading, job } = workerData as TitlesData & { job: string };
  const db = openUniverse(dir);
  try {
    return db
      .transaction(() => {
        tellProgress(0, 1, 'reading the title');
        const result = { people: readTitleAs(db, title, reading) };
        noteSubjectChange(db, 'people', nextRevision(db, `“${title}” was read otherwise`));
        jobLanded(db, job, result);
        return result;
      })
      .immediate();
  } finally {
    db.close();
  }
});
