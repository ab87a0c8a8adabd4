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
  if (joined.length === 0) return 0;
  db.exec(
    'CREATE TEMP TABLE IF NOT EXISTS followed (gone TEXT PRIMARY KEY, key TEXT NOT NULL) WITHOUT ROWID; DELETE FROM followed',
  );
  db.prepare("INSERT INTO followed SELECT value ->> 'gone', value ->> 'key' FROM json_each(?)").run(
    JSON.stringify(joined),
  );
  const members = db
    .prepare<[], { list: string; gone: string; key: string }>(
      `SELECT m.list, f.gone, f.key FROM list_member m CROSS JOIN followed f ON f.gone = m.key
       JOIN list l ON l.key = m.list AND l.subject = 'companies'`,
    )
    .all();
  const put = db.prepare(
    `INSERT INTO list_member (list, key, origins, added_at, verdict, reason, judged_by, judged_at, note, assigned)
     SELECT list, ?, origins, added_at, verdict, reason, judged_by, judged_at, note, assigned FROM list_member WHERE list = ? AND key = ?
     ON CONFLICT (list, key) DO UPDATE SET origins = list_member.origins || ' ' || excluded.origins,
       added_at = min(list_member.added_at, excluded.added_at), ${KEEP}`,
  );
  const remove = db.prepare('DELETE FROM list_member WHERE list = ? AND key = ?');
  const others = ['list_tag', 'list_carried', 'list_carried_cell'].map((table) => ({
    move: db.prepare(`UPDATE OR IGNORE ${table} SET key = ? WHERE list = ? AND key = ?`),
    drop: db.prepare(`DELETE FROM ${table} WHERE list = ? AND key = ?`),
  }));
  const history = db.prepare('UPDATE list_judgement SET key = ? WHERE list = ? AND key = ?');
  for (const list of new Set(members.map((member) => member.list))) {
    const own = members.filter((member) => member.list === list);
    const touched = own.flatMap(({ gone, key }) => [gone, key]);
    changingMembers(db, list, touched, () => {
      for (const { gone, key } of own) {
        put.run(key, list, gone);
        remove.run(list, gone);
        for (const { move, drop } of others) {
          move.run(key, list, gone);
          drop.run(list, gone);
        }
        history.run(key, list, gone);
      }
    });
  }
  return members.length;
}
