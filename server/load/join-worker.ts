import { workerData } from 'node:worker_threads';
import { openUniverse } from '../db/open.ts';
import { runJob, stopIfCancelled, tellProgress } from '../jobs/thread.ts';
import { loadCodeTrees, loadGazetteer } from '../reference.ts';
import type { Join } from '../tables/company-joins.ts';
import { jobLanded } from '../tables/landed-jobs.ts';
import { joinCompanies, takeApart } from './join-companies.ts';

/** The thread that joins companies, or takes one apart, in one transaction. */

export interface JoinJobData extends Record<string, unknown> {
  dir: string;
  /** What is joined, or the key of what is taken apart. */
  joins: Join[];
  apart: string | null;
}

/** What became of it, as the job's result. */
export interface JoinResult extends Record<string, unknown> {
  joined: { gone: string; key: string }[];
  /** The company that something was taken out of. */
  from: string | null;
}

void runJob(() => {
  const { dir, joins, apart, job } = workerData as JoinJobData & { job: string };
  const db = openUniverse(dir);
  const tables = { trees: loadCodeTrees(), places: loadGazetteer() };
  try {
    return db
      .transaction((): JoinResult => {
        const made = joinCompanies(db, joins, tables, (done, total) => {
          stopIfCancelled();
          tellProgress(done, total, 'companies joined');
        });
        const result: JoinResult = {
          joined: made.map(({ gone, key }) => ({ gone, key })),
          from: apart === null ? null : takeApart(db, apart, tables),
        };
        jobLanded(db, job, result);
        return result;
      })
      .immediate();
  } finally {
    db.close();
  }
});
