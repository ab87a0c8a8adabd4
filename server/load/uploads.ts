import { createHash } from 'node:crypto';
import { createReadStream, rmSync } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import type { MadeColumnBody, MappingBody, PreviewBody } from '../../contract/load-requests.ts';
import { yearOf } from '../../core/dates.ts';
import { fileColumns } from '../../core/fields/registry.ts';
import type { MadeColumn } from '../../core/records/made-columns.ts';
import { Problem } from '../../core/tape/problem.ts';
import { asOfDay } from '../days.ts';
import type { Db } from '../db/open.ts';
import { HttpProblem } from '../http/check.ts';
import { readSettings } from '../tables/workspace.ts';
import type { FilePreview, FileReading } from './read-file.ts';
import { readInThread } from './reading-thread.ts';

export interface Upload {
  path: string;
  fileName: string;
  /** SHA-256 of it as it came; null where it was made here. */
  fingerprint: string | null;
  /** What it was before it was made a table, such as gzip of JSON Lines; null where it is as it came. */
  was: string | null;
  /** As it was read last, so that loading it so does not read it again. */
  last: FilePreview | null;
}

/** The files that were uploaded and are not loaded or matched yet, and how each is read. */
export class Uploads {
  private readonly workspace: Db;
  private readonly held = new Map<string, Upload>();

  constructor(workspace: Db) {
    this.workspace = workspace;
  }

  add(id: string, upload: Upload): void {
    this.held.set(id, upload);
  }

  /** @throws HttpProblem where it is not there any more */
  found(id: string): Upload {
    const one = this.held.get(id);
    if (!one)
      throw new HttpProblem(404, 'unknown-upload', 'This upload is no longer here; choose the file again.', {
        field: 'upload',
        value: id,
      });
    return one;
  }

  /** Takes an upload away with its file. */
  forget(id: string): void {
    const one = this.held.get(id);
    this.held.delete(id);
    if (one) rmSync(one.path, { force: true });
  }

  async preview(one: Upload, reading: Partial<FileReading>, subject?: string, fresh = false) {
    const settings = readSettings(this.workspace);
    const defaults = { currency: settings.currency, year: yearOf(asOfDay(settings)) - 1 };
    const read = await readInThread({ of: 'preview', path: one.path, reading, subject, defaults, fresh });
    one.last = read.preview;
    if (fresh) one.was = read.was;
    return read;
  }

  /** The file as it was read last where that is as it is wished, else read anew. */
  async asRead(one: Upload, wish: PreviewBody): Promise<FilePreview> {
    const { made = [], ...reading } = readingOf(wish);
    const { last } = one;
    const same =
      last &&
      JSON.stringify(last.made ?? []) === JSON.stringify(made) &&
      Object.entries(reading).every(([part, wished]) => last[part as keyof FileReading] === wished);
    return same ? last : (await this.preview(one, { ...reading, made })).preview;
  }
}

/** SHA-256 of a file, by which it is known when it comes again. */
export async function fingerprintOf(path: string): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(path), hash);
  return hash.digest('hex');
}

/** What of a reading is wished. */
export function readingOf(wish: PreviewBody): Partial<FileReading> {
  const { encoding, delimiter, hasHeader, sheet, skip, headerRows, made } = wish;
  const parts = Object.entries({
    ...{ encoding, delimiter, hasHeader, sheet, skip, headerRows },
    made: made?.map(madeColumn),
  });
  return Object.fromEntries(parts.filter(([, value]) => value !== undefined));
}

/** @throws Problem where something is missing that its way needs */
function madeColumn(
  { way, heading, of = [], by = '', part, text = '' }: MadeColumnBody,
  nth: number,
): MadeColumn {
  const wanting = (field: string, rule: string) =>
    new Problem('wrong-value', `The column “${heading}” lacks ${rule}.`, {
      field: `made[${nth}].${field}`,
      rule,
    });
  if (way === 'same') return { way, heading, text };
  if (of.length === 0) throw wanting('of', 'a column that it is made of');
  if (way === 'join') return { way, heading, of, by };
  if (by === '') throw wanting('by', 'the text at which a cell is parted');
  if (part === undefined) throw wanting('part', 'which part of the cell it is');
  return { way, heading, of, by, part };
}

/** How a file was read, without what was seen of it. */
export function partsOf(file: FilePreview): FileReading {
  const { kind, encoding, delimiter, hasHeader, sheet, skip, headerRows, made } = file;
  return {
    kind,
    encoding,
    delimiter,
    hasHeader,
    sheet: sheet ?? null,
    skip: skip ?? 0,
    headerRows: headerRows ?? (hasHeader ? 1 : 0),
    made: made ?? [],
  };
}

/** Whether a mapping names each column of a file once, by what the subject has. @throws Problem */
export function checkColumns(mapping: MappingBody, header: readonly string[], subject: string): void {
  const known = new Set(fileColumns(subject).map((column) => column.id));
  mapping.columns.forEach((id, i) => {
    if (id !== null && !known.has(id))
      throw new Problem(
        'unknown-column',
        `Column ${i + 1} is read as "${id}", which is no field of ${subject}.`,
        { field: `mapping.columns[${i}]`, value: id },
      );
    if (id !== null && mapping.columns.indexOf(id) !== i)
      throw new Problem('column-twice', `Two columns are read as "${id}".`, {
        field: `mapping.columns[${i}]`,
        value: id,
        rule: 'each field from one column',
      });
  });
  if (mapping.columns.length !== header.length)
    throw new Problem(
      'wrong-mapping',
      `The mapping has ${mapping.columns.length} columns, the file ${header.length}.`,
      { field: 'mapping.columns' },
    );
}
