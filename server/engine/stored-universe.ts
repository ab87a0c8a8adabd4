import type { Column, TextColumn } from '../../core/tally/columns.ts';
import { sharedInt32 } from './shared-arrays.ts';

/** Columns as they are shared between threads and kept in a file: without the search of words, which needs a database. */
export type StoredColumn = Exclude<Column, TextColumn> | Omit<TextColumn, 'find'>;

/** The companies of a universe as columns. */
export interface StoredUniverse {
  /** Which universe this is, and after how many changes of it. */
  stamp: string;
  revision: number;
  size: number;
  /** Company id of each record, ascending. */
  ids: Uint32Array;
  /** By field id. */
  columns: Map<string, StoredColumn>;
}

/** Record of each company id, or -1. */
export function recordsById(ids: Uint32Array): Int32Array {
  const records = sharedInt32((ids.at(-1) ?? 0) + 1).fill(-1);
  for (let r = 0; r < ids.length; r++) records[ids[r]!] = r;
  return records;
}
