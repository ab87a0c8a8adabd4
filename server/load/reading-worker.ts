import { readFileSync } from 'node:fs';
import { parentPort, workerData } from 'node:worker_threads';
import { readContactRows, readVCards, type AddressBookEntry } from '../../core/records/contacts.ts';
import { Problem } from '../../core/tape/problem.ts';
import { dataRows, previewFile } from './read-file.ts';
import { recognise, type Recognised, type RecogniseWish } from './recognise.ts';

/** The thread that reads a file: how its rows look and what its columns may mean, or the people of an address book. */

export type ReadingWish =
  | ({ of: 'preview' } & RecogniseWish)
  | { of: 'contacts'; path: string }
  | { of: 'table'; path: string; most: number };

export type ReadingReply =
  | ({ of: 'preview' } & Recognised)
  | { of: 'contacts'; entries: AddressBookEntry[] }
  | { of: 'table'; header: string[]; rows: string[][]; more: boolean }
  | { of: 'problem'; code: string; message: string; field?: string; value?: unknown; rule?: string };

async function read(wish: ReadingWish): Promise<ReadingReply> {
  if (wish.of === 'contacts') return { of: 'contacts', entries: await entriesOf(wish.path) };
  if (wish.of === 'table') return { of: 'table', ...(await tableOf(wish.path, wish.most)) };
  return { of: 'preview', ...(await recognise(wish)) };
}

/** The first rows of a table as they came, under its headings. */
async function tableOf(
  path: string,
  most: number,
): Promise<{ header: string[]; rows: string[][]; more: boolean }> {
  const preview = await previewFile(path, { hasHeader: true });
  const { header } = preview;
  const rows: string[][] = [];
  for await (const block of dataRows(path, preview, header))
    for (const { cells, notData } of block) {
      if (notData || cells.every((cell) => cell.trim() === '')) continue;
      if (rows.length === most) return { header, rows, more: true };
      rows.push(cells);
    }
  return { header, rows, more: false };
}

async function entriesOf(path: string): Promise<AddressBookEntry[]> {
  const bytes = readFileSync(path);
  if (/^\ufeff?\s*BEGIN:VCARD/i.test(bytes.subarray(0, 4096).toString('utf8')))
    return readVCards(bytes.toString('utf8'));
  const preview = await previewFile(path, { hasHeader: true });
  const { header } = preview;
  const rows: string[][] = [];
  for await (const block of dataRows(path, preview, header))
    for (const { cells, notData } of block) if (!notData) rows.push(cells);
  const entries = readContactRows(header, rows);
  if (!entries)
    throw new Problem(
      'no-contacts',
      `No column of the file is a name or a mail address: ${header.slice(0, 8).join(', ')}.`,
      {
        field: 'file',
        value: header.join(', ').slice(0, 200),
        rule: 'a vCard, or a sheet with a column for names or mail addresses',
      },
    );
  return entries;
}

read(workerData as ReadingWish).then(
  (reply) => parentPort!.postMessage(reply),
  (error: unknown) => {
    if (!(error instanceof Problem)) throw error;
    const { code, message, field, value, rule } = error;
    parentPort!.postMessage({ of: 'problem', code, message, field, value, rule } satisfies ReadingReply);
  },
);
