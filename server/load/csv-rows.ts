import { parse } from 'csv-parse';
import iconv from 'iconv-lite';
import { createReadStream } from 'node:fs';
import { Readable } from 'node:stream';
import Papa from 'papaparse';
import { Problem } from '../../core/tape/problem.ts';

/**
 * Rows of text files. Two readers share the work: a fast one takes what is written by the book (RFC 4180), and from the first
 * row on that is not (a quotation mark behind a closed cell, line ends of several kinds) a patient one reads to the end.
 */

/** Characters that a row has at most. */
const LONGEST_ROW = 4 * 2 ** 20;
/** Bytes that are read at once. */
const CHUNK = 2 ** 18;

interface Writing {
  encoding: string;
  delimiter: string;
}

/** The rows of a text file in blocks, blank ones included. `onBytes` is told how far the file is read. @throws Problem */
export async function* csvBlocks(
  path: string,
  writing: Writing,
  onBytes: (bytes: number) => void,
): AsyncGenerator<string[][]> {
  let isFirst = true;
  for await (const block of blocksOf(path, writing, onBytes)) {
    // A first line with which spreadsheets name the separator of the others is no row.
    if (isFirst && /^sep=.?$/i.test(block[0]!.join(writing.delimiter))) block[0] = [];
    isFirst = false;
    yield block;
  }
}

async function* blocksOf(
  path: string,
  { encoding, delimiter }: Writing,
  onBytes: (bytes: number) => void,
): AsyncGenerator<string[][]> {
  const chunks = textOf(path, encoding, onBytes);
  let text = '';
  let lines = 0;
  let quote: string | null = null;
  try {
    for (let isLast = false; !isLast;) {
      const next = await chunks.next();
      isLast = next.done === true;
      if (!next.done) text += next.value;
      // Half a line end says nothing of its kind.
      if (!isLast && text.endsWith('\r') && text.length < LONGEST_ROW) continue;
      quote ??= quoteOf(text, delimiter);
      const found = byTheBook(text, delimiter, quote, isLast);
      if (!found) {
        yield* patiently(text, chunks, delimiter, quote, lines);
        return;
      }
      if (found.rows.length > 0) yield found.rows;
      lines += linesIn(text, found.end);
      text = text.slice(found.end);
    }
  } finally {
    await chunks.return(undefined);
  }
}

/** The mark that stands around cells: a single one where it does so around each of the first line. */
function quoteOf(text: string, delimiter: string): string {
  const first = /^[^\r\n]*/.exec(text.slice(0, LONGEST_ROW))![0];
  const cells = first.split(delimiter);
  return cells.length > 1 && cells.every((cell) => /^ ?'[^']+' ?$/.test(cell)) ? "'" : '"';
}

/** The text of a file as it comes, without its byte order mark. */
async function* textOf(
  path: string,
  encoding: string,
  onBytes: (bytes: number) => void,
): AsyncGenerator<string, undefined> {
  const decoder = iconv.getDecoder(encoding);
  let bytes = 0;
  for await (const chunk of createReadStream(path, { highWaterMark: CHUNK })) {
    onBytes((bytes += (chunk as Buffer).length));
    yield decoder.write(chunk as Buffer);
  }
  yield decoder.end() ?? '';
}

/**
 * The rows at the beginning of a text, and where they end: the last may go on behind it, unless the text is all there is.
 * Null where it is not written by the book.
 */
function byTheBook(
  text: string,
  delimiter: string,
  quote: string,
  isAll: boolean,
): { rows: string[][]; end: number } | null {
  if (text === '') return { rows: [], end: 0 };
  if (/\r(?!\n)/.test(text) || blankBehindQuote(delimiter, quote, isAll).test(text)) return null;
  const parser = new Papa.Parser({ delimiter, newline: '\n', quoteChar: quote });
  const { data, errors, meta } = parser.parse(text, 0, !isAll) as {
    data: string[][];
    errors: unknown[];
    meta: { cursor: number };
  };
  if (errors.length > 0 || text.length - meta.cursor > LONGEST_ROW) return null;
  for (const row of data) {
    const last = row.length - 1;
    if (row[last]!.endsWith('\r')) row[last] = row[last]!.slice(0, -1);
  }
  // Behind the last line end stands no row.
  if (isAll && text.endsWith('\n')) data.pop();
  return { rows: data, end: isAll ? text.length : meta.cursor };
}

/** A quotation mark with blanks between it and the end of its cell, which the two readers understand otherwise. */
const blankBehindQuote = (delimiter: string, quote: string, isAll: boolean) => {
  const end = delimiter === '|' ? '\\|' : delimiter;
  return new RegExp(`${quote}(?:(?!${end})[^\\S\\r\\n])+(?:${end}|\\r|\\n${isAll ? '|$' : ''})`);
};

/** The rows of a text and of what comes behind it. @throws Problem */
async function* patiently(
  text: string,
  chunks: AsyncGenerator<string, undefined>,
  delimiter: string,
  quote: string,
  linesBefore: number,
): AsyncGenerator<string[][]> {
  async function* all() {
    yield text;
    yield* chunks;
  }
  const parser = parse({
    delimiter,
    quote,
    relax_column_count: true,
    relax_quotes: true,
    skip_empty_lines: false,
    // All of them, since files put together of several have several.
    record_delimiter: ['\r\n', '\n', '\r'],
    max_record_size: LONGEST_ROW,
  });
  const source = Readable.from(all());
  source.on('error', (error) => parser.destroy(error));
  source.pipe(parser);
  try {
    let block: string[][] = [];
    for await (const row of parser) {
      if (block.push(row as string[]) < ROWS_A_BLOCK) continue;
      yield block;
      block = [];
    }
    if (block.length > 0) yield block;
  } catch (error) {
    throw inWords(error as Error & { code?: string; lines?: number }, linesBefore);
  } finally {
    source.destroy();
  }
}

/** Rows that the patient reader hands on together. */
const ROWS_A_BLOCK = 500;

/** What the patient reader cannot read, for people; other errors as they are. */
function inWords(error: Error & { code?: string; lines?: number }, linesBefore: number): Error {
  const { code } = error;
  const line = linesBefore + (error.lines ?? 0);
  if (code === 'CSV_QUOTE_NOT_CLOSED')
    return new Problem(
      'broken-csv',
      `A quotation mark is opened and never closed (the reader got to line ${line}).`,
      { field: 'file', rule: 'quotation marks in pairs' },
    );
  if (code === 'CSV_MAX_RECORD_SIZE')
    return new Problem(
      'broken-csv',
      `One row is larger than 4 MB (about line ${line}); is the delimiter or a quotation mark wrong?`,
      { field: 'file', rule: 'rows of at most 4 MB' },
    );
  if (code?.startsWith('CSV_'))
    return new Problem('broken-csv', `The file cannot be read as CSV: ${error.message}`, { field: 'file' });
  return error;
}

function linesIn(text: string, end: number): number {
  let lines = 0;
  for (let at = text.indexOf('\n'); at >= 0 && at < end; at = text.indexOf('\n', at + 1)) lines++;
  return lines;
}
