import { workerData } from 'node:worker_threads';
import { runFeed } from '../feed.ts';
import { csvText } from './csv-text.ts';
import { ROWS_A_BATCH, rowsPreparer, type ExportedRows } from './prepare.ts';
import type { FileOptions } from './writers/writer.ts';

/** A thread that makes every n-th batch of an export's rows as CSV. */

export interface CsvWorkerData extends ExportedRows {
  options: FileOptions;
  /** This thread makes batches `part`, `part + parts` … */
  part: number;
  parts: number;
}

export interface CsvBatch {
  text: Uint8Array;
  keys: string[];
  prints: Uint32Array;
}

const data = workerData as CsvWorkerData;
const { ids, part, parts, options } = data;

void runFeed<CsvBatch>((put) => {
  const source = rowsPreparer(data);
  for (let at = part * ROWS_A_BATCH; at < ids.length; at += parts * ROWS_A_BATCH) {
    const { rows, cells, prints } = source.at(at);
    put({
      text: Buffer.from(csvText(cells, { ...options, bom: false })),
      keys: rows.map(({ key }) => key),
      prints,
    });
  }
  source.close();
});
