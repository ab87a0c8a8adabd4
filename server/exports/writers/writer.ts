import type { Row } from '../../../core/cells.ts';
import type { SheetChart } from '../breakdown-sheet.ts';
import type { ExportColumn } from '../../../core/exports/field-columns.ts';
import type { HeadingLanguage } from '../../../core/exports/headings/languages.ts';
import type { HowMade } from '../../../core/exports/how-made.ts';
import type { PostalAddress } from '../../../core/exports/postal.ts';

/** How a file is written, beyond its columns. */
export interface FileOptions {
  /** CSV: what stands between cells. */
  delimiter: string;
  /** CSV: a byte order mark, quotes round every cell, a comma before decimals, and how lines end. */
  bom: boolean;
  quoteAll: boolean;
  decimalComma: boolean;
  lineEnd: 'crlf' | 'lf';
  /** Paper: the size of its pages. */
  paper: 'A4' | 'Letter';
  /** GeoJSON: areas in place of points. */
  areas: boolean;
  /** Letters: who writes, what, and the country it is sent from. */
  letter: { sender: string; text: string; from: string | null };
}

/** Where a record is and how it is reached, beside its cells. */
export interface RecordPlace extends PostalAddress {
  title: string | null;
  phone: string | null;
  mail: string | null;
  web: string | null;
  /** Key of the region, such as CZ-64. */
  region: string | null;
  lat: number | null;
  lon: number | null;
}

/** A record as it goes into a file. */
export interface FileRow {
  row: Row;
  /** Beside the columns. */
  cells: readonly (string | number | null)[];
  /** Columns that changed since the export that this one repeats; null where it repeats none. */
  changed: readonly number[] | null;
  /** Of formats that need one. */
  place: RecordPlace | null;
}

export interface WriterContext {
  /** The file to write; another of the same name is not there. */
  path: string;
  title: string;
  subject: string;
  columns: readonly ExportColumn[];
  /** What machines call the columns. */
  names: readonly string[];
  /** Of headings that a format adds. */
  language: HeadingLanguage;
  /** How many rows come at most. */
  count: number;
  how: HowMade;
  /** The Breakdown of all that pass, where it is asked for. */
  charts: readonly SheetChart[];
  options: FileOptions;
}

/** Writes one file: rows some at a time, then the end of it. Where either throws, `leave` lets go of it. */
export interface Writer {
  add(rows: readonly FileRow[]): Promise<void> | void;
  finish(): Promise<void> | void;
  leave(): Promise<void> | void;
}

export type OpenWriter = (context: WriterContext) => Promise<Writer> | Writer;
