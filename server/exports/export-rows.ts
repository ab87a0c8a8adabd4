import type { Db } from '../db/open.ts';
import { RowSource } from '../engine/read-rows.ts';
import { universeLookup } from '../engine/universe-lookup.ts';
import { loadReferenceData } from '../reference.ts';

/** Rows that are in memory at a time. */
export const ROWS_A_BATCH = 500;

/** The rows of an export: what `db` shows from now on, whatever is loaded meanwhile. Ages are those at the as-of day. */
export function exportRows(db: Db, asOf: number): RowSource {
  db.exec('BEGIN');
  return new RowSource(db, universeLookup(db, loadReferenceData(), asOf, { columns: new Map() }));
}
