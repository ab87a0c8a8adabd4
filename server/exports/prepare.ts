import type { Row } from '../../core/cells.ts';
import { dayOf } from '../../core/dates.ts';
import { exportColumns } from '../../core/exports/columns.ts';
import type { ExportColumn } from '../../core/exports/field-columns.ts';
import { readFor, type Computed } from '../../core/exports/computed.ts';
import type { HeadingLanguage } from '../../core/exports/headings/languages.ts';
import { printOf } from '../../core/exports/since.ts';
import { openUniverse, type Db } from '../db/open.ts';
import type { OwnColumns } from '../engine/rows/own-cells.ts';
import { exportRows, ROWS_A_BATCH, type InMemory } from './export-rows.ts';

/** Which records and columns an export has, as its threads are told. */
export interface ExportedRows {
  dir: string;
  subject: string;
  /** What the columns of the file are made of, in their order. */
  fields: string[];
  computed: Computed[];
  /** Columns of the tape's own, beside `ids`, and their headings. */
  own: OwnColumns;
  headings: Record<string, string>;
  /** Headings of one's own, and the language of the others. */
  custom: Record<string, string>;
  language: HeadingLanguage;
  currency: string;
  ownCurrency: boolean;
  ids: Uint32Array;
  /** ISO day. */
  asOf: string;
  /** The columns that counting has in memory, where cells may be taken from them. */
  inMemory: InMemory | null;
}

/** What of an export its other threads are told of the rows, and nothing else that it has: all is copied to them. */
export function exportedRows(data: ExportedRows): ExportedRows {
  const { dir, subject, fields, computed, own, headings, custom, language } = data;
  const { currency, ownCurrency, ids, asOf, inMemory } = data;
  return {
    ...{ dir, subject, fields, computed, own, headings, custom, language },
    ...{ currency, ownCurrency, ids, asOf, inMemory },
  };
}

/** Some rows with their cells, and a print of each cell. */
export interface Prepared {
  rows: Row[];
  cells: (string | number | null)[][];
  prints: Uint32Array;
}

/** The columns of an export's file. */
export function columnsOf(data: Omit<ExportedRows, 'own' | 'ids' | 'inMemory'>): ExportColumn[] {
  const { subject, fields, currency, ownCurrency, headings, custom, language, computed } = data;
  return exportColumns(subject, fields, currency, headings, { custom, language, computed, ownCurrency });
}

/** Reads rows of an export, a batch from each place on, in one state of the universe. `more` are fields read beside the columns. */
export function rowsPreparer(
  data: ExportedRows,
  more: readonly string[] = [],
): { db: Db; at(place: number): Prepared; close(): void } {
  const db = openUniverse(data.dir, { readonly: true });
  const columns = columnsOf(data);
  const fields = readFor([...data.fields, ...more], data.computed);
  const read = exportRows(db, data.subject, dayOf(data.asOf)!, data.ids, fields, data.own, data.inMemory);
  return {
    db,
    at: (place) => {
      const rows = read(place);
      const cells = rows.map((row) => columns.map((column) => column.value(row)));
      const prints = new Uint32Array(rows.length * columns.length);
      let at = 0;
      for (const own of cells) for (const cell of own) prints[at++] = printOf(cell);
      return { rows, cells, prints };
    },
    close: () => void db.close(),
  };
}

export { ROWS_A_BATCH };
