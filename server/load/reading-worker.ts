import { readFileSync } from 'node:fs';
import { parentPort, workerData } from 'node:worker_threads';
import { readContactRows, readVCards, type AddressBookEntry } from '../../core/records/contacts.ts';
import {
  guessMapping,
  guessSubject,
  type Mapping,
  type MappingDefaults,
} from '../../core/records/mapping.ts';
import { Problem } from '../../core/tape/problem.ts';
import { loadCodeTrees } from '../reference.ts';
import { fileRows, previewFile, type FilePreview, type FileReading } from './read-file.ts';

/** The thread that reads a file: how its rows look and what its columns may mean, or the people of an address book. */

export type ReadingWish =
  | {
      of: 'preview';
      path: string;
      /** What is not to be recognised but taken as it is said. */
      reading: Partial<FileReading>;
      subject?: string;
      defaults: MappingDefaults;
    }
  | { of: 'contacts'; path: string };

export type ReadingReply =
  | { of: 'preview'; preview: FilePreview; subject: string; mapping: Mapping }
  | { of: 'contacts'; entries: AddressBookEntry[] }
  | { of: 'problem'; code: string; message: string; field?: string; value?: unknown; rule?: string };

async function read(wish: ReadingWish): Promise<ReadingReply> {
  if (wish.of === 'contacts') return { of: 'contacts', entries: await entriesOf(wish.path) };
  const preview = await previewFile(wish.path, wish.reading);
  const subject = wish.subject ?? guessSubject(preview.header);
  const mapping = guessMapping(preview.header, preview.rows, loadCodeTrees(), wish.defaults, subject);
  if (preview.kind === 'xlsx') mapping.decimal = '.';
  return { of: 'preview', preview, subject, mapping };
}

async function entriesOf(path: string): Promise<AddressBookEntry[]> {
  const bytes = readFileSync(path);
  if (/^\ufeff?\s*BEGIN:VCARD/i.test(bytes.subarray(0, 4096).toString('utf8')))
    return readVCards(bytes.toString('utf8'));
  const { header, kind, encoding, delimiter } = await previewFile(path, { hasHeader: true });
  const rows: string[][] = [];
  for await (const cells of fileRows(path, { kind, encoding, delimiter, hasHeader: true })) rows.push(cells);
  const entries = readContactRows(header, rows.slice(1));
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
