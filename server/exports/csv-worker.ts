import { workerData } from 'node:worker_threads';
import { exportColumns } from '../../core/exports/columns.ts';
import { openUniverse } from '../db/open.ts';
import type { OwnColumns } from '../engine/subject-engine.ts';
import { runFeed } from '../feed.ts';
import { csvText } from './csv-text.ts';
import { exportRows, ROWS_A_BATCH } from './export-rows.ts';

/** A thread that makes every n-th batch of an export's rows as CSV. */

export interface CsvWorkerData extends Record<string, unknown> {
  dir: string;
  subject: string;
  fields: string[];
  own: OwnColumns;
  headings: Record<string, string>;
  ids: Uint32Array;
  currency: string;
  delimiter: string;
  asOf: number;
  /** This thread makes batches `part`, `part + parts` … */
  part: number;
  parts: number;
}

const { dir, subject, fields, own, headings, ids, currency, delimiter, asOf, part, parts } =
  workerData as CsvWorkerData;
const db = openUniverse(dir, { readonly: true });
const rows = exportRows(db, subject, asOf, ids, fields, own);
const columns = exportColumns(subject, fields, currency, headings);

await runFeed<Uint8Array>((put) => {
  for (let at = part * ROWS_A_BATCH; at < ids.length; at += parts * ROWS_A_BATCH) {
    const records = rows(at).map((row) => columns.map((column) => column.value(row) ?? ''));
    put(Buffer.from(csvText(records, { delimiter })));
  }
});
db.close();
