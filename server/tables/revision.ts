import type { Db } from '../db/open.ts';

/** Changes of which the companies are kept by id; a snapshot older than that is built anew. */
const KEPT = 8;

export interface Revision {
  /** Names this universe for good, so that columns of another are never taken for its own. */
  stamp: string;
  /** Grows with each load and removal. */
  revision: number;
}

export function revisionOf(db: Db): Revision {
  return db.prepare<[], Revision>('SELECT stamp, revision FROM universe').get()!;
}

/**
 * Begins a change of the universe; to be called first in its transaction.
 * @param what what it does, in words
 * @param day the day of which it speaks; where left out that of the newest source
 */
export function nextRevision(db: Db, what: string, day?: number): number {
  const revision = revisionOf(db).revision + 1;
  db.prepare('UPDATE universe SET revision = ?').run(revision);
  db.prepare(
    'INSERT INTO revision_log (revision, at, day, what) VALUES (?, ?, COALESCE(?, (SELECT max(as_of) FROM source), 0), ?)',
  ).run(revision, Date.now(), day ?? null, what);
  db.prepare('DELETE FROM company_change WHERE revision <= ?').run(revision - KEPT);
  return revision;
}

/**
 * Ids of the companies remade or removed since a revision, ascending; those added since are not
 * among them. Null where that is too long ago to tell.
 */
export function changedSince(db: Db, since: Revision): number[] | null {
  const now = revisionOf(db);
  if (now.stamp !== since.stamp || since.revision > now.revision || since.revision < now.revision - KEPT)
    return null;
  return db
    .prepare<[number], number>(
      'SELECT DISTINCT company_id FROM company_change WHERE revision > ? ORDER BY company_id',
    )
    .pluck()
    .all(since.revision);
}

/** A change of the universe: when it was made, of which day it speaks, and what it did. */
export interface LoggedRevision {
  revision: number;
  /** Ms since 1970. */
  at: number;
  day: number;
  what: string;
}

/** The changes of the universe after one of them, up to another, the oldest first. */
export function revisionsBetween(db: Db, after: number, upTo: number): LoggedRevision[] {
  return db
    .prepare<[number, number], LoggedRevision>(
      'SELECT revision, at, day, what FROM revision_log WHERE revision > ? AND revision <= ? ORDER BY revision',
    )
    .all(after, upTo);
}

/** The number after the highest that a record of a table ever had, though the record be gone. */
export function nextId(db: Db, table: string): number {
  const [here, ever] = [
    db.prepare<[], number>(`SELECT COALESCE(max(id), 0) FROM ${table}`).pluck().get()!,
    db.prepare<[string], number>('SELECT id FROM last_id WHERE name = ?').pluck().get(table) ?? 0,
  ];
  return Math.max(here, ever) + 1;
}

/** Keeps the numbers that are given now from being given again; to be called before records of a table are taken away. */
export function keepIds(db: Db, table: string): void {
  db.prepare('INSERT OR REPLACE INTO last_id (name, id) VALUES (?, ?)').run(table, nextId(db, table) - 1);
}

/** The change of the universe that last touched the records of a subject; 0 where none did. */
export function subjectRevision(db: Db, subject: string): number {
  return (
    db
      .prepare<[string], number>('SELECT revision FROM subject_change WHERE subject = ?')
      .pluck()
      .get(subject) ?? 0
  );
}

export function noteSubjectChange(db: Db, subject: string, revision: number): void {
  db.prepare('INSERT OR REPLACE INTO subject_change (subject, revision) VALUES (?, ?)').run(
    subject,
    revision,
  );
}
