import type { CarriedCells } from '../../../core/lists/carried.ts';
import { writeStep } from '../../../core/lists/steps.ts';
import { Problem } from '../../../core/tape/problem.ts';
import type { Db } from '../../db/open.ts';
import { carry } from './carried.ts';
import { countOf, noteMembers } from './changes.ts';
import { followLists } from './combined.ts';
import { addOrigin, copyOrigins, insertCopies, type OriginWish } from './origins.ts';
import { listByKey, openList } from './list-rows.ts';
import { chooseWanted, emptyWanted, wantedNow, type Wanted, type WantedTable } from './wanted.ts';

/** Members of lists: put on, taken off, and both taken back. */

export interface Added {
  /** How many were not on it yet, of how many. */
  added: number;
  of: number;
  /** The origins that this made, by which it is taken back. */
  origins: number[];
}

const ORIGINS_WITHOUT = `trim(replace(' ' || origins || ' ', ?, ' '))`;

/** Writes members, with those who follow the list. `work` changes members of `list` that are among the keys. */
export function changingMembers<T>(db: Db, list: string, keys: string[] | null, work: () => T): T {
  const before = countOf(db, list, keys);
  const result = work();
  noteMembers(db, list, keys, before);
  followLists(db, list, keys);
  return result;
}

/** Puts records on a list; those on it already take on one more origin. */
export function addMembers(db: Db, list: string, origin: OriginWish, wanted: Wanted): Added {
  return putOn(db, list, origin, wanted, () => {});
}

/**
 * Puts records on a list as `addMembers` does, each with what the file that named it says beside: headings with texts. Of rows that
 * are one record the first is carried.
 */
export function addCarried(
  db: Db,
  list: string,
  origin: OriginWish,
  members: readonly { key: string; cells: CarriedCells }[],
): Added {
  const keys = members.map(({ key }) => key);
  return putOn(db, list, origin, { keys }, (id) => carry(db, list, id, members));
}

/** `beside` is told the number of the new origin before those lists are filled that follow this one. */
function putOn(
  db: Db,
  list: string,
  origin: OriginWish,
  wanted: Wanted,
  beside: (origin: number) => void,
): Added {
  const { members: had } = openList(db, list);
  const { count, keys } = chooseWanted(db, wanted);
  const id = addOrigin(db, list, origin, null);
  changingMembers(db, list, keys, () => {
    db.prepare(
      `INSERT INTO list_member (list, key, origins, added_at) SELECT ?, key, ?, ? FROM wanted WHERE true
       ON CONFLICT (list, key) DO UPDATE SET origins = origins || ?`,
    ).run(list, String(id), Date.now(), ` ${id}`);
    beside(id);
  });
  return { added: listByKey(db, list)!.members - had, of: count, origins: [id] };
}

/** How many of some records are on a list already. */
export function countThere(db: Db, list: string): number {
  return db
    .prepare<[string], number>(
      'SELECT count(*) FROM wanted w CROSS JOIN list_member m ON m.list = ? AND m.key = w.key',
    )
    .pluck()
    .get(list)!;
}

/** Takes back what some origins put on a list: members without another go, the others only lose these. Returns how many went. */
export function removeOrigins(db: Db, list: string, origins: readonly number[]): number {
  const { members: had } = openList(db, list);
  for (const id of origins) {
    const like = `% ${id} %`;
    emptyWanted(db);
    db.prepare(
      `INSERT INTO wanted SELECT key FROM list_member WHERE list = ? AND ' ' || origins || ' ' LIKE ?`,
    ).run(list, like);
    const { keys } = wantedNow(db);
    changingMembers(db, list, keys, () => {
      for (const table of ['list_member', 'list_taken_member']) {
        db.prepare(`DELETE FROM ${table} WHERE list = ? AND origins = ?`).run(list, String(id));
        db.prepare(
          `UPDATE ${table} SET origins = ${ORIGINS_WITHOUT} WHERE list = ? AND ' ' || origins || ' ' LIKE ?`,
        ).run(` ${id} `, list, like);
      }
      db.prepare('DELETE FROM list_origin WHERE list = ? AND id = ?').run(list, id);
    });
  }
  db.prepare(
    'DELETE FROM list_taken WHERE list = ? AND NOT EXISTS (SELECT 1 FROM list_taken_member m WHERE m.taken = list_taken.id)',
  ).run(list);
  return had - listByKey(db, list)!.members;
}

const KEPT_OF_MEMBER = 'origins, added_at, verdict, reason, judged_by, judged_at, note, assigned';

/** Takes records off a list, which keeps what was said of them. `taken` names the act; null where none was on it. */
export function takeOff(
  db: Db,
  list: string,
  wanted: Wanted,
  how: string,
  person: string,
): { removed: number; taken: number | null } {
  openList(db, list);
  return takeWanted(db, list, chooseWanted(db, wanted), how, person);
}

function takeWanted(db: Db, list: string, { keys }: WantedTable, how: string, person: string) {
  if (countThere(db, list) === 0) return { removed: 0, taken: null };
  const taken = Number(
    db
      .prepare('INSERT INTO list_taken (list, how, person, at) VALUES (?, ?, ?, ?)')
      .run(list, how, person, Date.now()).lastInsertRowid,
  );
  const removed = changingMembers(db, list, keys, () => {
    db.prepare(
      `INSERT INTO list_taken_member (taken, key, list, ${KEPT_OF_MEMBER})
       SELECT ?, m.key, m.list, ${KEPT_OF_MEMBER} FROM list_member m WHERE m.list = ? AND m.key IN (SELECT key FROM wanted)`,
    ).run(taken, list);
    return db.prepare('DELETE FROM list_member WHERE list = ? AND key IN (SELECT key FROM wanted)').run(list)
      .changes;
  });
  return { removed, taken };
}

/** Puts back on a list what one act took off it, as it was. Returns how many. */
export function putBack(db: Db, list: string, taken: number): number {
  openList(db, list);
  const held = db.prepare('SELECT 1 FROM list_taken WHERE id = ? AND list = ?').get(taken, list);
  if (!held)
    throw new Problem(
      'unknown-step',
      `Nothing was taken off this list under "${writeStep('taken', taken)}".`,
      {
        field: 'taken',
        value: taken,
      },
    );
  emptyWanted(db);
  db.prepare('INSERT INTO wanted SELECT key FROM list_taken_member WHERE taken = ?').run(taken);
  const { keys, count } = wantedNow(db);
  changingMembers(db, list, keys, () => {
    const kept = ['note', 'assigned'].map((one) => `${one} = COALESCE(list_member.${one}, excluded.${one})`);
    const judged = ['verdict', 'reason', 'judged_by'].map(
      (one) =>
        `${one} = CASE WHEN list_member.judged_at IS NULL THEN excluded.${one} ELSE list_member.${one} END`,
    );
    db.prepare(
      `INSERT INTO list_member (list, key, ${KEPT_OF_MEMBER})
       SELECT list, key, ${KEPT_OF_MEMBER} FROM list_taken_member WHERE taken = ?
       ON CONFLICT (list, key) DO UPDATE SET origins = excluded.origins || ' ' || list_member.origins,
         added_at = excluded.added_at, ${kept.join(', ')}, ${judged.join(', ')},
         judged_at = COALESCE(list_member.judged_at, excluded.judged_at)`,
    ).run(taken);
    db.prepare('DELETE FROM list_taken WHERE id = ?').run(taken);
  });
  return count;
}

/** Puts members of one list on another with all of their origins, and, moving, takes them off the first. */
export function copyMembers(
  db: Db,
  from: string,
  to: string,
  wanted: Wanted,
  moved: { person: string } | null,
): Added & { taken: number | null } {
  const source = moved ? openList(db, from) : listByKey(db, from)!;
  const target = openList(db, to);
  if (source.subject !== target.subject)
    throw new Problem('other-subject', `${target.name} holds ${target.subject}, not ${source.subject}.`, {
      field: 'to',
      value: to,
      rule: `a list of ${source.subject}`,
    });
  chooseWanted(db, wanted);
  db.prepare('DELETE FROM wanted WHERE key NOT IN (SELECT key FROM list_member WHERE list = ?)').run(from);
  const chosen = wantedNow(db);
  const origins = copyOrigins(db, from, to, false);
  changingMembers(db, to, chosen.keys, () => insertCopies(db, from, to, origins));
  const added = listByKey(db, to)!.members - target.members;
  const taken = moved ? takeWanted(db, from, chosen, `moved to ${target.name}`, moved.person).taken : null;
  return { added, of: chosen.count, origins: [...origins.values()], taken };
}
