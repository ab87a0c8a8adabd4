import { NO_FACTS } from '../engine/workspace-facts.ts';
import type { Row } from '../../core/cells.ts';
import type { Db } from '../db/open.ts';
import { RowSource } from '../engine/rows/read-rows.ts';
import { universeLookup } from '../engine/universe-lookup.ts';
import type { OwnColumns } from '../engine/subject-engine.ts';
import { ownCell } from '../engine/subject-engine.ts';
import { loadReferenceData } from '../reference.ts';

/** Rows that are in memory at a time. */
export const ROWS_A_BATCH = 500;

/** The rows of an export, a batch from each place on: what `db` shows from now on, whatever is loaded meanwhile. Ages are those at the as-of day. */
export function exportRows(
  db: Db,
  subject: string,
  asOf: number,
  ids: Uint32Array,
  fields: readonly string[],
  own: OwnColumns,
): (at: number) => Row[] {
  const source = exportSource(db, subject, asOf);
  const stored = fields.filter((field) => own[field] === undefined);
  return (at) => {
    const rows = source.rows(ids.subarray(at, at + ROWS_A_BATCH), stored);
    for (const [column, values] of Object.entries(own))
      rows.forEach((row, i) => (row.cells[column] = ownCell(column, values, at + i)));
    return rows;
  };
}

/** Reads rows for a file: what `db` shows from now on, whatever is loaded meanwhile. */
export function exportSource(db: Db, subject: string, asOf: number): RowSource {
  db.exec('BEGIN');
  const lookup = universeLookup(
    db,
    loadReferenceData(),
    { columns: new Map(), related: new Map() },
    { ...NO_FACTS, asOf },
  );
  return new RowSource(db, lookup, subject);
}
