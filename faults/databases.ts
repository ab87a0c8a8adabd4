import Database from 'better-sqlite3';
import { join } from 'node:path';
import { hold } from './harness.ts';

const FILES = [
  'universe.sqlite',
  'workspace.sqlite',
  'lists.sqlite',
  'matches.sqlite',
  'outreach.sqlite',
  'handover.sqlite',
  'gather.sqlite',
  'runs.sqlite',
];

/** Whether all databases of a folder are whole: pages, indexes and references. */
export function checkDatabases(dir: string): void {
  for (const file of FILES) {
    const db = new Database(join(dir, file), { readonly: true });
    try {
      const integrity = db.pragma('integrity_check', { simple: true });
      hold(integrity === 'ok', `${file}: ${String(integrity)}`);
      const broken = db.pragma('foreign_key_check') as unknown[];
      hold(broken.length === 0, `${file}: ${broken.length} references lead nowhere`);
    } finally {
      db.close();
    }
  }
}
