import { workerData } from 'node:worker_threads';
import { Coverage, type CoverageCell } from '../../core/records/coverage.ts';
import { openUniverse } from '../db/open.ts';
import { runJob, stopIfCancelled, tellProgress } from '../jobs/thread.ts';
import { loadCodeTrees, loadGazetteer } from '../reference.ts';
import { RecordReader } from './remake.ts';

/** The thread that counts what each source knows, by reading every record of companies. */

export interface CoverageJobData extends Record<string, unknown> {
  dir: string;
  /** Days since 1970. */
  today: number;
}

export interface CoverageResult extends Record<string, unknown> {
  cells: CoverageCell[];
}

void runJob(() => {
  const { dir, today } = workerData as CoverageJobData;
  const db = openUniverse(dir, { readonly: true });
  try {
    const coverage = new Coverage(today);
    const reader = new RecordReader(db, loadCodeTrees(), loadGazetteer());
    const total = db.prepare<[], number>('SELECT count(*) FROM record').pluck().get()!;
    let done = 0;
    for (const { source, record } of reader.all()) {
      coverage.add(source, reader.sourceRow(source).as_of, record);
      if (++done % 5000 === 0) {
        stopIfCancelled();
        tellProgress(done, total, 'records read');
      }
    }
    return { cells: coverage.result() } satisfies CoverageResult;
  } finally {
    db.close();
  }
});
