import type { ColumnReading } from '../core/records/census.ts';
import type { MadeColumn } from '../core/records/made-columns.ts';
import type { Mapping } from '../core/records/mapping.ts';

/** What is said of files before they are loaded. */

/** What a whole file comes to before it is loaded: the result of a job of kind "read". Its steps: rows, less what is no data, less refused, less twice, are the records. */
export interface FileReadingAnswer {
  rows: number;
  notData: number;
  refused: number;
  /** Rows of a company of which an earlier row of the file tells. */
  twice: number;
  records: number;
  /** For each column of the file. */
  columns: ColumnReading[];
  /** The first rows as they came, and as they were understood. */
  came: string[][];
  understood: string[][];
  /** The first cells that refuse their row. */
  refusals: { row: number; column: string; value: string; rule: string }[];
  /** The first rows that are no data. */
  notDataRows: { row: number; why: string; text: string }[];
}

/** How a file with the same headings was read before. */
export interface RememberedReading {
  /** Name of the source that was loaded so. */
  name: string;
  subject: string;
  /** Columns that were made of those of the file. */
  made: MadeColumn[];
  mapping: Mapping;
  usedAt: string;
}

/** Encodings that a text file can be read in, by what is written in them. */
export const ENCODINGS: Readonly<Record<string, string>> = {
  'utf-8': 'UTF-8',
  'utf-16le': 'UTF-16, little endian',
  'utf-16be': 'UTF-16, big endian',
  'windows-1252': 'Windows-1252, western',
  'windows-1250': 'Windows-1250, central European',
  'windows-1257': 'Windows-1257, Baltic',
  'windows-1254': 'Windows-1254, Turkish',
  'windows-1251': 'Windows-1251, Cyrillic',
  'windows-1253': 'Windows-1253, Greek',
  'iso-8859-1': 'ISO 8859-1, western',
  'iso-8859-2': 'ISO 8859-2, central European',
  'iso-8859-15': 'ISO 8859-15, western with €',
  shift_jis: 'Shift JIS, Japanese',
  gb18030: 'GB 18030, Chinese',
};
