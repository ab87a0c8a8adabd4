import type { Db } from '../../db/open.ts';

/** What a row comes to, as SQL: what was settled goes before what was found. */
export const STATE = "CASE settled WHEN 'taken' THEN 'settled' WHEN 'none' THEN 'none' ELSE outcome END";

/** The statement that settles a row: as what, the company that was taken, by whom, when; then the match and the row. */
export const settler = (db: Db) =>
  db.prepare(
    'UPDATE match_row SET settled = ?, key = ?, settled_by = ?, settled_at = ? WHERE match = ? AND row = ?',
  );
