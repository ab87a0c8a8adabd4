import type { Db } from '../../db/open.ts';

/** Which records came to pass a saved tape between two runs of it, and on which day. */

/** How often any of it was changed. */
export function joinedRevision(db: Db): number {
  return db.prepare<[], number>('SELECT joined FROM facts').pluck().get()!;
}

/** The plans of tapes that have run, by name; `revision` grows with each run. */
export function joinableTapes(db: Db): { key: string; name: string; revision: number }[] {
  return db
    .prepare<[], { key: string; name: string; revision: number }>(
      `SELECT p.key, p.name, max(r.nth) AS revision FROM plan p JOIN run r ON r.plan = p.key
       WHERE p.kind = 'tape' AND p.removed_at IS NULL AND r.state = 'done' GROUP BY p.key ORDER BY p.name COLLATE NOCASE`,
    )
    .all();
}

/** Notes who joined a tape on a day, and that those who left are not on it any more. Without any, nobody has to read it anew but where the tape has first run. */
export function noteJoined(
  db: Db,
  { subject, tape, day, first }: { subject: string; tape: string; day: number; first: boolean },
  joined: readonly string[],
  left: readonly string[],
): void {
  const put = db.prepare('INSERT OR REPLACE INTO joined_tape (subject, tape, key, day) VALUES (?, ?, ?, ?)');
  const drop = db.prepare('DELETE FROM joined_tape WHERE subject = ? AND tape = ? AND key = ?');
  for (const key of left) drop.run(subject, tape, key);
  for (const key of joined) put.run(subject, tape, key, day);
  if (first || joined.length || left.length) db.prepare('UPDATE facts SET joined = joined + 1').run();
}
