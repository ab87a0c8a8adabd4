import type { Db } from '../../db/open.ts';

/** The search for doubles that is kept, and which companies stay apart. */

/** The search for doubles that is kept; the newest where there are several. */
export function doublesMatch(db: Db): string | null {
  return (
    db
      .prepare<[], string>("SELECT id FROM match WHERE of = 'doubles' ORDER BY made_at DESC LIMIT 1")
      .pluck()
      .get() ?? null
  );
}

/** Notes that two companies stay apart. */
export function keepApart(db: Db, pairs: readonly (readonly [string, string])[]): void {
  const note = db.prepare('INSERT OR IGNORE INTO company_apart (a, b) VALUES (?, ?)');
  db.transaction(() => {
    for (const [a, b] of pairs)
      if (a < b) note.run(a, b);
      else note.run(b, a);
  })();
}

/** Pairs that stay apart, as "a b" with the lesser key first. */
export function apartPairs(db: Db): ReadonlySet<string> {
  return new Set(db.prepare<[], string>("SELECT a || ' ' || b FROM company_apart").pluck().all());
}

/** Takes rows of a search for doubles away whose companies are not there any more. */
export function forgetRows(db: Db, id: string, gone: ReadonlySet<string>): void {
  const remove = db.prepare(
    "DELETE FROM match_row WHERE match = ? AND json_extract(cells, '$[0]') IN (SELECT value FROM json_each(?))",
  );
  db.transaction(() => {
    const { changes } = remove.run(id, JSON.stringify([...gone]));
    db.prepare('UPDATE match SET rows = rows - ? WHERE id = ?').run(changes, id);
  })();
}

/** Notes that a match holds for the universe as it is now. */
export function noteUniverse(db: Db, id: string, universe: string): void {
  db.prepare('UPDATE match SET universe = ? WHERE id = ?').run(universe, id);
}
