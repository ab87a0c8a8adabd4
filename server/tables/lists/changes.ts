import type { Db } from '../../db/open.ts';

/** How readers learn what changed of lists: a number that grows with every change, and per list which members it touched. */

/** Members of one change that are noted one by one; of more, readers read the whole list again. */
const MOST_NOTED = 5000;
/** Changes of a list that are kept; a reader farther behind reads the whole list again. */
const CHANGES_KEPT = 200;

/** How often any list was changed. */
export function listsRevision(db: Db): number {
  return db.prepare<[], number>('SELECT revision FROM facts').pluck().get()!;
}

/** Notes that something other than members of lists changed, such as a name. */
export function noteListsChange(db: Db): void {
  db.prepare('UPDATE facts SET revision = revision + 1').run();
}

/** Notes which members of a list changed, or null for any of them, and counts what it has now. */
export function noteMembers(
  db: Db,
  list: string,
  keys: readonly string[] | null,
  before: Counts | null,
): void {
  const noted = keys && keys.length <= MOST_NOTED ? keys : null;
  const counts = noted && before ? after(db, list, noted, before) : countMembers(db, list);
  db.prepare(
    `UPDATE list SET revision = revision + 1, changed_at = ?, members = ?, judged_in = ?, judged_out = ?, unsure = ?
     WHERE key = ?`,
  ).run(Date.now(), counts.members, counts.judgedIn, counts.judgedOut, counts.unsure, list);
  const revision = db.prepare<[string], number>('SELECT revision FROM list WHERE key = ?').pluck().get(list)!;
  db.prepare('INSERT INTO list_change (list, revision, keys) VALUES (?, ?, ?)').run(
    list,
    revision,
    noted && JSON.stringify(noted),
  );
  db.prepare('DELETE FROM list_change WHERE list = ? AND revision <= ?').run(list, revision - CHANGES_KEPT);
  noteListsChange(db);
}

/** The members touched since a revision of a list; null where all may have been. */
export function changedSince(db: Db, list: string, since: number, now: number): string[] | null {
  const changes = db
    .prepare<[string, number], string | null>(
      'SELECT keys FROM list_change WHERE list = ? AND revision > ? ORDER BY revision',
    )
    .pluck()
    .all(list, since);
  if (changes.length !== now - since || changes.includes(null)) return null;
  return [...new Set(changes.flatMap((keys) => JSON.parse(keys!) as string[]))];
}

export interface Counts {
  members: number;
  judgedIn: number;
  judgedOut: number;
  unsure: number;
}

const COUNTS = `count(*) AS members, count(*) FILTER (WHERE verdict = 'in') AS judgedIn,
  count(*) FILTER (WHERE verdict = 'out') AS judgedOut, count(*) FILTER (WHERE verdict = 'unsure') AS unsure`;

/** What a list has, counted. */
export function countMembers(db: Db, list: string): Counts {
  return db.prepare<[string], Counts>(`SELECT ${COUNTS} FROM list_member WHERE list = ?`).get(list)!;
}

/** What of some keys a list has; to be asked before they change. Null where they are too many to be told apart. */
export function countOf(db: Db, list: string, keys: readonly string[] | null): Counts | null {
  if (!keys || keys.length > MOST_NOTED) return null;
  return db
    .prepare<[string, string], Counts>(
      `SELECT ${COUNTS} FROM json_each(?) j CROSS JOIN list_member m ON m.list = ? AND m.key = j.value`,
    )
    .get(JSON.stringify(keys), list)!;
}

function after(db: Db, list: string, keys: readonly string[], before: Counts): Counts {
  const had = db
    .prepare<[string], Counts>(
      'SELECT members, judged_in AS judgedIn, judged_out AS judgedOut, unsure FROM list WHERE key = ?',
    )
    .get(list)!;
  const now = countOf(db, list, keys)!;
  return {
    members: had.members + now.members - before.members,
    judgedIn: had.judgedIn + now.judgedIn - before.judgedIn,
    judgedOut: had.judgedOut + now.judgedOut - before.judgedOut,
    unsure: had.unsure + now.unsure - before.unsure,
  };
}
