import { stringify } from 'csv-stringify';
import ExcelJS from 'exceljs';
import { createWriteStream, mkdirSync, renameSync, rmSync } from 'node:fs';
import { once } from 'node:events';
import { dirname } from 'node:path';
import { workerData } from 'node:worker_threads';
import type { Row } from '../../core/cells.ts';
import { exportColumns, type ExportColumn } from '../../core/exports/columns.ts';
import { howMadeRows, type HowMade } from '../../core/exports/how-made.ts';
import { openUniverse } from '../db/open.ts';
import { RowSource } from '../engine/read-rows.ts';
import { universeLookup } from '../engine/universe-lookup.ts';
import { runJob, stopIfCancelled, tellProgress } from '../jobs/thread.ts';
import { loadCodeSearches, loadCodeTrees, loadGazetteer } from '../reference.ts';

/** The thread that writes an export, a row at a time, so that memory does not grow with the list. */

export interface ExportWorkerData {
  dir: string;
  path: string;
  format: 'csv' | 'xlsx';
  fields: string[];
  ids: Uint32Array;
  delimiter: string;
  bom: boolean;
  currency: string;
  how: HowMade;
}

const ROWS_A_SHEET = 1_048_575;
/** Control characters that XML forbids. */
const NOT_IN_XML = /(?![\t\n\r])\p{Cc}/gu;
/** Characters a cell may hold. */
const LONGEST_CELL = 32_767;
const DAY = /^(\d{4})-(\d{2})-(\d{2})$/;

async function writeExport(data: ExportWorkerData): Promise<Record<string, unknown>> {
  const db = openUniverse(data.dir, { readonly: true });
  const trees = loadCodeTrees();
  const rows = new RowSource(
    db,
    universeLookup(db, { trees, searches: loadCodeSearches(trees), places: loadGazetteer() }, 0, {
      columns: new Map(),
    }),
  );
  const columns = exportColumns('companies', data.fields, data.currency);
  const partial = `${data.path}.part`;
  mkdirSync(dirname(data.path), { recursive: true });
  function* each(): Generator<Row> {
    for (let i = 0; i < data.ids.length; i++) {
      if (i % 500 === 0) {
        stopIfCancelled();
        tellProgress(i, data.ids.length);
      }
      yield rows.row(data.ids[i]!, data.fields);
    }
  }
  try {
    await (data.format === 'csv'
      ? writeCsv(partial, each(), columns, data)
      : writeXlsx(partial, each(), columns, data.how));
    stopIfCancelled();
    renameSync(partial, data.path);
  } catch (error) {
    rmSync(partial, { force: true });
    throw error;
  } finally {
    db.close();
  }
  tellProgress(data.ids.length, data.ids.length);
  return { count: data.ids.length };
}

/** Cells that a spreadsheet would run as a formula begin with an apostrophe. */
async function writeCsv(
  path: string,
  rows: Iterable<Row>,
  columns: ExportColumn[],
  options: { delimiter: string; bom: boolean },
): Promise<void> {
  const out = createWriteStream(path);
  const csv = stringify({
    delimiter: options.delimiter,
    escape_formulas: true,
    record_delimiter: 'windows',
    bom: options.bom,
  });
  const finished = once(csv.pipe(out), 'finish');
  csv.write(columns.map((column) => column.heading));
  for (const row of rows)
    if (!csv.write(columns.map((column) => column.value(row) ?? ''))) await once(csv, 'drain');
  csv.end();
  await finished;
}

async function writeXlsx(
  path: string,
  rows: Iterable<Row>,
  columns: ExportColumn[],
  how: HowMade,
): Promise<void> {
  const book = new ExcelJS.stream.xlsx.WorkbookWriter({ filename: path, useStyles: true });
  let sheets = 0;
  const newSheet = () => {
    const sheet = book.addWorksheet(++sheets === 1 ? 'Companies' : `Companies ${sheets}`, {
      views: [{ state: 'frozen', ySplit: 1 }],
    });
    sheet.columns = columns.map((column) => ({
      header: column.heading,
      width: Math.max(column.width, column.heading.length + 2),
      style:
        column.kind === 'date'
          ? { numFmt: 'yyyy-mm-dd' }
          : column.kind === 'number' && !column.heading.endsWith('year') && column.heading !== 'Founded'
            ? { numFmt: '#,##0' }
            : {},
    }));
    sheet.getRow(1).font = { bold: true };
    sheet.getRow(1).commit();
    return sheet;
  };
  let sheet = newSheet();
  let written = 0;
  for (const row of rows) {
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
  for (const cells of howMadeRows(how)) made.addRow(cells).commit();
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
