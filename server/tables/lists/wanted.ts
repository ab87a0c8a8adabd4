import { subjectOf } from '../../../core/fields/registry.ts';
import { Problem } from '../../../core/tape/problem.ts';
import type { Db } from '../../db/open.ts';

/** Which records an act on a list is about: by key, or as ids of one state of the universe. */
export type Wanted = { keys: string[] } | { ids: Uint32Array; subject: string; revision: number };

/** Keys that are handed on by name; of more, a list is read again as a whole. */
const MOST_NAMED = 5000;

/** More than one in so many of all companies. */
const SCANNED_FROM = 10;

/** The keys of a table `wanted` that holds each of the records once. */
export interface WantedTable {
  count: number;
  /** Null where they are many. */
  keys: string[] | null;
}

/** Empties the table `wanted` of this connection, which is made where it is not there. */
export function emptyWanted(db: Db): void {
  db.exec('CREATE TEMP TABLE IF NOT EXISTS wanted (key TEXT PRIMARY KEY) WITHOUT ROWID; DELETE FROM wanted');
}

/**
 * Fills the table `wanted` of this connection, which has the universe attached as `u`.
 * @throws Problem where the universe has changed since the ids were found
 */
export function chooseWanted(db: Db, wanted: Wanted): WantedTable {
  emptyWanted(db);
  if ('keys' in wanted)
    db.prepare('INSERT OR IGNORE INTO wanted SELECT value FROM json_each(?) WHERE typeof(value) = ?').run(
      JSON.stringify(wanted.keys),
      'text',
    );
  else {
    const now = db.prepare<[], number>('SELECT revision FROM u.universe').pluck().get();
    if (now !== wanted.revision)
      throw new Problem(
        'universe-changed',
        'The universe has changed meanwhile. Count again and do it anew.',
      );
    const ids = () => `[${wanted.ids.join()}]`;
    const all = db.prepare<[], number>('SELECT count(*) FROM u.company').pluck();
    if (wanted.subject === 'companies' && wanted.ids.length * SCANNED_FROM > all.get()!) {
      // Most of them: their keys are read in order from the index, and no row is.
      const whole = wanted.ids.length === all.get()!;
      if (!whole) {
        db.exec('CREATE TEMP TABLE IF NOT EXISTS wanted_id (id INTEGER PRIMARY KEY); DELETE FROM wanted_id');
        db.prepare('INSERT OR IGNORE INTO wanted_id SELECT value FROM json_each(?)').run(ids());
      }
      db.exec(
        `INSERT INTO wanted SELECT key FROM u.company ${whole ? '' : 'WHERE +id IN (SELECT id FROM wanted_id)'} ORDER BY key`,
      );
    } else if (wanted.subject === 'companies')
      db.prepare(
        'INSERT OR IGNORE INTO wanted SELECT c.key FROM json_each(?) j CROSS JOIN u.company c ON c.id = j.value ORDER BY c.key',
      ).run(ids());
    else
      db.prepare(`INSERT OR IGNORE INTO wanted SELECT ? || value AS key FROM json_each(?) ORDER BY key`).run(
        `${subjectOf(wanted.subject).table}-`,
        ids(),
      );
  }
  return wantedNow(db);
}

/** What the table holds now. */
export function wantedNow(db: Db): WantedTable {
  const count = db.prepare<[], number>('SELECT count(*) FROM wanted').pluck().get()!;
  const keys = count <= MOST_NAMED ? db.prepare<[], string>('SELECT key FROM wanted').pluck().all() : null;
  return { count, keys };
}
