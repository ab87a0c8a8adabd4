import { workerData } from 'node:worker_threads';
import { LABEL_OF_PART } from '../../core/records/part-labels.ts';
import { PRECEDENCE_GROUP_KEYS, PRECEDENCE_GROUPS, type Precedence } from '../../core/records/precedence.ts';
import { openUniverse } from '../db/open.ts';
import { runJob, stopIfCancelled, tellProgress } from '../jobs/thread.ts';
import { loadCodeTrees, loadGazetteer } from '../reference.ts';
import { companyParts, companyWriter } from '../tables/company.ts';
import { jobLanded } from '../tables/landed-jobs.ts';
import { writePrecedence } from '../tables/own-values.ts';
import { nextRevision } from '../tables/revision.ts';
import { RecordReader } from './remake.ts';

/** The thread that says how many values another precedence of sources changes, or changes them. */

export interface PrecedenceJobData extends Record<string, unknown> {
  dir: string;
  precedence: Precedence;
  /** Whether it is taken over; else it is only counted. */
  apply: boolean;
}

/** What another precedence makes of the universe. */
export interface PrecedenceResult extends Record<string, unknown> {
  /** Companies of which more than one source knows anything. */
  several: number;
  /** Of them, those of which any value changes. */
  companies: number;
  /** Values that change, by what they are. */
  values: { part: string; count: number }[];
}

void runJob(() => {
  const { dir, precedence, apply, job } = workerData as PrecedenceJobData & { job: string };
  const db = openUniverse(dir);
  try {
    const work = () => {
      const [trees, places] = [loadCodeTrees(), loadGazetteer()];
      const [before, after] = [
        new RecordReader(db, trees, places),
        new RecordReader(db, trees, places, precedence),
      ];
      const several = db
        .prepare<[], number>('SELECT id FROM company WHERE sources > 1 ORDER BY id')
        .pluck()
        .all();
      const counts = new Map<string, number>();
      const changed: number[] = [];
      several.forEach((company, i) => {
        if (i % 500 === 0) {
          stopIfCancelled();
          tellProgress(i, several.length, 'companies compared');
        }
        const [was, is] = [before.merge(company)!.company, after.merge(company)!.company];
        let differs = false;
        for (const group of PRECEDENCE_GROUP_KEYS)
          for (const part of PRECEDENCE_GROUPS[group].parts)
            if (part in LABEL_OF_PART && JSON.stringify(was[part]) !== JSON.stringify(is[part])) {
              differs = true;
              counts.set(part, (counts.get(part) ?? 0) + 1);
            }
        if (differs) changed.push(company);
      });
      if (apply) {
        writePrecedence(db, precedence);
        const revision = nextRevision(db, 'Another source wins');
        const writer = companyWriter(db, revision);
        for (const company of changed) {
          const made = after.merge(company)!;
          writer.update(company, companyParts(made.company, made), made.sources);
        }
      }
      const values = [...counts].map(([part, count]) => ({ part: LABEL_OF_PART[part]!, count }));
      values.sort((a, b) => b.count - a.count);
      const result: PrecedenceResult = { several: several.length, companies: changed.length, values };
      if (apply) jobLanded(db, job, result);
      return result;
    };
    return apply ? db.transaction(work).immediate() : work();
  } finally {
    db.close();
  }
});
