import { createWriteStream, renameSync, rmSync } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { MatchView } from '../contract/matches.ts';
import type { Job, UploadAnswer, WordedTally } from '../contract/responses.ts';
import { FORMAT_IDS } from '../core/exports/formats.ts';
import { READY_SETS } from '../core/fields/column-sets.ts';
import { Ended, EXIT, type Client } from './client.ts';
import { tapeOf } from './tape-argument.ts';

/** What the command line can do, each over the same API as the interface. */

export interface Options {
  subject: string;
  format: string;
  columns?: string | undefined;
  out?: string | undefined;
  name?: string | undefined;
  for?: string | undefined;
  currency: string;
  'as-of'?: string | undefined;
  /** Whether what surely is a company of another source stays beside it. */
  apart: boolean;
}

/** What a command says: as lines for people, and as an object for programs. */
export interface Said {
  lines: string[];
  json: object;
}

const figure = (n: number) => n.toLocaleString('en-GB');

/** How many pass a tape, and what each line leaves and takes away. */
export async function tally(client: Client, argument: string, { subject }: Options): Promise<Said> {
  const tape = await tapeOf(client, argument, subject);
  const found = await client.call<WordedTally>('POST', '/tally', { tape });
  const lines = found.lines.map(({ words, subtotal, cut }) =>
    [figure(subtotal).padStart(12), `−${figure(cut)}`.padStart(12), `  ${words.label} ${words.text}`].join(
      '',
    ),
  );
  return {
    json: found,
    lines: [
      `${figure(found.universe).padStart(12)}${' '.repeat(12)}  ${tape.subject}`,
      ...lines,
      `${figure(found.tally).padStart(12)}${' '.repeat(12)}  left`,
    ],
  };
}

/** Writes what a tape keeps into a file. */
export async function exportTape(client: Client, argument: string, options: Options): Promise<Said> {
  if (!(FORMAT_IDS as readonly string[]).includes(options.format))
    throw new Ended(EXIT.usage, `--format ${options.format}: one of ${FORMAT_IDS.join(', ')} is expected.`);
  const tape = await tapeOf(client, argument, options.subject);
  const usual = READY_SETS.find(({ subject }) => subject === tape.subject)?.columns ?? ['name'];
  const begun = await client.call<{ export: string; job: Job }>('POST', '/exports', {
    ...{ tape, sort: tape.sort ?? [], format: options.format, currency: options.currency },
    name: options.name ?? tape.name ?? tape.subject,
    columns: options.columns?.split(',').map((id) => id.trim()) ?? usual,
    receiver: options.for ?? '',
  });
  const { result } = await client.ended(begun.job.id);
  const { body, name } = await client.file(`/exports/${begun.export}/file`);
  const path = options.out ?? name;
  const partial = `${path}.part`;
  try {
    await pipeline(Readable.fromWeb(body as never), createWriteStream(partial));
    renameSync(partial, path);
  } catch (error) {
    rmSync(partial, { force: true });
    throw error;
  }
  const rows = (result as { count: number }).count;
  return {
    lines: [`${figure(rows)} ${tape.subject} in ${path}`],
    json: { rows, path, export: begun.export },
  };
}

async function uploaded(client: Client, file: string): Promise<UploadAnswer> {
  return client.upload<UploadAnswer>('/uploads', file);
}

const readingOf = ({ upload, encoding, delimiter, hasHeader, mapping }: UploadAnswer, subject: string) => ({
  upload,
  read: { encoding, delimiter, hasHeader, ...(subject === 'companies' ? {} : { subject }) },
  mapping,
});

/** Loads a file as a source, as it would be read by itself. */
export async function load(client: Client, file: string, options: Options): Promise<Said> {
  const preview = await uploaded(client, file);
  const { job } = await client.call<{ job: Job }>('POST', '/sources', {
    ...readingOf(preview, options.subject),
    name: options.name ?? preview.fileName.replace(/\.\w+$/, ''),
    asOf: options['as-of'] ?? new Date().toISOString().slice(0, 10),
    joinSure: !options.apart,
  });
  const { result } = await client.ended(job.id);
  const { read, refused } = result as { read: number; refused: number };
  return { lines: [`${figure(read)} rows read, ${figure(refused)} refused`], json: result ?? {} };
}

/** Lines a file up with the universe. */
export async function match(client: Client, file: string, options: Options): Promise<Said> {
  const preview = await uploaded(client, file);
  const { job } = await client.call<{ job: Job }>('POST', '/matches', {
    ...readingOf(preview, 'companies'),
    name: options.name ?? preview.fileName.replace(/\.\w+$/, ''),
  });
  const { result } = await client.ended(job.id);
  const { match: id } = result as { match: string };
  const { match: found } = await client.call<{ match: MatchView }>('GET', `/matches/${id}`);
  const sure = Object.values(found.sure).reduce((sum, count) => sum + count, 0);
  return {
    lines: [
      `${figure(found.toMatch).padStart(12)}  rows to match`,
      `${figure(sure).padStart(12)}  sure`,
      `${figure(found.doubtful).padStart(12)}  doubtful`,
      `${figure(found.none).padStart(12)}  none`,
    ],
    json: found,
  };
}
