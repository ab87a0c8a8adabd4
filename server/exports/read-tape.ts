import Database from 'better-sqlite3';
import { parquetMetadataAsync, asyncBufferFromFile } from 'hyparquet';
import { open, readFile } from 'node:fs/promises';
import { HOW_TITLE, tapeInRows } from '../../core/exports/how-made.ts';
import { odsRows } from '../load/workbook/ods.ts';
import { xlsxRows } from '../load/workbook/xlsx.ts';
import { Zip } from '../load/workbook/zip.ts';
import { TAPE_KEY } from './writers/parquet.ts';
import { tapeInPdf } from './writers/pdf-tape.ts';

/** Bytes that a tape file, or the head of a GeoJSON file, is looked for in. */
const HEAD = 4 * 2 ** 20;

/** The text of the tape within an export of any format, or of a tape file; null where the file holds none. */
export async function readTape(path: string): Promise<string | null> {
  const head = await headOf(path);
  const begins = (text: string) => head.subarray(0, text.length).toString('latin1') === text;
  if (begins('PK')) return tapeInZip(path);
  if (begins('PAR1')) return tapeInParquet(path);
  if (begins('SQLite format 3\0')) return tapeInSqlite(path);
  if (begins('%PDF')) return tapeInPdf(await readFile(path));
  return tapeInJson(head.toString('utf8'));
}

async function headOf(path: string): Promise<Buffer> {
  const file = await open(path, 'r');
  try {
    const bytes = Buffer.alloc(HEAD);
    const { bytesRead } = await file.read(bytes, 0, HEAD, 0);
    return bytes.subarray(0, bytesRead);
  } finally {
    await file.close();
  }
}

/** A tape file itself, or a collection whose first line tells how it was made. */
function tapeInJson(text: string): string | null {
  const end = text.indexOf('\n');
  const first = end < 0 ? text : text.slice(0, end);
  if (first.startsWith('{"type":"FeatureCollection"')) {
    const { how } = JSON.parse(`${first}]}`) as { how?: { tape?: unknown } };
    return how?.tape === undefined ? null : JSON.stringify(how.tape);
  }
  try {
    const whole = JSON.parse(text) as { format?: unknown };
    return whole.format === 'just-tally.tape' ? text : null;
  } catch {
    return null;
  }
}

async function tapeInParquet(path: string): Promise<string | null> {
  const { key_value_metadata: own } = await parquetMetadataAsync(await asyncBufferFromFile(path));
  return own?.find(({ key }) => key === TAPE_KEY)?.value ?? null;
}

function tapeInSqlite(path: string): string | null {
  const db = new Database(path, { readonly: true });
  try {
    const has = db.prepare(`SELECT 1 FROM sqlite_master WHERE type = 'table' AND name = 'tape'`).get();
    return has ? (db.prepare<[], string>('SELECT body FROM tape LIMIT 1').pluck().get() ?? null) : null;
  } finally {
    db.close();
  }
}

async function tapeInZip(path: string): Promise<string | null> {
  const zip = await Zip.open(path);
  try {
    const name = zip.names.find((one) => one.endsWith('.tape.json'));
    if (name !== undefined) return await zip.text(name);
    const rows = zip.has('xl/workbook.xml') ? xlsxRows : zip.has('content.xml') ? odsRows : null;
    if (!rows) return null;
    const found: string[][] = [];
    for await (const row of rows(path, HOW_TITLE)) found.push(row);
    return tapeInRows(found);
  } finally {
    zip.close();
  }
}
