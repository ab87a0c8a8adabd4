import { nanoid } from 'nanoid';
import { nextVersion } from './version.ts';
import type { Db } from '../db/open.ts';

/** A tape kept by name, or lines kept to be put on other tapes. */
export interface SavedTapeRow {
  id: string;
  kind: 'tape' | 'part';
  name: string;
  body: string;
  count: number | null;
  universe: number | null;
  /** 1 for the one that the program opens with. */
  opening: number;
  saved_at: string;
}

export function allSavedTapes(db: Db): SavedTapeRow[] {
  return db.prepare<[], SavedTapeRow>('SELECT * FROM saved_tape ORDER BY kind DESC, name, id').all();
}

export function savedTapeById(db: Db, id: string): SavedTapeRow | undefined {
  return db.prepare<[string], SavedTapeRow>('SELECT * FROM saved_tape WHERE id = ?').get(id);
}

/** Writes a tape under an id, or under a new one. */
export function writeSavedTape(
  db: Db,
  tape: Omit<SavedTapeRow, 'id' | 'saved_at' | 'opening'> & { id?: string; opening?: number },
): SavedTapeRow {
  const before = tape.id === undefined ? undefined : savedTapeById(db, tape.id);
  const row: SavedTapeRow = {
    opening: before?.opening ?? 0,
    ...tape,
    id: tape.id ?? nanoid(10),
    saved_at: nextVersion(),
  };
  db.prepare(
    'INSERT OR REPLACE INTO saved_tape (id, kind, name, body, count, universe, opening, saved_at) VALUES (@id, @kind, @name, @body, @count, @universe, @opening, @saved_at)',
  ).run(row);
  return row;
}

export function removeSavedTape(db: Db, id: string): boolean {
  return db.prepare('DELETE FROM saved_tape WHERE id = ?').run(id).changes > 0;
}

/** The tape that the program opens with, if one is chosen. */
export function openingTape(db: Db): SavedTapeRow | undefined {
  return db
    .prepare<[], SavedTapeRow>("SELECT * FROM saved_tape WHERE opening = 1 AND kind = 'tape' LIMIT 1")
    .get();
}
