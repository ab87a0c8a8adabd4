import Database from 'better-sqlite3';
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { languageNameOf } from '../../core/people/languages.ts';
import { wordsColumn } from '../../core/tape/sql/words-column.ts';
import { gatherMigrations } from './gather-schema.ts';
import { handoverMigrations } from './handover-schema.ts';
import { listsMigrations } from './lists-schema.ts';
import { matchesMigrations } from './matches-schema.ts';
import { outreachMigrations } from './outreach-schema.ts';
import { runsMigrations } from './runs-schema.ts';
import { universeMigrations } from './universe-schema.ts';
import { workspaceMigrations } from './workspace-schema.ts';

export type Db = Database.Database;

/**
 * Eight files, so that long work never holds up what the user does meanwhile: `universe.sqlite` has
 * sources, records and companies and is written by one load at a time; `lists.sqlite` has the lists
 * and is written by the thread of `server/lists/`; `matches.sqlite` has files lined up with the
 * universe, each written at once by its job; `outreach.sqlite` has campaigns, their messages and what
 * came back; `handover.sqlite` has what was handed over to whom, templates of exports and what other
 * programs are given; `gather.sqlite` has gatherers, their runs and the pages read; `runs.sqlite`
 * has what runs when, what came of it, and what one asked to be told; `workspace.sqlite` has settings, tapes, exports and jobs.
 */
export function openUniverse(dir: string, options: { readonly?: boolean } = {}): Db {
  const db = open(dir, 'universe.sqlite', universeMigrations, options.readonly === true);
  // Only threads of jobs write it; one waits for another's transaction, which may be long.
  if (!options.readonly) db.pragma(PATIENT);
  return db;
}

const PATIENT = 'busy_timeout = 600000';

/**
 * The universe for a thread that writes or takes out very many companies with all that hangs on them: that each row hangs on one
 * that is there is seen to by the thread, since SQLite's own looking it up row by row takes a third of the time.
 */
export function openUniverseInBulk(dir: string): Db {
  const db = openUniverse(dir);
  db.pragma('foreign_keys = OFF');
  return db;
}

export function openWorkspace(dir: string, options: { readonly?: boolean } = {}): Db {
  return open(dir, 'workspace.sqlite', workspaceMigrations, options.readonly === true);
}

export function openLists(dir: string, options: { readonly?: boolean } = {}): Db {
  return open(dir, 'lists.sqlite', listsMigrations, options.readonly === true);
}

export function openMatches(dir: string, options: { readonly?: boolean } = {}): Db {
  return open(dir, 'matches.sqlite', matchesMigrations, options.readonly === true);
}

/** The matches for a thread that writes one whole, which may take a while where another is being written. */
export function openMatchesToFill(dir: string): Db {
  const db = openMatches(dir);
  db.pragma(PATIENT);
  return db;
}

export function openOutreach(dir: string, options: { readonly?: boolean } = {}): Db {
  const db = open(dir, 'outreach.sqlite', outreachMigrations, options.readonly === true);
  // What is said to be on its way must outlive a failing machine too, or somebody is written to twice.
  if (!options.readonly) db.pragma('synchronous = FULL');
  return db;
}

export function openHandover(dir: string, options: { readonly?: boolean } = {}): Db {
  const db = open(dir, 'handover.sqlite', handoverMigrations, options.readonly === true);
  // What is said to have been handed over must outlive a failing machine too, or somebody is given it twice.
  if (!options.readonly) db.pragma('synchronous = FULL');
  return db;
}

export function openGather(dir: string, options: { readonly?: boolean } = {}): Db {
  return open(dir, 'gather.sqlite', gatherMigrations, options.readonly === true);
}

export function openRuns(dir: string, options: { readonly?: boolean } = {}): Db {
  return open(dir, 'runs.sqlite', runsMigrations, options.readonly === true);
}

function open(dir: string, file: string, migrations: readonly string[], readonly: boolean): Db {
  mkdirSync(dir, { recursive: true });
  const db = new Database(join(dir, file), { readonly });
  db.pragma('busy_timeout = 10000');
  db.pragma('foreign_keys = ON');
  db.pragma('cache_size = -65536');
  if (!readonly) {
    db.pragma('journal_mode = WAL');
    db.pragma('synchronous = NORMAL');
    db.function('words_column', { deterministic: true }, wordsColumn);
    db.function('language_of', { deterministic: true }, languageNameOf);
    migrate(db, migrations);
  }
  return db;
}

/** Applies the migrations that the file has not seen; their number is kept in `user_version`. */
function migrate(db: Db, migrations: readonly string[]): void {
  const seen = db.pragma('user_version', { simple: true }) as number;
  if (seen > migrations.length)
    throw new Error(
      `This data was written by a newer Just Tally (version ${seen}; this one knows ${migrations.length}). Start the newer one.`,
    );
  for (let n = seen; n < migrations.length; n++)
    db.transaction(() => {
      db.exec(migrations[n]!);
      db.pragma(`user_version = ${n + 1}`);
    })();
}
