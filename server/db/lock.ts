import Database from 'better-sqlite3';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { TroubleAtStart } from '../start-trouble.ts';

/** A folder of data held by this process. */
export interface FolderLock {
  release(): void;
}

/**
 * Holds a folder of data for this process alone, before anything in it is touched. It is held by an open transaction of SQLite,
 * which the system ends with the process however that ends, so that no lock is ever left behind.
 * @throws TroubleAtStart saying who holds it
 */
export function lockFolder(dir: string): FolderLock {
  mkdirSync(dir, { recursive: true });
  const holder = join(dir, 'lock.json');
  const db = new Database(join(dir, 'lock.sqlite'), { timeout: 0 });
  try {
    db.exec('BEGIN EXCLUSIVE');
  } catch (error) {
    db.close();
    if ((error as { code?: string }).code !== 'SQLITE_BUSY') throw error;
    throw new TroubleAtStart(
      `The data in ${dir} is in use by another Just Tally${saidBy(holder)}. Use that one, stop it first, or start this one with --data and another folder.`,
    );
  }
  try {
    writeFileSync(holder, JSON.stringify({ process: process.pid, since: new Date().toISOString() }));
  } catch {
    // On a full disk it is held all the same; the next is only not told by whom.
  }
  return {
    release() {
      rmSync(holder, { force: true });
      if (db.inTransaction) db.exec('ROLLBACK');
      db.close();
    },
  };
}

function saidBy(holder: string): string {
  if (!existsSync(holder)) return '';
  try {
    const { process, since } = JSON.parse(readFileSync(holder, 'utf8')) as { process: number; since: string };
    return ` (process ${process}, since ${since.slice(0, 16).replace('T', ' ')} UTC)`;
  } catch {
    return '';
  }
}
