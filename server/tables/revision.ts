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

/** Begins a change of the universe; to be called first in its transaction. */
export function nextRevision(db: Db): number {
  const revision = revisionOf(db).revision + 1;
  db.prepare('UPDATE universe SET revision = ?').run(revision);
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
