import { GATHER_FIELDS, headingOf } from '../../core/gather/fields.ts';
import { safeText } from '../../core/exports/safe-text.ts';
import type { Db } from '../db/open.ts';
import { csvText } from '../exports/csv-text.ts';
import { fieldsOfRun, recordsOf } from '../tables/gather/gathered.ts';

export const SHEET_FORMATS = ['csv', 'xlsx', 'jsonl'] as const;
export type SheetFormat = (typeof SHEET_FORMATS)[number];

/** What each record carries of how it was found. */
const FOUND_BY = ['Found by', 'Page', 'Read on'] as const;

/** Fields that records of a run have: those of companies in their order, then one's own. */
export function fieldsInOrder(db: Db, run: string): string[] {
  const known = Object.keys(GATHER_FIELDS);
  const place = (field: string) => (known.includes(field) ? known.indexOf(field) : known.length);
  return [...fieldsOfRun(db, run).keys()].sort((a, b) => place(a) - place(b) || (a < b ? -1 : 1));
}

/** The records of a run as a file, each with the words and places that found it, its page and the day. */
export async function sheetOf(db: Db, run: string, format: SheetFormat): Promise<Uint8Array> {
  const fields = fieldsInOrder(db, run);
  const header = [...fields.map(headingOf), ...FOUND_BY];
  const rows = [...recordsOf(db, run)].map(({ values, tags, url, at }) => [
    ...fields.map((field) => values[field] ?? null),
    tags.join('; '),
    url,
    new Date(at).toISOString().slice(0, 10),
  ]);
  if (format === 'csv') return Buffer.from(csvText([header, ...rows], { delimiter: ',', bom: true }));
  if (format === 'jsonl')
    return Buffer.from(
      rows
        .map((row) => `${JSON.stringify(Object.fromEntries(header.map((name, i) => [name, row[i]])))}\n`)
        .join(''),
    );
  const { default: excel } = await import('exceljs');
  const book = new excel.Workbook();
  const sheet = book.addWorksheet('Gathered', { views: [{ state: 'frozen', ySplit: 1 }] });
  sheet.addRow(header).font = { bold: true };
  rows.forEach((row) => sheet.addRow(row.map((cell) => (cell === null ? null : safeText(cell)))));
  sheet.columns.forEach((column, i) => (column.width = Math.max(14, header[i]!.length + 4)));
  sheet.autoFilter = { from: { row: 1, column: 1 }, to: { row: rows.length + 1, column: header.length } };
  return Buffer.from(await book.xlsx.writeBuffer());
}
