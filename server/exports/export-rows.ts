import type { Db } from '../db/open.ts';
import { RowSource } from '../engine/read-rows.ts';
import { universeLookup } from '../engine/universe-lookup.ts';
import { loadCodeSearches, loadCodeTrees, loadGazetteer } from '../reference.ts';

/** Rows that are in memory at a time. */
export const ROWS_A_BATCH = 500;

/** The rows of an export: what `db` shows from now on, whatever is loaded meanwhile. */
export function exportRows(db: Db): RowSource {
  db.exec('BEGIN');
  const trees = loadCodeTrees();
  const reference = { trees, searches: loadCodeSearches(trees), places: loadGazetteer() };
  return new RowSource(db, universeLookup(db, reference, 0, { columns: new Map() }));
}
