import type { Db } from '../../db/open.ts';
import { changingMembers } from './members.ts';

/** What is said of a member twice is said once: the earlier verdict, note and hand stay unless there was none. */
const KEEP = ['verdict', 'reason', 'judged_by', 'judged_at']
  .map(
    (one) =>
      `${one} = CASE WHEN list_member.judged_at IS NULL THEN excluded.${one} ELSE list_member.${one} END`,
  )
  .concat(['note', 'assigned'].map((one) => `${one} = COALESCE(list_member.${one}, excluded.${one})`))
  .join(', ');

/**
 * Members of lists of companies whose company was joined to another: the other is on the list instead, with all that was said of
 * them. Returns how many members were changed.
 */
export function followKeys(db: Db, joined: readonly { gone: string; key: string }[]): number {
  const listsWith = db
    .prepare<[string], string>(
      "SELECT m.list FROM list_member m JOIN list l ON l.key = m.list WHERE m.key = ? AND l.subject = 'companies' AND l.removed_at IS NULL",
    )
    .pluck();
  const put = db.prepare(
    `INSERT INTO list_member (list, key, origins, added_at, verdict, reason, judged_by, judged_at, note, assigned)
     SELECT list, ?, origins, added_at, verdict, reason, judged_by, judged_at, note, assigned FROM list_member WHERE list = ? AND key = ?
     ON CONFLICT (list, key) DO UPDATE SET origins = list_member.origins || ' ' || excluded.origins,
       added_at = min(list_member.added_at, excluded.added_at), ${KEEP}`,
  );
  const remove = db.prepare('DELETE FROM list_member WHERE list = ? AND key = ?');
  const others = ['list_tag', 'list_carried'].map(
    (table) =>
      [
        db.prepare(`UPDATE OR IGNORE ${table} SET key = ? WHERE list = ? AND key = ?`),
        db.prepare(`DELETE FROM ${table} WHERE list = ? AND key = ?`),
      ] as const,
  );
  const history = db.prepare('UPDATE list_judgement SET key = ? WHERE list = ? AND key = ?');
  let changed = 0;
  for (const { gone, key } of joined)
    for (const list of listsWith.all(gone)) {
      changingMembers(db, list, [gone, key], () => {
        put.run(key, list, gone);
        remove.run(list, gone);
        for (const [move, drop] of others) {
          move.run(key, list, gone);
          drop.run(list, gone);
        }
        history.run(key, list, gone);
      });
      changed++;
    }
  return changed;
}
