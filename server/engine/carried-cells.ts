import type { Said } from '../../core/tally/columns.ts';
import type { Keys } from '../../core/tally/order.ts';
import type { ListTest } from '../../core/tape/nodes.ts';
import { listMembers } from '../../core/tape/sql/list-members.ts';
import type { Db } from '../db/open.ts';
import type { Records } from './records.ts';

/** What the files say that put members on lists, by heading. */

/**
 * What files say under a heading of the members that meet a test; of a member on two lists twice. Each list by itself: what the file of
 * one says of a member counts only where it is that list on which the member meets the test.
 */
export function cellsSaid(db: Db, records: Records, test: ListTest, heading: string, asOf: number): Said[] {
  const rows = test.any.flatMap((list) => {
    const members = listMembers({ ...test, any: [list] }, asOf);
    return db
      .prepare<unknown[], [string, string, string, number | null]>(
        `SELECT key, text, folded, number FROM list_carried_cell
         WHERE list = ? AND heading = ? AND key IN (${members.text})`,
      )
      .raw()
      .all(list, heading, ...members.values);
  });
  const found = records.byKeys(rows.map(([key]) => key));
  return rows.flatMap(([, text, folded, number], i) =>
    found[i]! < 0 ? [] : [{ record: found[i]!, text, folded, number }],
  );
}

/** What files say of some members of a list under a heading, by their keys; null where they say nothing. */
export function carriedTexts(
  db: Db,
  list: string,
  column: string,
  keys: readonly string[],
): (string | null)[] {
  const rows = db
    .prepare<[string, string, string], [string, string]>(
      `SELECT f.key, group_concat(f.text, '; ') FROM json_each(?) j
       CROSS JOIN list_carried_cell f ON f.list = ? AND f.key = j.value AND f.heading = ? GROUP BY f.key`,
    )
    .raw();
  const texts = new Map(rows.all(JSON.stringify(keys), list, column));
  return keys.map((key) => texts.get(key) ?? null);
}

/** The same of all members as sort keys, by record: numbers by size, texts by the alphabet. */
export function carriedKeys(db: Db, records: Records, list: string, column: string): Keys {
  const keys = new Float64Array(records.ids.length).fill(NaN);
  const rows = db
    .prepare<[string, string], [string, string, number | null]>(
      `SELECT f.key, f.folded, f.number FROM list_carried_cell f
       JOIN list_member m ON m.list = f.list AND m.key = f.key
       WHERE f.list = ? AND f.heading = ? ORDER BY f.folded, f.key`,
    )
    .raw()
    .all(list, column);
  const found = records.byKeys(rows.map(([key]) => key));
  const ranks = new Map<string, number>();
  for (const [, text] of rows) if (!ranks.has(text)) ranks.set(text, ranks.size);
  const isNumbers = rows.some(([, , number]) => number !== null);
  rows.forEach(([, text, number], i) => {
    const record = found[i]!;
    // Of two files the first in the alphabet is what stands first in the cell.
    if (record >= 0 && Number.isNaN(keys[record]!))
      keys[record] = isNumbers ? (number ?? NaN) : ranks.get(text)!;
  });
  return keys;
}
