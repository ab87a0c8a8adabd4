import { parse } from 'csv-parse';
import iconv from 'iconv-lite';
import jschardet from 'jschardet';
import { checkArchive } from './archive.ts';
import { createReadStream, openSync, readSync, closeSync, statSync } from 'node:fs';
import { Problem } from '../../core/tape/problem.ts';
import { looksLikeHeader } from '../../core/records/mapping.ts';

/** How a file is read into rows of cells. */
export interface FileReading {
  kind: 'csv' | 'xlsx';
  encoding: string;
  delimiter: string;
  hasHeader: boolean;
}

export interface FilePreview extends FileReading {
  header: string[];
  rows: string[][];
  bytes: number;
}

const SAMPLE_BYTES = 256 * 1024;
const SAMPLE_ROWS = 200;
const DELIMITERS = [',', ';', '\t', '|'];
/** As many as a sheet of a workbook can have. */
const MOST_COLUMNS = 16_384;

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

/** Recognises a file and reads its first rows. What is given in `wish` overrides what is recognised. @throws Problem */
export async function previewFile(path: string, wish: Partial<FileReading> = {}): Promise<FilePreview> {
  const bytes = statSync(path).size;
  if (bytes === 0)
    throw new Problem('empty-file', 'The file is empty: it has 0 bytes.', {
      field: 'file',
      rule: 'a CSV or XLSX file with rows',
    });
  const sample = readSample(path);
  const kind = kindOf(sample);
  if (kind === 'xlsx') await checkArchive(path);
  const encoding = wish.encoding ?? (kind === 'xlsx' ? 'utf-8' : encodingOf(sample));
  const text = kind === 'xlsx' ? '' : decodeSample(sample, encoding);
  const delimiter =
    wish.delimiter ?? (kind === 'xlsx' ? ',' : (SEPARATOR.exec(text)?.[1] ?? delimiterOf(text)));
  const rows: string[][] = [];
  for await (const cells of fileRows(path, { kind, encoding, delimiter, hasHeader: false })) {
    rows.push(cells);
    if (rows.length > SAMPLE_ROWS) break;
  }
  const first = rows[0];
  if (!first || rows.every((cells) => cells.every((cell) => cell.trim() === '')))
    throw new Problem('no-rows', 'The file has no rows with anything in them.', {
      field: 'file',
      rule: 'a header and at least one row',
    });
  const hasHeader = wish.hasHeader ?? looksLikeHeader(first, rows[1]);
  const header = hasHeader ? first.map((cell) => cell.trim()) : first.map((_, i) => `Column ${i + 1}`);
  const body = hasHeader ? rows.slice(1) : rows;
  if (body.length === 0)
    throw new Problem('no-rows', 'The file has a header but no rows under it.', {
      field: 'file',
      rule: 'at least one row under the header',
    });
  return { kind, encoding, delimiter, hasHeader, header, rows: body, bytes };
}

/**
 * The rows of a file, header included, one at a time. `onBytes` is told how far the file is read.
 * @throws Problem where the file itself is broken.
 */
export async function* fileRows(
  path: string,
  reading: FileReading,
  onBytes: (bytes: number) => void = () => {},
): AsyncGenerator<string[]> {
  if (reading.kind === 'xlsx') yield* sheetRows(path);
  else yield* csvRows(path, reading, onBytes);
}

async function* csvRows(
  path: string,
  reading: FileReading,
  onBytes: (bytes: number) => void,
): AsyncGenerator<string[]> {
  const file = createReadStream(path, { highWaterMark: 1 << 18 });
  let bytes = 0;
  file.on('data', (chunk) => onBytes((bytes += chunk.length)));
  const parser = parse({
    delimiter: reading.delimiter,
    bom: true,
    relax_column_count: true,
    relax_quotes: true,
    skip_empty_lines: true,
    // All of them, since files put together of several have several.
    record_delimiter: ['\r\n', '\n', '\r'],
    max_record_size: 4 * 2 ** 20,
  });
  const decoded = file.pipe(iconv.decodeStream(reading.encoding));
  decoded.on('error', (error: Error) => parser.destroy(error));
  file.on('error', (error) => parser.destroy(error));
  decoded.pipe(parser);
  try {
    let first = true;
    for await (const cells of parser) {
      const names = first && /^sep=.?$/i.test((cells as string[]).join(reading.delimiter));
      first = false;
      if (names) continue;
      checkColumns((cells as string[]).length);
      yield cells as string[];
    }
  } catch (error) {
    if (error instanceof Problem) throw error;
    const { code, lines } = error as { code?: string; lines?: number };
    if (code === 'CSV_QUOTE_NOT_CLOSED')
      throw new Problem(
        'broken-csv',
        `A quotation mark is opened and never closed (the reader got to line ${lines}).`,
        { field: 'file', rule: 'quotation marks in pairs' },
      );
    if (code === 'CSV_MAX_RECORD_SIZE')
      throw new Problem(
        'broken-csv',
        `One row is larger than 4 MB (about line ${lines}); is the delimiter or a quotation mark wrong?`,
        { field: 'file', rule: 'rows of at most 4 MB' },
      );
    throw code?.startsWith('CSV_')
      ? new Problem('broken-csv', `The file cannot be read as CSV: ${(error as Error).message}`, {
          field: 'file',
        })
      : error;
  } finally {
    file.destroy();
  }
}

async function* sheetRows(path: string): AsyncGenerator<string[]> {
  // Loaded where it is needed: it takes as long as reading a small file.
  const { default: ExcelJS } = await import('exceljs');
  const reader = new ExcelJS.stream.xlsx.WorkbookReader(path, {
    worksheets: 'emit',
    sharedStrings: 'cache',
    styles: 'cache',
    hyperlinks: 'ignore',
  });
  try {
    for await (const sheet of reader) {
      for await (const row of sheet) {
        const values = row.values as unknown[];
        checkColumns(values.length - 1);
        yield Array.from({ length: values.length - 1 }, (_, i) => cellText(values[i + 1]));
      }
      return;
    }
  } catch (error) {
    if (error instanceof Problem) throw error;
    // The reader stumbles over workbooks that leave out what they may leave out, such as where each cell stands.
    const why =
      error instanceof TypeError
        ? 'it is written in a form that is not understood. Open it in a spreadsheet program, save it as XLSX or CSV, and choose that.'
        : (error as Error).message;
    throw new Problem('broken-xlsx', `The workbook cannot be read: ${why}`, {
      field: 'file',
      rule: 'an XLSX workbook whose first sheet has the rows',
    });
  }
}

function cellText(value: unknown): string {
  if (value === null || value === undefined) return '';
  if (value instanceof Date) return value.toISOString().slice(0, 10);
  if (typeof value === 'object') {
    const { text, result, richText } = value as {
      text?: unknown;
      result?: unknown;
      richText?: { text: string }[];
    };
    return richText ? richText.map((part) => part.text).join('') : cellText(result ?? text);
  }
  return typeof value === 'string' ? value : JSON.stringify(value);
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

const PICTURES: [string, number[]][] = [
  ['a PNG picture', [0x89, 0x50, 0x4e, 0x47]],
  ['a JPEG picture', [0xff, 0xd8, 0xff]],
  ['a GIF picture', [0x47, 0x49, 0x46, 0x38]],
  ['a PDF document', [0x25, 0x50, 0x44, 0x46]],
  ['an old XLS workbook; save it as XLSX or CSV', [0xd0, 0xcf, 0x11, 0xe0]],
  ['a gzip archive; unpack it first', [0x1f, 0x8b]],
];

function kindOf(sample: Buffer): 'csv' | 'xlsx' {
  for (const [what, start] of PICTURES)
    if (start.every((byte, i) => sample[i] === byte))
      throw new Problem('wrong-file', `This is no table but ${what}, whatever its name says.`, {
        field: 'file',
        rule: 'a CSV or XLSX file',
      });
  if (sample.subarray(0, 4).equals(Buffer.from([0x50, 0x4b, 3, 4]))) return 'xlsx';
  const utf16 = sample[0] === 0xff || sample[0] === 0xfe || nullShare(sample) > 0.2;
  if (!utf16 && sample.includes(0))
    throw new Problem('wrong-file', 'This is no text file: it holds zero bytes.', {
      field: 'file',
      rule: 'a CSV or XLSX file',
    });
  return 'csv';
}

function nullShare(sample: Buffer): number {
  let nulls = 0;
  for (const byte of sample) if (byte === 0) nulls++;
  return nulls / sample.length;
}

function encodingOf(sample: Buffer): string {
  if (sample[0] === 0xff && sample[1] === 0xfe) return 'utf-16le';
  if (sample[0] === 0xfe && sample[1] === 0xff) return 'utf-16be';
  if (nullShare(sample) > 0.2) return sample[0] === 0 ? 'utf-16be' : 'utf-16le';
  const cut = sample.length < SAMPLE_BYTES ? sample : sample.subarray(0, sample.lastIndexOf(10) + 1);
  if (!iconv.decode(cut, 'utf-8').includes('\ufffd')) return 'utf-8';
  const guess = (jschardet.detect(cut).encoding ?? '').toLowerCase();
  return /1250|8859-2/.test(guess) ? 'windows-1250' : centralEuropean(cut) ? 'windows-1250' : 'windows-1252';
}

/** Bytes that are common letters of Czech, Polish and Hungarian in Windows-1250 and rare marks in Windows-1252. */
function centralEuropean(sample: Buffer): boolean {
  let central = 0;
  let western = 0;
  for (const byte of sample) {
    if (
      [0x9a, 0x9e, 0x9d, 0xe8, 0xec, 0xf8, 0xf9, 0xb3, 0xb9, 0xea, 0xbf, 0xf5, 0xfb, 0x9c, 0x9f].includes(
        byte,
      )
    )
      central++;
    else if ([0xe4, 0xf6, 0xfc, 0xdf, 0xe0, 0xe7, 0xe5, 0xe6, 0xf1].includes(byte)) western++;
  }
  return central > western;
}

function decodeSample(sample: Buffer, encoding: string): string {
  return iconv.decode(sample, encoding).replace(/^\ufeff/, '');
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
