import { OutreachSettingsBody } from '../../../contract/outreach.ts';
import type { Db } from '../../db/open.ts';

/** What holds for all that is written from this workspace; what was never set has its default. */

export function readOutreachSettings(db: Db): OutreachSettingsBody {
  const settings = new OutreachSettingsBody();
  const known = new Set(Object.keys(settings));
  for (const { key, value } of db
    .prepare<[], { key: string; value: string }>('SELECT key, value FROM setting')
    .all())
    if (known.has(key)) (settings as unknown as Record<string, unknown>)[key] = JSON.parse(value);
  return settings;
}

export function writeOutreachSettings(db: Db, settings: OutreachSettingsBody): void {
  db.transaction(() => {
    for (const [key, value] of Object.entries(settings)) write(db, key, value);
  })();
}

/** Whether the outbox stands still until somebody lets it go on. */
export function isPaused(db: Db): boolean {
  return db.prepare<[], string>("SELECT value FROM setting WHERE key = 'paused'").pluck().get() === 'true';
}

export function setPaused(db: Db, paused: boolean): void {
  write(db, 'paused', paused);
}

function write(db: Db, key: string, value: unknown): void {
  db.prepare(
    'INSERT INTO setting (key, value) VALUES (?, ?) ON CONFLICT (key) DO UPDATE SET value = excluded.value',
  ).run(key, JSON.stringify(value));
}
