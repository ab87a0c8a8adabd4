import type { Mapping } from '../../core/records/mapping.ts';
import type { FileReading } from './read-file.ts';

/** What the thread that loads a file is told. */
export interface LoadWorkerData {
  dir: string;
  job: string;
  path: string;
  fileName: string;
  name: string;
  licence: string | null;
  /** SHA-256 of the file as it came; left out where nobody will bring it again. */
  fingerprint?: string | null;
  asOf: number;
  reading: FileReading;
  header: string[];
  mapping: Mapping;
  allOrNothing: boolean;
  subject: string;
  /** Of what hangs on companies: countries of which the file has all. */
  covers: string[];
  /** The source in whose place the file is put; null where it is one of its own. */
  refreshes: { key: string; gone: 'removed' | 'kept' } | null;
}

/** What became of the rows of a file. */
export interface Landed {
  /** Rows that are data. */
  read: number;
  /** Of them, refused. */
  refused: number;
  /** Cells that were not understood and are left empty. */
  left: number;
  /** Totals, notes and the like. */
  notData: number;
}
