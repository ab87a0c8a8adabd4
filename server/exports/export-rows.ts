import { NO_FACTS } from '../engine/workspace-facts.ts';
import type { Row } from '../../core/cells.ts';
import { fieldOf } from '../../core/fields/registry.ts';
import type { Db } from '../db/open.ts';
import { recordsById, type StoredSubject } from '../engine/opening/stored-universe.ts';
import { RowSource } from '../engine/rows/read-rows.ts';
import { universeLookup } from '../engine/universe-lookup.ts';
import { ownCell, type OwnColumns } from '../engine/rows/own-cells.ts';
import { loadReferenceData } from '../reference.ts';
import { revisionOf } from '../tables/revision.ts';
import { storedCells, type StoredCells } from './stored-cells.ts';

/** Rows that are in memory at a time. */
export const ROWS_A_BATCH = 500;

/** The columns of a subject that counting has in memory, and of which universe, after how many changes. */
export interface InMemory extends Pick<StoredSubject, 'ids' | 'columns'> {
  stamp: string;
  revision: number;
}

/**
 * The rows of an export, a batch from each place on: what `db` shows from now on, whatever is loaded meanwhile. Ages are those at
 * the as-of day. What is `inMemory` is taken from there where it is of that very state.
 */
export function exportRows(
  db: Db,
  subject: string,
  asOf: number,
  ids: Uint32Array,
  fields: readonly string[],
  own: OwnColumns,
  inMemory: InMemory | null = null,
): (at: number) => Row[] {
  const source = exportSource(db, subject, asOf);
  const wanted = fields.filter((field) => own[field] === undefined);
  const held =
    inMemory && isOf(db, inMemory) ? heldCells(subject, wanted, inMemory) : new Map<string, StoredCells>();
  const stored = wanted.filter((field) => !held.has(field));
  const recordOf = held.size ? recordsById(inMemory!.ids) : null;
  return (at) => {
    const some = ids.subarray(at, at + ROWS_A_BATCH);
    const rows = source.rows(some, stored);
    for (const [column, { cell, why }] of held)
      for (let i = 0; i < rows.length; i++) {
        const row = rows[i]!;
        const record = recordOf![some[i]!]!;
        const found = cell(record);
        row.cells[column] = found;
        if (found === null && why) (row.why ??= {})[column] = why(record);
      }
    for (const [column, values] of Object.entries(own))
      rows.forEach((row, i) => (row.cells[column] = ownCell(column, values, at + i)));
    return rows;
  };
}

function isOf(db: Db, { stamp, revision }: InMemory): boolean {
  const now = revisionOf(db);
  return now.stamp === stamp && now.revision === revision;
}

function heldCells(
  subject: string,
  fields: readonly string[],
  { columns }: InMemory,
): Map<string, StoredCells> {
  const { trees } = loadReferenceData();
  const held = new Map<string, StoredCells>();
  for (const id of fields) {
    const cells = storedCells(fieldOf(subject, id)!, columns.get(id), (scheme) => trees.get(scheme)!);
    if (cells) held.set(id, cells);
  }
  return held;
}

/** Reads rows for a file: what `db` shows from now on, whatever is loaded meanwhile. */
export function exportSource(db: Db, subject: string, asOf: number): RowSource {
  if (!db.inTransaction) db.exec('BEGIN');
  const lookup = universeLookup(
    db,
    loadReferenceData(),
    { columns: new Map(), related: new Map() },
    { ...NO_FACTS, asOf },
  );
  return new RowSource(db, lookup, subject);
}
