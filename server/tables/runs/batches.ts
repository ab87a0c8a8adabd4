import { nanoid } from 'nanoid';
import type { BatchSearchView } from '../../../contract/runs.ts';
import type { Db } from '../../db/open.ts';

/** Sheets of searches, and what came of each row at a run. */

export interface Batch {
  id: string;
  fileName: string;
  header: string[];
  rows: string[][];
  /** The row that the next run goes on with. */
  at: number;
}

export function addBatch(db: Db, { fileName, header, rows }: Omit<Batch, 'id' | 'at'>, now: number): string {
  const id = nanoid(10);
  db.prepare('INSERT INTO batch (id, file_name, header, rows, made_at) VALUES (?, ?, ?, ?, ?)').run(
    ...[id, fileName, JSON.stringify(header), JSON.stringify(rows), now],
  );
  return id;
}

export function batchById(db: Db, id: string): Batch | undefined {
  const row = db
    .prepare<[string], { id: string; file_name: string; header: string; rows: string; at: number }>(
      'SELECT id, file_name, header, rows, at FROM batch WHERE id = ?',
    )
    .get(id);
  return (
    row && {
      ...{ id: row.id, fileName: row.file_name, at: row.at },
      header: JSON.parse(row.header) as string[],
      rows: JSON.parse(row.rows) as string[][],
    }
  );
}

export function setBatchAt(db: Db, id: string, at: number): void {
  db.prepare('UPDATE batch SET at = ? WHERE id = ?').run(at, id);
}

export interface BatchResult extends Omit<BatchSearchView, 'state'> {
  state: 'done' | 'empty' | 'refused';
  tape: string | null;
}

export function addBatchResult(db: Db, run: string, one: BatchResult): void {
  db.prepare(
    `INSERT INTO batch_result (run, row, search, state, found, taken, added, said, tape) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
  ).run(run, one.row, one.search, one.state, one.found, one.taken, one.added, one.said, one.tape);
}

/** What came of the rows that a run took, in their order. */
export function batchResults(db: Db, run: string): BatchResult[] {
  return db
    .prepare<[string], BatchResult>(
      'SELECT row, search, state, found, taken, added, said, tape FROM batch_result WHERE run = ? ORDER BY row',
    )
    .all(run);
}
