import iconv from 'iconv-lite';
import { closeSync, openSync, readSync, statSync } from 'node:fs';
import { headerWithMade, withMade, type MadeColumn } from '../../core/records/made-columns.ts';
import {
  guessShape,
  hasKnownTable,
  headingsOf,
  notData,
  standInGroups,
  type TableShape,
} from '../../core/records/table-shape.ts';
import { Problem } from '../../core/tape/problem.ts';
import { csvBlocks } from './csv-rows.ts';
import { encodingOf } from './encoding.ts';
import { kindOf, marked } from './file-kind.ts';
import { odsRows, odsSheets } from './workbook/ods.ts';
import { MOST_COLUMNS, type Sheet } from './workbook/sheets.ts';
import { xlsxRows, xlsxSheets } from './workbook/xlsx.ts';

/** How a file is read into rows of cells. */
export interface FileReading {
  kind: 'csv' | 'xlsx' | 'ods';
  encoding: string;
  delimiter: string;
  hasHeader: boolean;
  /** Of a workbook: the sheet with the rows. The first that is not hidden and has a table where left out. */
  sheet?: string | null;
  /** Rows above the headings, or above the first record where there are none. None where left out. */
  skip?: number;
  /** Two where a second row of headings stands under the first. */
  headerRows?: 0 | 1 | 2;
  /** Columns that are made of the file's own, which stand behind these. None where left out. */
  made?: readonly MadeColumn[];
}

export interface FilePreview extends FileReading {
  header: string[];
  rows: string[][];
  /** The first of the rows that are skipped. */
  above: string[][];
  bytes: number;
  /** Of a workbook: its sheets in their order. */
  sheets: Sheet[];
  /** Bytes that are no character in the encoding. */
  undecodable: number;
}

const SAMPLE_BYTES = 256 * 1024;
/** Rows by which columns are recognised. */
const SAMPLE_ROWS = 2000;
/** Cells of these rows; a file of thousands of columns is recognised by fewer rows. */
const MOST_SAMPLED = 500_000;
const MOST_ABOVE_SHOWN = 10;
const DELIMITERS = [',', ';', '\t', '|'];

/** A first line with which spreadsheets name the separator of the others; it is no row. */
const SEPARATOR = /^sep=([,;|\t])[\r\n]/i;

/** @throws Problem */
function checkColumns(columns: number): void {
  if (columns > MOST_COLUMNS)
    throw new Problem(
      'too-many-columns',
      `A row of the file has ${columns.toLocaleString('en-GB')} columns; at most ${MOST_COLUMNS.toLocaleString('en-GB')} are read. Is the delimiter right?`,
      { field: 'file', value: columns, rule: `at most ${MOST_COLUMNS.toLocaleString('en-GB')} columns` },
    );
}

/** Columns are made of those that the file has, and each has a name of its own. @throws Problem */
function checkMade(made: readonly MadeColumn[], header: readonly string[]): void {
  made.forEach((column, i) => {
    const beyond = column.way === 'same' ? undefined : column.of.find((at) => at >= header.length);
    if (beyond !== undefined)
      throw new Problem(
        'unknown-column',
        `The column “${column.heading}” is made of column ${beyond + 1}; the file has ${header.length}.`,
        { field: `made[${i}].of`, value: beyond, rule: 'the place of a column of the file, from 0' },
      );
    if (header.includes(column.heading) || made.findIndex(({ heading }) => heading === column.heading) < i)
      throw new Problem('column-twice', `There is a column “${column.heading}” already.`, {
        field: `made[${i}].heading`,
        value: column.heading,
        rule: 'a heading that no other column has',
      });
  });
}

/** The first rows of a file, or of a sheet of it. */
async function firstRows(path: string, reading: FileReading): Promise<string[][]> {
  const first: string[][] = [];
  let sampled = 0;
  const isEnough = () => first.length > SAMPLE_ROWS || sampled > MOST_SAMPLED;
  for await (const block of fileRows(path, reading)) {
    for (const cells of block) {
      if (isEnough()) break;
      first.push(cells);
      sampled += cells.length;
    }
    if (isEnough()) break;
  }
  return first;
}

/** Sheets in which a table is looked for. */
const MOST_SHEETS = 8;

/** The sheet that is read, with its first rows: the one asked for, else the first that has a table, since a page to be read may come before. */
async function sheetWithTable(
  sheets: readonly Sheet[],
  asked: string | null,
  read: (sheet: string | null) => Promise<string[][]>,
): Promise<{ sheet: string | null; first: string[][] }> {
  const seen = sheets.filter(({ hidden }) => !hidden);
  const sheet = asked ?? (seen[0] ?? sheets[0])?.name ?? null;
  const first = await read(sheet);
  if (asked !== null || seen.length < 2 || hasKnownTable(first)) return { sheet, first };
  for (const { name } of seen.slice(1, MOST_SHEETS)) {
    const rows = await read(name);
    if (hasKnownTable(rows)) return { sheet: name, first: rows };
  }
  return { sheet, first };
}

/** Recognises a file and reads its first rows. What is given in `wish` overrides what is recognised. @throws Problem */
export async function previewFile(path: string, wish: Partial<FileReading> = {}): Promise<FilePreview> {
  const bytes = statSync(path).size;
  if (bytes === 0)
    throw new Problem('empty-file', 'The file is empty: it has 0 bytes.', {
      field: 'file',
      rule: 'a CSV, XLSX or ODS file with rows',
    });
  const sample = readSample(path);
  const kind = await kindOf(path, sample);
  const written =
    kind === 'csv' ? writtenAs(path, sample, wish) : { encoding: 'utf-8', delimiter: ',', undecodable: 0 };
  const { encoding, delimiter, undecodable } = written;
  const sheets = kind === 'csv' ? [] : await sheetsOf(path, kind);
  if (wish.sheet != null && !sheets.some(({ name }) => name === wish.sheet))
    throw new Problem('unknown-sheet', `The workbook has no sheet “${wish.sheet}”.`, {
      field: 'sheet',
      value: wish.sheet,
      rule: sheets.map(({ name }) => name).join(', '),
    });
  const read = (sheet: string | null) =>
    firstRows(path, { kind, encoding, delimiter, hasHeader: false, sheet });
  const { sheet, first } = await sheetWithTable(sheets, wish.sheet ?? null, read);
  if (first.every(isBlank))
    throw new Problem('no-rows', 'The file has no rows with anything in them.', {
      field: 'file',
      rule: 'a header and at least one row',
    });
  const made = wish.made ?? [];
  const shape = shapeOf(first, wish);
  const headerRows = first.slice(shape.skip, shape.skip + shape.headerRows);
  const body = first.slice(shape.skip + shape.headerRows).filter((cells) => !isBlank(cells));
  const named = Math.max(...(headerRows.length ? headerRows : body.slice(0, 1)).map(widthOf), 0);
  // Columns that the header has without a name, and rows fill.
  const unnamed = Math.min(
    Math.max(0, ...headerRows.map((cells) => cells.length)),
    body.reduce((most, cells) => Math.max(most, widthOf(cells)), 0),
  );
  const width = unnamed <= named + MOST_UNNAMED ? Math.max(named, unnamed) : named;
  const own =
    shape.headerRows > 0
      ? headingsOf(headerRows, width)
      : Array.from({ length: width }, (_, i) => `Column ${i + 1}`);
  checkMade(made, own);
  if (body.length === 0)
    throw new Problem('no-rows', 'The file has a header but no rows under it.', {
      field: 'file',
      rule: 'at least one row under the header',
    });
  const inGroups = standInGroups(body, own.length);
  return {
    kind,
    encoding,
    delimiter,
    hasHeader: shape.headerRows > 0,
    headerRows: shape.headerRows,
    skip: shape.skip,
    sheet,
    sheets,
    header: headerWithMade(made, own),
    made,
    above: first
      .slice(0, shape.skip)
      .filter((cells) => !isBlank(cells))
      .slice(0, MOST_ABOVE_SHOWN),
    rows: body
      .filter((cells) => notData(cells, own, inGroups) === null)
      .map((cells) => (made.length ? withMade(made, cells, width) : cells)),
    bytes,
    undecodable,
  };
}

export const isBlank = (cells: readonly string[]) => cells.every((cell) => cell.trim() === '');

/** Columns without a name behind the others that are taken for columns. */
const MOST_UNNAMED = 20;

function widthOf(cells: readonly string[]): number {
  let width = cells.length;
  while (width > 0 && cells[width - 1]!.trim() === '') width--;
  return width;
}

/** Encoding and delimiter of a text file: as wished, or as all of it and its first lines show. */
function writtenAs(path: string, sample: Buffer, wish: Partial<FileReading>) {
  const found = marked(sample) ?? encodingOf(path);
  const encoding = wish.encoding ?? found.encoding;
  const text = iconv.decode(sample, encoding).replace(/^\ufeff/, '');
  return {
    encoding,
    delimiter: wish.delimiter ?? SEPARATOR.exec(text)?.[1] ?? delimiterOf(text),
    undecodable: encoding === found.encoding ? found.undecodable : 0,
  };
}

function shapeOf(
  rows: readonly string[][],
  { skip, hasHeader, headerRows }: Partial<FileReading>,
): TableShape {
  const guess = guessShape(skip === undefined ? rows : rows.slice(skip));
  const from = skip ?? guess.skip;
  if (headerRows !== undefined) return { skip: from, headerRows };
  if (hasHeader === undefined)
    return { skip: skip === undefined ? from : from + guess.skip, headerRows: guess.headerRows };
  return { skip: from, headerRows: hasHeader ? guess.headerRows || 1 : 0 };
}

async function sheetsOf(path: string, kind: 'xlsx' | 'ods'): Promise<Sheet[]> {
  try {
    return await (kind === 'ods' ? odsSheets(path) : xlsxSheets(path));
  } catch (error) {
    throw new Problem('broken-workbook', `The workbook cannot be read: ${(error as Error).message}`, {
      field: 'file',
      rule: 'a whole XLSX or ODS workbook',
    });
  }
}

/**
 * The rows of a file in blocks, headings and blank ones included. `onBytes` is told how far the file is read.
 * @throws Problem where the file itself is broken.
 */
export async function* fileRows(
  path: string,
  reading: FileReading,
  onBytes: (bytes: number) => void = () => {},
): AsyncGenerator<string[][]> {
  const blocks = reading.kind === 'csv' ? csvBlocks(path, reading, onBytes) : sheetBlocks(path, reading);
  for await (const block of blocks) {
    for (const cells of block) checkColumns(cells.length);
    yield block;
  }
}

/** A row between the headings and the end of a file that is not blank. */
export interface DataRow {
  /** Its number in the file, from 1, blank rows counted. */
  row: number;
  cells: string[];
  /** Why it is no record; null for records. */
  notData: ReturnType<typeof notData>;
}

/** The rows under the headings in blocks, each with its number in the file. @throws Problem where the file itself is broken */
export async function* dataRows(
  path: string,
  reading: FileReading,
  header: readonly string[],
  onBytes: (bytes: number) => void = () => {},
): AsyncGenerator<DataRow[]> {
  const above = (reading.skip ?? 0) + (reading.headerRows ?? (reading.hasHeader ? 1 : 0));
  const made = reading.made ?? [];
  const width = header.length - made.length;
  const own = header.slice(0, width);
  let row = 0;
  let inGroups: boolean | null = null;
  for await (const block of fileRows(path, reading, onBytes)) {
    const rows: DataRow[] = [];
    if (row + block.length > above)
      inGroups ??= standInGroups(
        block.slice(Math.max(0, above - row)).filter((cells) => !isBlank(cells)),
        width,
      );
    for (const came of block) {
      if (++row <= above || isBlank(came)) continue;
      const cells = made.length ? withMade(made, came, width) : came;
      rows.push({ row, cells, notData: notData(cells, own, inGroups!) });
    }
    yield rows;
  }
}

/** Rows of a sheet that are handed on together. */
const ROWS_A_BLOCK = 200;

/** The rows of a workbook's sheet. @throws Problem */
async function* sheetBlocks(path: string, { kind, sheet = null }: FileReading): AsyncGenerator<string[][]> {
  try {
    let block: string[][] = [];
    for await (const cells of kind === 'ods' ? odsRows(path, sheet) : xlsxRows(path, sheet)) {
      if (block.push(cells) < ROWS_A_BLOCK) continue;
      yield block;
      block = [];
    }
    if (block.length > 0) yield block;
  } catch (error) {
    if (error instanceof Problem) throw error;
    throw new Problem('broken-workbook', `The workbook cannot be read: ${(error as Error).message}`, {
      field: 'file',
      rule: 'an XLSX or ODS workbook with a sheet that has the rows',
    });
  }
}

function readSample(path: string): Buffer {
  const file = openSync(path, 'r');
  try {
    const buffer = Buffer.alloc(SAMPLE_BYTES);
    return buffer.subarray(0, readSync(file, buffer, 0, SAMPLE_BYTES, 0));
  } finally {
    closeSync(file);
  }
}

/** The delimiter that gives most rows the same number of cells, more than one. */
function delimiterOf(text: string): string {
  const lines = text
    .replace(/"[^"]*(?:"|$)/g, 'q')
    .split(/\r\n|\r|\n/)
    .filter(Boolean)
    .slice(0, 50);
  let best = ',';
  let most = 0;
  for (const delimiter of DELIMITERS) {
    const cells = (lines[0] ?? '').split(delimiter).length;
    if (cells < 2) continue;
    const same =
      lines.filter((line) => Math.abs(line.split(delimiter).length - cells) <= 0).length * Math.min(cells, 8);
    if (same > most) [best, most] = [delimiter, same];
  }
  return best;
}
