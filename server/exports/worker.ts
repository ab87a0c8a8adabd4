import { mkdirSync, renameSync, rmSync } from 'node:fs';
import { open } from 'node:fs/promises';
import { dirname } from 'node:path';
import { workerData } from 'node:worker_threads';
import type { Row } from '../../core/cells.ts';
import { dayOf } from '../../core/dates.ts';
import { exportColumns, type ExportColumn } from '../../core/exports/columns.ts';
import { howMadeRows, type HowMade } from '../../core/exports/how-made.ts';
import { openUniverse } from '../db/open.ts';
import type { OwnColumns } from '../engine/subject-engine.ts';
import { feed } from '../feed.ts';
import { runJob, stopIfCancelled, tellProgress } from '../jobs/thread.ts';
import { csvText } from './csv-text.ts';
import type { CsvWorkerData } from './csv-worker.ts';
import { exportRows, ROWS_A_BATCH } from './export-rows.ts';

/** The thread that writes an export, some rows at a time, so that memory does not grow with the list. */

export interface ExportWorkerData {
  dir: string;
  path: string;
  format: 'csv' | 'xlsx';
  subject: string;
  fields: string[];
  /** Columns of the tape's own, beside `ids`, and their headings. */
  own: OwnColumns;
  headings: Record<string, string>;
  ids: Uint32Array;
  delimiter: string;
  bom: boolean;
  currency: string;
  how: HowMade;
}

/** Threads that make CSV; one a core of the smallest machine meant. */
const CSV_THREADS = 2;
const ROWS_A_SHEET = 1_048_575;
/** Control characters that XML forbids. */
const NOT_IN_XML = /(?![\t\n\r])\p{Cc}/gu;
/** Characters a cell may hold. */
const LONGEST_CELL = 32_767;
const DAY = /^(\d{4})-(\d{2})-(\d{2})$/;

async function writeExport(data: ExportWorkerData): Promise<Record<string, unknown>> {
  const partial = `${data.path}.part`;
  mkdirSync(dirname(data.path), { recursive: true });
  try {
    await (data.format === 'csv' ? writeCsv(partial, data) : writeXlsx(partial, data));
    stopIfCancelled();
    renameSync(partial, data.path);
  } catch (error) {
    rmSync(partial, { force: true });
    throw error;
  }
  tellProgress(data.ids.length, data.ids.length);
  return { count: data.ids.length };
}

/** Writes what the CSV threads make, each every other batch, in order. */
async function writeCsv(path: string, data: ExportWorkerData): Promise<void> {
  const { dir, subject, fields, own, headings, ids, currency, delimiter, bom, how } = data;
  const file = await open(path, 'w');
  const feeds = Array.from({ length: CSV_THREADS }, (_, part) =>
    feed<Uint8Array>('server/exports/csv-worker', {
      dir,
      subject,
      fields,
      own,
      headings,
      ids,
      currency,
      delimiter,
      asOf: dayOf(how.asOf)!,
      part,
      parts: CSV_THREADS,
    } satisfies CsvWorkerData),
  );
  try {
    await file.appendFile(
      csvText([exportColumns(subject, fields, currency, headings).map((column) => column.heading)], {
        delimiter,
        bom,
      }),
    );
    for (let batch = 0; batch * ROWS_A_BATCH < ids.length; batch++) {
      stopIfCancelled();
      tellProgress(batch * ROWS_A_BATCH, ids.length);
      const made = await feeds[batch % CSV_THREADS]!.next();
      await file.appendFile(made.value as Uint8Array);
    }
  } finally {
    await Promise.all(feeds.map((one) => one.return(undefined)));
    await file.close();
  }
}

/** Rows of the export, read some at a time. */
function* rowsOf({ dir, subject, ids, fields, own, how }: ExportWorkerData): Generator<Row> {
  const db = openUniverse(dir, { readonly: true });
  try {
    const rows = exportRows(db, subject, dayOf(how.asOf)!, ids, fields, own);
    for (let at = 0; at < ids.length; at += ROWS_A_BATCH) {
      stopIfCancelled();
      tellProgress(at, ids.length);
      yield* rows(at);
    }
  } finally {
    db.close();
  }
}

async function writeXlsx(path: string, data: ExportWorkerData): Promise<void> {
  const columns = exportColumns(data.subject, data.fields, data.currency, data.headings);
  // Loaded where it is needed: it takes as long as writing a small file.
  const { default: ExcelJS } = await import('exceljs');
  const book = new ExcelJS.stream.xlsx.WorkbookWriter({ filename: path, useStyles: true });
  let sheets = 0;
  const newSheet = () => {
    const sheet = book.addWorksheet(++sheets === 1 ? data.how.many : `${data.how.many} ${sheets}`, {
      views: [{ state: 'frozen', ySplit: 1 }],
    });
    sheet.columns = columns.map((column) => ({
      header: column.heading,
      width: Math.max(column.width, column.heading.length + 2),
      style:
        column.kind === 'date'
          ? { numFmt: 'yyyy-mm-dd' }
          : column.kind === 'number' && !column.heading.endsWith('year') && column.heading !== 'Founded'
            ? { numFmt: column.digits ? `#,##0.${'0'.repeat(column.digits)}` : '#,##0' }
            : {},
    }));
    sheet.getRow(1).font = { bold: true };
    sheet.getRow(1).commit();
    return sheet;
  };
  let sheet = newSheet();
  let written = 0;
  for (const row of rowsOf(data)) {
    if (written > 0 && written % ROWS_A_SHEET === 0) {
      sheet.commit();
      sheet = newSheet();
    }
    sheet.addRow(columns.map((column) => cellOf(column, row))).commit();
    if (++written % 2000 === 0) await new Promise((resolve) => setImmediate(resolve));
  }
  sheet.commit();
  const made = book.addWorksheet('How this list was made');
  made.columns = [{ width: 28 }, { width: 90 }, { width: 12 }, { width: 40 }];
  for (const cells of howMadeRows(data.how)) made.addRow(cells).commit();
  made.commit();
  await book.commit();
}

function cellOf(column: ExportColumn, row: Row): string | number | Date | null {
  const value = column.value(row);
  const day = column.kind === 'date' && typeof value === 'string' ? DAY.exec(value) : null;
  if (day) return new Date(Date.UTC(Number(day[1]), Number(day[2]) - 1, Number(day[3])));
  return typeof value === 'string' ? value.replace(NOT_IN_XML, '').slice(0, LONGEST_CELL) : value;
}

void runJob(() => writeExport(workerData as ExportWorkerData));
