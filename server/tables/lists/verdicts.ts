import type { ListVerdict } from '../../../core/tape/nodes.ts';
import { Problem } from '../../../core/tape/problem.ts';
import type { MemberView } from '../../../contract/lists.ts';
import type { Db } from '../../db/open.ts';
import { changingMembers } from './members.ts';
import { knownList } from './list-rows.ts';
import { chooseWanted, type Wanted } from './wanted.ts';

/** What people say of members: verdicts with their history, notes, tags and to whom they are assigned. */

export interface Judged {
  judged: number;
  /** Names what was judged at once, so that it is taken back together. */
  batch: number;
}

/** Gives members of a list a verdict; the ones before stay in the history. */
export function judge(
  db: Db,
  list: string,
  wanted: Wanted,
  verdict: ListVerdict,
  reason: string | null,
  person: string,
): Judged {
  knownList(db, list);
  const { keys } = chooseWanted(db, wanted);
  const batch =
    1 + (db.prepare<[], number | null>('SELECT max(batch) FROM list_judgement').pluck().get() ?? 0);
  const at = Date.now();
  const judged = changingMembers(db, list, keys, () => {
    db.prepare(
      `INSERT INTO list_judgement (batch, list, key, verdict, reason, person, at, was, was_reason, was_by, was_at)
       SELECT ?, m.list, m.key, ?, ?, ?, ?, m.verdict, m.reason, m.judged_by, m.judged_at
       FROM wanted w CROSS JOIN list_member m ON m.list = ? AND m.key = w.key`,
    ).run(batch, verdict, reason, person, at, list);
    const given = verdict !== 'not-judged';
    return db
      .prepare(
        `UPDATE list_member SET verdict = ?, reason = ?, judged_by = ?, judged_at = ?
         WHERE list = ? AND key IN (SELECT key FROM wanted)`,
      )
      .run(verdict, reason, given ? person : null, given ? at : null, list).changes;
  });
  if (reason !== null && judged > 0)
    db.prepare(
      'INSERT INTO list_reason (reason, used) VALUES (?, 1) ON CONFLICT (reason) DO UPDATE SET used = used + 1',
    ).run(reason);
  return { judged, batch };
}

/** Takes back the verdicts given at once, but for members judged again since. Returns how many. */
export function takeBackVerdicts(db: Db, list: string, batch: number): number {
  const rows = db
    .prepare<[number, string], { key: string }>(
      `SELECT j.key FROM list_judgement j JOIN list_member m ON m.list = j.list AND m.key = j.key
       WHERE j.batch = ? AND j.list = ? AND NOT EXISTS
         (SELECT 1 FROM list_judgement l WHERE l.list = j.list AND l.key = j.key AND l.id > j.id)`,
    )
    .all(batch, list);
  const keys = rows.map(({ key }) => key);
  chooseWanted(db, { keys });
  changingMembers(db, list, keys, () => {
    db.prepare(
      `UPDATE list_member SET (verdict, reason, judged_by, judged_at) =
         (SELECT was, was_reason, was_by, was_at FROM list_judgement j WHERE j.batch = ? AND j.list = list_member.list AND j.key = list_member.key)
       WHERE list = ? AND key IN (SELECT key FROM wanted)`,
    ).run(batch, list);
    db.prepare(
      'DELETE FROM list_judgement WHERE batch = ? AND list = ? AND key IN (SELECT key FROM wanted)',
    ).run(batch, list);
  });
  return keys.length;
}

interface Details {
  note?: string | null;
  assigned?: string | null;
  /** Tags put on, and those taken off. */
  tag?: string[];
  untag?: string[];
}

interface DetailsBefore {
  key: string;
  note: string | null;
  assigned: string | null;
  tags: string[];
}

/** Members of which notes, tags and the like can be changed at once. */
const MOST_DESCRIBED = 100_000;

/** Changes what is noted of members. `undo` names the change, so that it can be taken back. */
export function describeMembers(
  db: Db,
  list: string,
  wanted: Wanted,
  { note, assigned, tag = [], untag = [] }: Details,
): { described: number; undo: number } {
  knownList(db, list);
  const { keys, count } = chooseWanted(db, wanted);
  if (count > MOST_DESCRIBED)
    throw new Problem(
      'too-many',
      `Notes, tags and names can be given to ${MOST_DESCRIBED} members at once.`,
      {
        value: count,
        rule: `at most ${MOST_DESCRIBED}`,
      },
    );
  const before = db
    .prepare<[string], Omit<DetailsBefore, 'tags'> & { tags: string }>(
      `SELECT m.key, m.note, m.assigned, (SELECT json_group_array(tag) FROM list_tag t WHERE t.list = m.list AND t.key = m.key) AS tags
       FROM wanted w CROSS JOIN list_member m ON m.list = ? AND m.key = w.key`,
    )
    .all(list)
    .map((row): DetailsBefore => ({ ...row, tags: JSON.parse(row.tags) as string[] }));
  const undo = Number(
    db.prepare('INSERT INTO list_undo (list, before) VALUES (?, ?)').run(list, JSON.stringify(before))
      .lastInsertRowid,
  );
  const of = 'WHERE list = ? AND key IN (SELECT key FROM wanted)';
  changingMembers(db, list, keys, () => {
    if (note !== undefined) db.prepare(`UPDATE list_member SET note = ? ${of}`).run(note || null, list);
    if (assigned !== undefined)
      db.prepare(`UPDATE list_member SET assigned = ? ${of}`).run(assigned || null, list);
    for (const one of tag)
      db.prepare(
        `INSERT OR IGNORE INTO list_tag (list, key, tag) SELECT list, key, ? FROM list_member ${of}`,
      ).run(one, list);
    for (const one of untag) db.prepare(`DELETE FROM list_tag ${of} AND tag = ?`).run(list, one);
  });
  return { described: before.length, undo };
}

/** Takes back one change of notes, tags and the like. */
export function takeBackDetails(db: Db, list: string, undo: number): number {
  const stored = db
    .prepare<[number, string], string>('SELECT before FROM list_undo WHERE id = ? AND list = ?')
    .pluck()
    .get(undo, list);
  if (stored === undefined) return 0;
  const rows = JSON.parse(stored) as DetailsBefore[];
  const keys = rows.map(({ key }) => key);
  changingMembers(db, list, keys.length > 5000 ? null : keys, () => {
    const set = db.prepare('UPDATE list_member SET note = ?, assigned = ? WHERE list = ? AND key = ?');
    const clear = db.prepare('DELETE FROM list_tag WHERE list = ? AND key = ?');
    const tagged = db.prepare('INSERT OR IGNORE INTO list_tag (list, key, tag) VALUES (?, ?, ?)');
    for (const { key, note, assigned, tags } of rows) {
      set.run(note, assigned, list, key);
      clear.run(list, key);
      for (const tag of tags) tagged.run(list, key, tag);
    }
  });
  db.prepare('DELETE FROM list_undo WHERE id = ?').run(undo);
  return rows.length;
}

interface MemberRow extends Omit<MemberView, 'tags' | 'origins' | 'judgedAt' | 'history'> {
  origins: string;
  judgedAt: number | null;
  listName: string;
  subject: string;
}

const iso = (ms: number | null) => (ms === null ? null : new Date(ms).toISOString());

/** A record as a member of each list that it is on, with all of its origins and verdicts. */
export function membershipsOf(db: Db, subject: string, key: string): MemberView[] {
  const rows = db
    .prepare<[string, string], MemberRow>(
      `SELECT m.list, l.name, m.origins, m.verdict, m.reason, m.judged_by AS judgedBy, m.judged_at AS judgedAt, m.note, m.assigned
       FROM list l JOIN list_member m ON m.list = l.key AND m.key = ?
       WHERE l.subject = ? AND l.removed_at IS NULL ORDER BY l.name`,
    )
    .all(key, subject);
  const origin = db.prepare<[number], { kind: string; what: string; person: string; at: number }>(
    'SELECT kind, what, person, at FROM list_origin WHERE id = ?',
  );
  const tags = db
    .prepare<[string, string], string>('SELECT tag FROM list_tag WHERE list = ? AND key = ? ORDER BY tag')
    .pluck();
  const history = db.prepare<
    [string, string],
    { verdict: ListVerdict; reason: string | null; person: string; at: number }
  >(
    'SELECT verdict, reason, person, at FROM list_judgement WHERE list = ? AND key = ? ORDER BY id DESC LIMIT 20',
  );
  return rows.map((row) => ({
    list: row.list,
    name: row.name,
    verdict: row.verdict,
    reason: row.reason,
    judgedBy: row.judgedBy,
    judgedAt: iso(row.judgedAt),
    note: row.note,
    assigned: row.assigned,
    tags: tags.all(row.list, key),
    origins: row.origins.split(' ').flatMap((id) => {
      const found = origin.get(Number(id));
      return found ? [{ ...found, at: iso(found.at)! }] : [];
    }),
    history: history.all(row.list, key).map((one) => ({ ...one, at: iso(one.at)! })),
  }));
}

/** Reasons for being out, the most used first. */
export function reasonsByUse(db: Db): string[] {
  return db
    .prepare<[], string>('SELECT reason FROM list_reason ORDER BY used DESC, reason LIMIT 50')
    .pluck()
    .all();
}
