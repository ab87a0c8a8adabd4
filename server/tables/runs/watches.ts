import { nanoid } from 'nanoid';
import type { WatchBody, WatchSubject, WatchView } from '../../../contract/runs.ts';
import type { WatchedKind } from '../../../core/runs/happenings.ts';
import type { Db } from '../../db/open.ts';

/** What one wants to be told of. */

export interface Watch extends WatchView {
  /** The change of the universe up to which was looked, and when. */
  seen: number;
  seenAt: number;
}

interface WatchRow {
  id: string;
  subject: WatchSubject;
  key: string;
  name: string;
  kinds: string;
  growth: number | null;
  rate: WatchView['rate'];
  ways: string;
  seen: number;
  seen_at: number;
  made_at: number;
}

const watchOf = (row: WatchRow): Watch => ({
  ...{ id: row.id, subject: row.subject, key: row.key, name: row.name, growth: row.growth, rate: row.rate },
  kinds: JSON.parse(row.kinds) as WatchedKind[],
  ways: JSON.parse(row.ways) as string[],
  madeAt: new Date(row.made_at).toISOString(),
  ...{ seen: row.seen, seenAt: row.seen_at },
});

export function allWatches(db: Db): Watch[] {
  return db.prepare<[], WatchRow>('SELECT * FROM watch ORDER BY name COLLATE NOCASE').all().map(watchOf);
}

export function watchOn(db: Db, subject: string, key: string): Watch | undefined {
  const row = db
    .prepare<[string, string], WatchRow>('SELECT * FROM watch WHERE subject = ? AND key = ?')
    .get(subject, key);
  return row && watchOf(row);
}

/** Begins to watch something, or changes how it is watched. */
export function writeWatch(
  db: Db,
  wish: WatchBody,
  { name, person, revision, now }: { name: string; person: string; revision: number; now: number },
): Watch {
  db.prepare(
    `INSERT INTO watch (id, subject, key, name, kinds, growth, rate, ways, person, seen, seen_at, made_at)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)
     ON CONFLICT (subject, key) DO UPDATE SET name = excluded.name, kinds = excluded.kinds, growth = excluded.growth,
       rate = excluded.rate, ways = excluded.ways`,
  ).run(
    ...[nanoid(12), wish.subject, wish.key, name, JSON.stringify(wish.kinds), wish.growth ?? null, wish.rate],
    ...[JSON.stringify(wish.ways), person, revision, now, now],
  );
  return watchOn(db, wish.subject, wish.key)!;
}

/** Notes up to where was looked. */
export function setSeen(db: Db, id: string, revision: number, now: number): void {
  db.prepare('UPDATE watch SET seen = ?, seen_at = ? WHERE id = ?').run(revision, now, id);
}

export function removeWatch(db: Db, id: string): boolean {
  return db.prepare('DELETE FROM watch WHERE id = ?').run(id).changes > 0;
}
