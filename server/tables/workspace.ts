import { createHash } from 'node:crypto';
import { SETTINGS, type Settings } from '../../core/settings.ts';
import type { Db } from '../db/open.ts';
import { factsChanged } from './facts.ts';

/** Settings of the workspace; what was never set has its default. */
export function readSettings(db: Db): Settings {
  const settings: Settings = { ...SETTINGS };
  for (const { key, value } of db
    .prepare<[], { key: string; value: string }>('SELECT key, value FROM setting')
    .all())
    (settings as unknown as Record<string, unknown>)[key] = JSON.parse(value);
  return settings;
}

export function writeSettings(db: Db, settings: Settings): void {
  const write = db.prepare(
    'INSERT INTO setting (key, value) VALUES (?, ?) ON CONFLICT (key) DO UPDATE SET value = excluded.value',
  );
  db.transaction(() => {
    for (const [key, value] of Object.entries(settings)) write.run(key, JSON.stringify(value));
    factsChanged(db);
  })();
}

/** Keeps a tape that is too long for an address; the same tape has the same id. */
export function storeTape(db: Db, tape: unknown): string {
  const body = JSON.stringify(tape);
  const id = createHash('sha256').update(body).digest('base64url').slice(0, 16);
  db.prepare('INSERT OR IGNORE INTO tape (id, body, stored_at) VALUES (?, ?, ?)').run(
    id,
    body,
    new Date().toISOString(),
  );
  return id;
}

export function storedTape(db: Db, id: string): unknown {
  const body = db.prepare<[string], string>('SELECT body FROM tape WHERE id = ?').pluck().get(id);
  return body === undefined ? undefined : JSON.parse(body);
}
