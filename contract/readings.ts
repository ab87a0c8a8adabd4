import type { ColumnReading } from '../core/records/census.ts';
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
  mapping: Mapping;
  usedAt: string;
}
