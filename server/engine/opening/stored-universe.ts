import { join } from 'node:path';
import type { Column, KeyColumn, TextColumn } from '../../../core/tally/columns.ts';
import type { Bits } from '../../../core/tally/bits.ts';
import type { Links } from '../../../core/tally/links.ts';
import { openArrays, saveArrays } from '../../stored-arrays.ts';
import { sharedInt32 } from './shared-arrays.ts';

/** Columns as they are shared between threads and kept in a file: without the search of words, which needs a database. */
export type StoredColumn = Exclude<Column, TextColumn | KeyColumn> | Omit<TextColumn, 'find'>;

/** The records of one subject as columns. */
export interface StoredSubject {
  size: number;
  /** Id of each record, ascending. */
  ids: Uint32Array;
  /** By field id. */
  columns: Map<string, StoredColumn>;
}

/** Records that hang on companies. */
export interface StoredRelated extends StoredSubject {
  /** The change of the universe that last touched them. */
  revision: number;
  /** By role; any role under "". */
  links: Map<string, Links>;
  /** The companies for which some source covers the subject. */
  known: Bits;
}

/** A universe as columns: its companies, and by subject what hangs on them. */
export interface StoredUniverse extends StoredSubject {
  /** Which universe this is, and after how many changes of it. */
  stamp: string;
  revision: number;
  related: Map<string, StoredRelated>;
}

/** Record of each id, or -1. */
export function recordsById(ids: Uint32Array): Int32Array {
  const records = sharedInt32((ids.at(-1) ?? 0) + 1).fill(-1);
  for (let r = 0; r < ids.length; r++) records[ids[r]!] = r;
  return records;
}

/** Grows with each change of how columns are kept. */
const VERSION = 9;

export const snapshotPath = (dir: string): string => join(dir, 'universe.columns');

/** Keeps the columns; they belong to one revision of one universe. */
export const saveSnapshot = (dir: string, universe: StoredUniverse): void =>
  saveArrays(snapshotPath(dir), VERSION, universe);

/** The columns last saved, of whatever revision, or null where there are none that can be used. */
export const openSnapshot = (dir: string): StoredUniverse | null =>
  openArrays(snapshotPath(dir), VERSION) as StoredUniverse | null;
