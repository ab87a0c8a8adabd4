import {
  carriedColumns,
  readyCells,
  type CarriedCells,
  type CarriedColumn,
} from '../../../core/lists/carried.ts';
import type { Db } from '../../db/open.ts';

/** What files say of the members that they put on lists. */

/** Keeps what the file of an origin says of members. Of rows that are one record the first is kept. */
export function carry(
  db: Db,
  list: string,
  origin: number,
  members: readonly { key: string; cells: CarriedCells }[],
): void {
  const cells = members.map((member) => member.cells);
  const put = db.prepare('INSERT OR IGNORE INTO list_carried (list, key, origin, cells) VALUES (?, ?, ?, ?)');
  const putCell = db.prepare(
    `INSERT OR IGNORE INTO list_carried_cell (list, key, heading, origin, text, folded, number)
     VALUES (?, ?, ?, ?, ?, ?, ?)`,
  );
  const ready = readyCells(cells);
  members.forEach(({ key }, i) => {
    if (Object.keys(cells[i]!).length === 0) return;
    if (put.run(list, key, origin, JSON.stringify(cells[i])).changes === 0) return;
    for (const { column, text, folded, number } of ready[i]!)
      putCell.run(list, key, column, origin, text, folded, number);
  });
  keepColumns(db, list, carriedColumns(cells));
}

/** A heading that two files have as different things is asked by its words, which any cell can be. */
function keepColumns(db: Db, list: string, columns: readonly CarriedColumn[]): void {
  const keep = db.prepare(
    `INSERT INTO list_carried_column (list, heading, kind, place)
     SELECT @list, @column, @kind, count(*) FROM list_carried_column WHERE list = @list
     ON CONFLICT (list, heading) DO UPDATE SET kind = CASE WHEN kind = excluded.kind THEN kind ELSE 'text' END`,
  );
  for (const { column, kind } of columns) keep.run({ list, column, kind });
}

/** Copies what files say of the wanted members of a list to another, as `origins` has the copies of their origins. */
export function copyCarried(db: Db, from: string, to: string, origins: ReadonlyMap<number, number>): void {
  const copies = [
    ['list_carried', 'cells'],
    ['list_carried_cell', 'heading, text, folded, number'],
  ].map(([table, cells]) =>
    db.prepare(
      `INSERT OR IGNORE INTO ${table} (list, key, origin, ${cells}) SELECT ?, key, ?, ${cells} FROM ${table}
       WHERE list = ? AND origin = ? AND key IN (SELECT key FROM wanted)`,
    ),
  );
  let copied = 0;
  for (const [origin, own] of origins)
    for (const copy of copies) copied += copy.run(to, own, from, origin).changes;
  if (copied > 0) keepColumns(db, to, columnsOf(db, from));
}

function columnsOf(db: Db, list: string): CarriedColumn[] {
  return db
    .prepare<[string], CarriedColumn>(
      'SELECT heading AS "column", kind FROM list_carried_column WHERE list = ? ORDER BY place, heading',
    )
    .all(list);
}
