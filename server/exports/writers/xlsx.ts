import type ExcelJS from 'exceljs';
import type { ExportColumn } from '../../../core/exports/field-columns.ts';
import { HOW_TITLE, howMadeRows, LONGEST_CELL } from '../../../core/exports/how-made.ts';
import { apart } from '../../../core/exports/names.ts';
import type { FileRow, OpenWriter, WriterContext } from './writer.ts';

/** Rows of a sheet beside its heading. */
const ROWS_A_SHEET = 1_048_575;
/** Links that the program most people open workbooks with takes of one sheet. */
const MOST_LINKS = 65_000;
/** Control characters that XML forbids. */
const NOT_IN_XML = /(?![\t\n\r])\p{Cc}/gu;
const DAY = /^(\d{4})-(\d{2})-(\d{2})$/;

const ESTIMATE = { italic: true, color: { argb: 'FF8A5A00' } } as const;
const CHANGED = { type: 'pattern', pattern: 'solid', fgColor: { argb: 'FFE7EEDC' } } as const;

export const openXlsx: OpenWriter = async ({ path, columns, how, count, charts }) => {
  // Loaded where it is needed: it takes as long as writing a small file.
  const { default: excel } = await import('exceljs');
  const book = new excel.stream.xlsx.WorkbookWriter({ filename: path, useStyles: true });
  const headings = apart(columns.map(({ heading }) => heading));
  const linked = columns.map(({ id }) => id === 'web' || id === 'mail' || id.endsWith('-mail'));
  const links = count * linked.filter(Boolean).length <= MOST_LINKS;
  let sheets = 0;
  const newSheet = () => {
    const sheet = book.addWorksheet(++sheets === 1 ? how.many : `${how.many} ${sheets}`, {
      views: [{ state: 'frozen', ySplit: 1 }],
    });
    sheet.columns = columns.map((column, i) => ({
      header: headings[i]!,
      width: Math.max(column.width, headings[i]!.length + 4),
      style: { numFmt: numberFormat(column) },
    }));
    sheet.getRow(1).font = { bold: true };
    sheet.getRow(1).commit();
    return sheet;
  };
  let sheet = newSheet();
  const endSheet = (rows: number) => {
    sheet.autoFilter = { from: { row: 1, column: 1 }, to: { row: rows + 1, column: columns.length } };
    sheet.commit();
  };
  let written = 0;
  const put = ({ row, cells, changed }: FileRow) => {
    const added = sheet.addRow(cells.map((value, i) => cellOf(columns[i]!, value, links && linked[i]!)));
    columns.forEach((column, i) => {
      if (column.range && typeof cells[i] === 'number' && column.range(row)) {
        const cell = added.getCell(i + 1);
        cell.font = ESTIMATE;
        cell.numFmt = `"≈ "${numberFormat(column)}`;
      }
    });
    for (const i of changed ?? []) added.getCell(i + 1).fill = CHANGED;
    added.commit();
  };
  return {
    add: async (rows) => {
      for (const row of rows) {
        if (written > 0 && written % ROWS_A_SHEET === 0) {
          endSheet(ROWS_A_SHEET);
          sheet = newSheet();
        }
        put(row);
        written++;
      }
      // Lets what is written flow to the disk.
      await new Promise((resolve) => setImmediate(resolve));
    },
    finish: async () => {
      endSheet(written === 0 ? 0 : 1 + ((written - 1) % ROWS_A_SHEET));
      if (charts.length) addCharts(book, charts);
      const made = book.addWorksheet(HOW_TITLE);
      made.columns = [{ width: 34 }, { width: 90 }, { width: 12 }, { width: 40 }];
      for (const cells of howMadeRows(how)) made.addRow(cells.map(plainCell)).commit();
      made.commit();
      await book.commit();
    },
    leave: () => {},
  };
};

/** A bar from zero. The types of the package forget its colour, without which other programs refuse it. */
const BAR = {
  type: 'dataBar',
  priority: 1,
  gradient: false,
  cfvo: [{ type: 'num', value: 0 }, { type: 'max' }],
  color: { argb: 'FFCBBFA8' },
} as ExcelJS.ConditionalFormattingRule;

/** The Breakdown as tables one below the other, their counts drawn as bars from zero. */
function addCharts(book: ExcelJS.stream.xlsx.WorkbookWriter, charts: WriterContext['charts']): void {
  const sheet = book.addWorksheet('Breakdown');
  sheet.columns = [{ width: 44 }, { width: 26 }, { width: 26 }];
  let at = 1;
  for (const { title, measure, many, rows } of charts) {
    const heading = sheet.addRow([title, many, ...(measure ? [measure] : [])]);
    heading.font = { bold: true };
    heading.commit();
    for (const { name, count, value } of rows) {
      const row = sheet.addRow([plainCell(name), count, ...(value === null ? [] : [value])]);
      row.getCell(2).numFmt = '#,##0';
      row.getCell(3).numFmt = '#,##0.##';
      row.commit();
    }
    if (rows.length)
      sheet.addConditionalFormatting({
        ref: `B${at + 1}:B${at + rows.length}`,
        rules: [BAR],
      });
    sheet.addRow([]).commit();
    at += rows.length + 2;
  }
  sheet.commit();
}

/** How a sheet shows the figures of a column: with thousands, digits and the currency or percent sign. */
function numberFormat({ kind, digits, unit, year }: ExportColumn): string {
  if (kind === 'date') return 'yyyy-mm-dd';
  if (kind !== 'number' || year) return 'General';
  const figure = digits ? `#,##0.${'0'.repeat(digits)}` : '#,##0';
  if (unit === '%') return `${figure}" %"`;
  return unit && /^[A-Z]{3}$/.test(unit) ? `${figure}\\ [$${unit}]` : figure;
}

function cellOf(column: ExportColumn, value: string | number | null, link: boolean): ExcelJS.CellValue {
  const day = column.kind === 'date' && typeof value === 'string' ? DAY.exec(value) : null;
  if (day) return new Date(Date.UTC(Number(day[1]), Number(day[2]) - 1, Number(day[3])));
  if (link && typeof value === 'string' && value !== '') {
    const text = plainCell(value) as string;
    const address = column.id === 'web' ? `https://${text.replace(/^https?:\/\//, '')}` : `mailto:${text}`;
    // An address that none would be is shown as it is.
    return /\s/.test(text) ? text : { text, hyperlink: address };
  }
  return plainCell(value);
}

function plainCell(value: string | number | null): string | number | null {
  return typeof value === 'string' ? value.replace(NOT_IN_XML, '').slice(0, LONGEST_CELL) : value;
}
