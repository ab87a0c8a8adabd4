import type { Combination, Region } from '../../../core/lists/combine.ts';
import type { Db } from '../../db/open.ts';
import { countOf, noteMembers } from './changes.ts';
import { allLists } from './list-rows.ts';
import { copyOrigins, insertCopies } from './origins.ts';
import { emptyWanted } from './wanted.ts';

/** Lists made of lists: the overlap of some, and the members of those that follow others. */

/** Members of a part, with its place as a bit. `among` limits them to a JSON list of keys. */
function partSql({ parts }: Combination, among: string | null): { text: string; values: string[] } {
  const values: string[] = [];
  const texts = parts.map(({ list, verdict }, i) => {
    values.push(list, ...(verdict ?? []), ...(among === null ? [] : [among]));
    const judged = verdict ? ` AND verdict IN (${verdict.map(() => '?').join(', ')})` : '';
    const limited = among === null ? '' : ' AND key IN (SELECT value FROM json_each(?))';
    return `SELECT key, ${1 << i} AS bit FROM list_member WHERE list = ?${judged}${limited}`;
  });
  return { text: `SELECT key, sum(bit) AS mask FROM (${texts.join(' UNION ALL ')}) GROUP BY key`, values };
}

const MASKS = {
  both: (of: number) => `mask = ${(1 << of) - 1}`,
  either: () => 'true',
  without: () => 'mask = 1',
  one: (of: number) => `mask IN (${Array.from({ length: of }, (_, i) => 1 << i).join(', ')})`,
} as const;

/** How many members each set of lists shares with no other. */
export function regionsOf(db: Db, parts: Combination['parts']): Region[] {
  const { text, values } = partSql({ way: 'either', parts }, null);
  return db
    .prepare<string[], { mask: number; count: number }>(
      `SELECT mask, count(*) AS count FROM (${text}) GROUP BY mask ORDER BY mask`,
    )
    .all(...values)
    .map(({ mask, count }) => ({ lists: parts.flatMap((_, i) => (mask & (1 << i) ? [i] : [])), count }));
}

/** How many members a list shares with each other list of its subject that shares any, the most first. */
export function sharesOf(
  db: Db,
  list: string,
): { list: string; name: string; both: number; there: number }[] {
  return db
    .prepare<[string, string, string], { list: string; name: string; both: number; there: number }>(
      `SELECT * FROM (SELECT l.key AS list, l.name, l.members AS there, (SELECT count(*) FROM list_member m WHERE m.list = l.key
         AND EXISTS (SELECT 1 FROM list_member own WHERE own.list = ? AND own.key = m.key)) AS both
       FROM list l WHERE l.key <> ? AND l.removed_at IS NULL AND l.subject = (SELECT subject FROM list WHERE key = ?))
       WHERE both > 0 ORDER BY both DESC, name`,
    )
    .all(list, list, list);
}

/** Fills the table `wanted` with what a combination makes. */
function chooseCombined(db: Db, made: Combination, among: string | null): void {
  const { text, values } = partSql(made, among);
  emptyWanted(db);
  db.prepare(`INSERT INTO wanted SELECT key FROM (${text}) WHERE ${MASKS[made.way](made.parts.length)}`).run(
    ...values,
  );
}

/** Brings the members of a list to what a combination makes, of all keys or of some. Members that stay keep all that was said of them. */
export function combineInto(db: Db, list: string, made: Combination, keys: readonly string[] | null): void {
  const among = keys && JSON.stringify(keys);
  const before = countOf(db, list, keys);
  chooseCombined(db, made, among);
  db.prepare(
    `DELETE FROM list_member WHERE list = ? AND key NOT IN (SELECT key FROM wanted)${among === null ? '' : ' AND key IN (SELECT value FROM json_each(?))'}`,
  ).run(list, ...(among === null ? [] : [among]));
  db.prepare('DELETE FROM wanted WHERE key IN (SELECT key FROM list_member WHERE list = ?)').run(list);
  for (const { list: part } of made.parts) insertCopies(db, part, list, copyOrigins(db, part, list, true));
  noteMembers(db, list, keys, before);
}

/** Brings the lists that follow one up to date with it, and those that follow these. */
export function followLists(db: Db, list: string, keys: string[] | null): void {
  for (const { key, stays } of allLists(db))
    if (stays?.parts.some((part) => part.list === list)) {
      combineInto(db, key, stays, keys);
      followLists(db, key, keys);
    }
}
