import { stringify } from 'csv-stringify/sync';
import iconv from 'iconv-lite';
import { asyncBufferFromFile, parquetMetadataAsync, parquetReadObjects, parquetSchema } from 'hyparquet';
import {
  createReadStream,
  createWriteStream,
  openSync,
  readSync,
  closeSync,
  renameSync,
  rmSync,
  statSync,
  type WriteStream,
} from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { createInterface } from 'node:readline';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip } from 'node:zlib';
import { cellsOfWritten, subjectOfWritten } from '../../core/exports/row-cells.ts';
import { readVCards } from '../../core/records/contacts.ts';
import { Problem } from '../../core/tape/problem.ts';
import { encodingOf } from './encoding.ts';
import { marked } from './file-kind.ts';
import { cutLine, isRule, setLines, textColumns } from './fixed-width.ts';
import { tableOfHtml } from './html-table.ts';
import { flat, listIn, recordsIn, type Cells } from './json-records.ts';
import { Zip } from './workbook/zip.ts';

/**
 * Makes of an uploaded file one that is read as a table: unpacks archives, and writes JSON, GeoJSON, vCard, Parquet and text in
 * columns of fixed width as CSV.
 */

/** What an archive may unpack to. */
const MOST_UNPACKED = 2 * 2 ** 30;
/** Columns that the records of a JSON file may have together. */
const MOST_KEYS = 2000;
/** Characters of a file that is read whole. */
const MOST_WHOLE = 200 * 2 ** 20;

/**
 * Changes the file at a path in place until it is a CSV file or a workbook.
 * @returns what it was, for people; null where it was left as it is
 * @throws Problem
 */
export async function prepareFile(path: string): Promise<string | null> {
  const unpacked = await unpack(path);
  const start = headOf(path);
  const text = start
    .toString('utf8')
    .replace(/^\ufeff/, '')
    .trimStart();
  const table = start.subarray(0, 4).toString('latin1') === 'PAR1' ? 'Parquet' : kindOfText(text);
  if (table === 'Parquet') await parquetToCsv(path);
  else if (table === 'GeoJSON') await write(path, geoRows(parseWhole(path)));
  else if (table === 'JSON') await write(path, arrayRows(parseWhole(path)));
  else if (table === 'JSON Lines') await linesToCsv(path);
  else if (table === 'vCard') await write(path, cardRows(wholeText(path)));
  else if (table === 'HTML') await htmlToCsv(path);
  else if (table === 'XML') throw notRead('XML');
  else if (!start.includes(0) && (await setTextToCsv(path, start))) return 'text set in columns';
  return [unpacked, table].filter(Boolean).join(' of ') || null;
}

function headOf(path: string): Buffer {
  const buffer = Buffer.alloc(64 * 1024);
  const file = openSync(path, 'r');
  try {
    return buffer.subarray(0, readSync(file, buffer, 0, buffer.length, 0));
  } finally {
    closeSync(file);
  }
}

function kindOfText(text: string): 'GeoJSON' | 'JSON' | 'JSON Lines' | 'vCard' | 'HTML' | 'XML' | null {
  if (/^BEGIN:VCARD/i.test(text)) return 'vCard';
  if (/^<(?:!doctype html|html|head|body|table|meta|style)\b/i.test(text)) return 'HTML';
  if (/^<\?xml\b/i.test(text)) return /<html\b/i.test(text.slice(0, 2000)) ? 'HTML' : 'XML';
  if (text.startsWith('[')) return 'JSON';
  if (!text.startsWith('{')) return null;
  const first = text.split('\n', 1)[0]!;
  if (/"type"\s{0,8}:\s{0,8}"FeatureCollection"/.test(text.slice(0, 4000))) return 'GeoJSON';
  // An object on a line of its own may hold the list of records.
  const isOneOfLines =
    isRecord(first) && (text.trimEnd().includes('\n') || listIn(JSON.parse(first)) === null);
  return isOneOfLines ? 'JSON Lines' : 'JSON';
}

function isRecord(line: string): boolean {
  try {
    return typeof JSON.parse(line) === 'object';
  } catch {
    return false;
  }
}

async function unpack(path: string): Promise<string | null> {
  const start = headOf(path);
  if (start[0] === 0x1f && start[1] === 0x8b) {
    await replace(path, (to) =>
      pipeline(createReadStream(path), createGunzip(), limited(), createWriteStream(to)),
    );
    return 'gzip';
  }
  if (start.subarray(0, 4).toString('latin1') === 'PK\u0005\u0006')
    throw new Problem('wrong-archive', 'The archive is empty.', {
      field: 'file',
      rule: 'an archive of one file',
    });
  if (start.subarray(0, 4).toString('latin1') !== 'PK\u0003\u0004') return null;
  const zip = await Zip.open(path).catch((error: Error) => {
    throw new Problem('broken-archive', `The archive cannot be opened: ${error.message}`, {
      field: 'file',
      rule: 'a whole archive',
    });
  });
  try {
    // Workbooks are archives too; they are read as they are.
    if (zip.has('[Content_Types].xml') || zip.has('content.xml')) return null;
    const files = zip.names.filter((name) => !name.endsWith('/') && !/^__MACOSX\/|(^|\/)\./.test(name));
    if (files.length !== 1)
      throw new Problem(
        'wrong-archive',
        files.length === 0
          ? 'The archive has no file in it.'
          : `The archive has ${files.length} files: ${files.slice(0, 5).join(', ')}. Unpack it and choose one of them.`,
        { field: 'file', rule: 'an archive of one file' },
      );
    if (zip.isLocked(files[0]!))
      throw new Problem(
        'locked-file',
        'The archive is protected by a password. Unpack it, and choose the file in it.',
        {
          field: 'file',
          rule: 'an archive without a password',
        },
      );
    const stream = await zip.stream(files[0]!);
    await replace(path, (to) => pipeline(stream, limited(), createWriteStream(to)));
    return 'ZIP';
  } finally {
    zip.close();
  }
}

/** Lets as much through as an archive may unpack to. */
function limited(): Transform {
  let passed = 0;
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      passed += chunk.length;
      if (passed > MOST_UNPACKED)
        done(
          new Problem('too-large', `The archive unpacks to more than ${MOST_UNPACKED / 2 ** 30} GB.`, {
            field: 'file',
            rule: 'at most 2 GB unpacked',
          }),
        );
      else done(null, chunk);
    },
  });
}

async function replace(path: string, make: (to: string) => Promise<void>): Promise<void> {
  const part = `${path}.part`;
  try {
    await make(part);
    renameSync(part, path);
  } catch (error) {
    rmSync(part, { force: true });
    if (error instanceof Problem) throw error;
    throw new Problem('broken-file', `The file cannot be read: ${(error as Error).message}`, {
      field: 'file',
      rule: 'a whole file',
    });
  }
}

const drained = (file: WriteStream) => new Promise<void>((resolve) => file.once('drain', () => resolve()));

/** Writes records as a CSV file over the one they were read from; its columns are the keys. */
async function writeCsv(
  path: string,
  keys: ReadonlySet<string>,
  rows: Iterable<Cells> | AsyncIterable<Cells>,
): Promise<void> {
  await replace(path, async (to) => {
    const file = createWriteStream(to);
    file.write(stringify([[...keys]]));
    for await (const row of rows) if (!file.write(lineOf(row, keys))) await drained(file);
    await new Promise<void>((resolve) => file.end(resolve));
  });
}

/** Writes records that are all there; the columns are all keys in the order in which they come. */
async function write(path: string, rows: readonly Cells[]): Promise<void> {
  const keys = new Set<string>();
  for (const row of rows) addKeys(keys, row);
  await writeCsv(path, keys, rows);
}

function addKeys(keys: Set<string>, row: Cells): void {
  for (const key of Object.keys(row)) keys.add(key);
  if (keys.size > MOST_KEYS)
    throw new Problem('too-many-columns', `The records have more than ${MOST_KEYS} different keys.`, {
      field: 'file',
      rule: `records of at most ${MOST_KEYS} keys together`,
    });
}

function lineOf(row: Cells, keys: ReadonlySet<string>): string {
  return stringify([[...keys].map((key) => cellText(row[key]))]);
}

/** A value of JSON as a cell reads it. */
function cellText(value: unknown): string {
  if (value === null || value === undefined) return '';
  if (Array.isArray(value)) return value.map(cellText).join('; ');
  if (typeof value === 'number') return /\.\d{3}$/.test(String(value)) ? `${value}E0` : String(value);
  if (value instanceof Date) return value.toISOString().slice(0, 10);
  if (typeof value === 'object') return JSON.stringify(value);
  return `${value as string | boolean}`;
}

const wholeText = (path: string): string =>
  wholeBytes(path)
    .toString('utf8')
    .replace(/^\ufeff/, '');

function wholeBytes(path: string): Buffer {
  const chunks: Buffer[] = [];
  const file = openSync(path, 'r');
  try {
    for (let all = 0; ;) {
      const chunk = Buffer.alloc(1 << 20);
      const read = readSync(file, chunk, 0, chunk.length, null);
      if (read === 0) break;
      if ((all += read) > MOST_WHOLE)
        throw new Problem(
          'too-large',
          'The file is too large to be read at once. Save it as JSON Lines or CSV.',
          {
            field: 'file',
            rule: 'at most 200 MB',
          },
        );
      chunks.push(chunk.subarray(0, read));
    }
  } finally {
    closeSync(file);
  }
  return Buffer.concat(chunks);
}

function parseWhole(path: string): unknown {
  try {
    return JSON.parse(wholeText(path));
  } catch (error) {
    if (error instanceof Problem) throw error;
    throw broken(`JSON: ${(error as Error).message}`);
  }
}

function broken(why: string): Problem {
  return new Problem('broken-file', `The file cannot be read as ${why}`, {
    field: 'file',
    rule: 'a whole file',
  });
}

function arrayRows(parsed: unknown): Cells[] {
  const list = recordsIn(parsed);
  if (list === null) throw broken('JSON: it holds no list of records.');
  const cells = cellsOf(list[0]);
  return list.map(cells);
}

/** How the records of a file become cells, by the first of them: as exports write them where they were written here. */
function cellsOf(first: unknown): (record: unknown) => Cells {
  const subject = typeof first === 'object' && first !== null ? subjectOfWritten(first as Cells) : null;
  return (record) =>
    subject === null || typeof record !== 'object' || record === null || Array.isArray(record)
      ? flat(record)
      : cellsOfWritten(record as Cells, subject);
}

/** Features with points (RFC 7946): their properties, with latitude and longitude. */
function geoRows(parsed: unknown): Cells[] {
  const { features } = parsed as { features?: unknown };
  if (!Array.isArray(features)) throw broken('GeoJSON: it has no features.');
  return (features as { properties?: unknown; geometry?: { type?: string; coordinates?: number[] } }[]).map(
    ({ properties, geometry }) => ({
      ...flat(properties ?? {}),
      ...(geometry?.type === 'Point'
        ? { latitude: geometry.coordinates?.[1], longitude: geometry.coordinates?.[0] }
        : {}),
    }),
  );
}

/** Writes text that is set in columns as CSV, each line as a row; false where it is no such text. */
async function setTextToCsv(path: string, start: Buffer): Promise<boolean> {
  if (setLines(linesOf(start.toString('latin1'))) === null || statSync(path).size > MOST_WHOLE) return false;
  const lines = linesOf(iconv.decode(wholeBytes(path), encodingOf(path).encoding));
  const columns = textColumns(lines);
  if (columns === null) return false;
  const rows = lines.map((line) => (isRule(line) ? [] : cutLine(line, columns)));
  await replace(path, (to) => writeFile(to, stringify(rows)));
  return true;
}

const linesOf = (text: string) => text.replaceAll('\f', '').split(/\r\n|\r|\n/);

/** The table of a page, in the encoding that the page names or its bytes show. */
async function htmlToCsv(path: string): Promise<void> {
  const start = headOf(path);
  const named = /charset=["']?([\w-]+)/i.exec(start.toString('latin1'))?.[1];
  const encoding =
    marked(start)?.encoding ?? (named && iconv.encodingExists(named) ? named : encodingOf(path).encoding);
  const table = tableOfHtml(iconv.decode(wholeBytes(path), encoding));
  if (table === null)
    throw new Problem('wrong-file', 'This is a web page, and there is no table in it.', {
      field: 'file',
      rule: 'a page with a table, or a CSV, XLSX or ODS file',
    });
  await replace(path, (to) => writeFile(to, table));
}

function notRead(what: string): Problem {
  return new Problem(
    'wrong-file',
    `This is an ${what} file, which is not read. Open it in a spreadsheet program, save it as XLSX, ODS or CSV, and choose that.`,
    { field: 'file', rule: 'a CSV, XLSX or ODS file' },
  );
}

function cardRows(text: string): Cells[] {
  return readVCards(text).map((entry) => ({ ...entry }));
}

async function linesToCsv(path: string): Promise<void> {
  const lines = async function* () {
    let number = 0;
    let cells: ((record: unknown) => Cells) | null = null;
    for await (const line of createInterface({ input: createReadStream(path), crlfDelay: Infinity })) {
      number++;
      if (line.trim() === '') continue;
      let record: unknown;
      try {
        record = JSON.parse(line.replace(/^\ufeff/, ''));
      } catch {
        throw broken(`JSON Lines: line ${number} is no JSON.`);
      }
      cells ??= cellsOf(record);
      yield cells(record);
    }
  };
  const keys = new Set<string>();
  for await (const row of lines()) addKeys(keys, row);
  await writeCsv(path, keys, lines());
}

/** Rows of a Parquet file that are read at once. */
const ROWS_AT_ONCE = 10_000;

async function parquetToCsv(path: string): Promise<void> {
  const file = await asyncBufferFromFile(path);
  const metadata = await parquetMetadataAsync(file);
  const keys = new Set(parquetSchema(metadata).children.map(({ element }) => element.name));
  const rows = async function* () {
    for (let rowStart = 0; rowStart < Number(metadata.num_rows); rowStart += ROWS_AT_ONCE) {
      const rowEnd = Math.min(Number(metadata.num_rows), rowStart + ROWS_AT_ONCE);
      yield* await parquetReadObjects({ file, metadata, rowStart, rowEnd });
    }
  };
  await writeCsv(path, keys, rows());
}
