import { readFileSync } from 'node:fs';
import { parentPort, workerData } from 'node:worker_threads';
import { readContactRows, readVCards, type AddressBookEntry } from '../../core/records/contacts.ts';
import { guessSubject } from '../../core/records/headings.ts';
import { guessMapping, type Mapping, type MappingDefaults } from '../../core/records/mapping.ts';
import { Problem } from '../../core/tape/problem.ts';
import { loadCodeTrees, loadGazetteer, readReference } from '../reference.ts';
import { prepareFile } from './prepare.ts';
import { dataRows, previewFile, type FilePreview, type FileReading } from './read-file.ts';

/** The thread that reads a file: how its rows look and what its columns may mean, or the people of an address book. */

export type ReadingWish =
  | {
      of: 'preview';
      path: string;
      /** What is not to be recognised but taken as it is said. */
      reading: Partial<FileReading>;
      subject?: string;
      /** True the first time: an archive is unpacked, and JSON, vCard and Parquet become tables. */
      fresh?: boolean;
      defaults: MappingDefaults;
    }
  | { of: 'contacts'; path: string };

export type ReadingReply =
  | { of: 'preview'; preview: FilePreview; was: string | null; subject: string; mapping: Mapping }
  | { of: 'contacts'; entries: AddressBookEntry[] }
  | { of: 'problem'; code: string; message: string; field?: string; value?: unknown; rule?: string };

async function read(wish: ReadingWish): Promise<ReadingReply> {
  if (wish.of === 'contacts') return { of: 'contacts', entries: await entriesOf(wish.path) };
  const was = wish.fresh ? await prepareFile(wish.path) : null;
  const preview = await previewFile(wish.path, wish.reading);
  const subject = wish.subject ?? guessSubject(preview.header);
  const places = loadGazetteer();
  const mapping = guessMapping(preview.header, preview.rows, loadCodeTrees(), wish.defaults, subject, {
    ...(preview.kind === 'csv' ? { delimiter: preview.delimiter } : {}),
    sameCode: sameInBoth(),
    isCountry: (text) => places.countryNamed(text) !== undefined,
  });
  return { of: 'preview', preview, was, subject, mapping };
}

/** Tells of a cell of codes whether what it says is the same in NACE 2 and NACE 2.1. */
function sameInBoth(): (cell: string) => boolean {
  let same: Set<string> | null = null;
  return (cell) => {
    same ??= new Set(
      readReference('codes/crosswalk.tsv.gz')
        .split('\n')
        .map((line) => line.split('\t'))
        .filter(
          ([from, a, to, b, kind]) => from === 'nace-2' && to === 'nace-2.1' && a === b && kind === 'exact',
        )
        .map(([, code]) => plainCode(code!)),
    );
    return cell.split(/[;,|]/).every((code) => same!.has(plainCode(code)));
  };
}

/** The first four figures of a code: what a national one has behind them extends it. */
const plainCode = (code: string) => code.replace(/\D/g, '').slice(0, 4);

async function entriesOf(path: string): Promise<AddressBookEntry[]> {
  const bytes = readFileSync(path);
  if (/^\ufeff?\s*BEGIN:VCARD/i.test(bytes.subarray(0, 4096).toString('utf8')))
    return readVCards(bytes.toString('utf8'));
  const preview = await previewFile(path, { hasHeader: true });
  const { header } = preview;
  const rows: string[][] = [];
  for await (const { cells, notData } of dataRows(path, preview, header)) if (!notData) rows.push(cells);
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
