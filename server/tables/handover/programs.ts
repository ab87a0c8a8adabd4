import { createHash, randomBytes, randomUUID } from 'node:crypto';
import type {
  DeliveryState,
  DeliveryView,
  FolderView,
  HookView,
  HostView,
} from '../../../contract/program-views.ts';
import { Problem } from '../../../core/tape/problem.ts';
import type { Db } from '../../db/open.ts';

/** Feeds, folders, hosts, webhooks and what was delivered to them. */

export interface FeedRow {
  id: string;
  name: string;
  wish: string;
  made_at: number;
  read_at: number | null;
  times_read: number;
}

const hashed = (token: string) => createHash('sha256').update(token).digest('base64url');

export function allFeeds(db: Db): FeedRow[] {
  return db.prepare<[], FeedRow>('SELECT * FROM feed ORDER BY made_at DESC, id').all();
}

/** Makes a feed, and the token by which it is read: only its hash is kept. */
export function addFeed(db: Db, name: string, wish: string): { id: string; token: string } {
  const [id, token] = [randomUUID(), randomBytes(32).toString('base64url')];
  db.prepare('INSERT INTO feed (id, name, token_hash, wish, made_at) VALUES (?, ?, ?, ?, ?)').run(
    id,
    name,
    hashed(token),
    wish,
    Date.now(),
  );
  return { id, token };
}

export function feedOfToken(db: Db, token: string): FeedRow | undefined {
  return db.prepare<[string], FeedRow>('SELECT * FROM feed WHERE token_hash = ?').get(hashed(token));
}

export function noteFeedRead(db: Db, id: string): void {
  db.prepare('UPDATE feed SET read_at = ?, times_read = times_read + 1 WHERE id = ?').run(Date.now(), id);
}

export function removeFeed(db: Db, id: string): boolean {
  return db.prepare('DELETE FROM feed WHERE id = ?').run(id).changes > 0;
}

export function allFolders(db: Db): Omit<FolderView, 'trouble'>[] {
  return db
    .prepare<[], Omit<FolderView, 'trouble'>>(
      'SELECT id, name, path FROM folder ORDER BY name COLLATE NOCASE',
    )
    .all();
}

export function addFolder(db: Db, name: string, path: string): Omit<FolderView, 'trouble'> {
  const id = randomUUID();
  once(
    () =>
      db
        .prepare('INSERT INTO folder (id, name, path, made_at) VALUES (?, ?, ?, ?)')
        .run(id, name, path, Date.now()),
    name,
  );
  return { id, name, path };
}

export function removeFolder(db: Db, id: string): boolean {
  return db.prepare('DELETE FROM folder WHERE id = ?').run(id).changes > 0;
}

export function allHosts(db: Db): HostView[] {
  return db
    .prepare<[], { name: string; private: number }>('SELECT * FROM host ORDER BY name')
    .all()
    .map((host) => ({ name: host.name, private: host.private === 1 }));
}

export function hostNamed(db: Db, name: string): HostView | undefined {
  return allHosts(db).find((host) => host.name === name);
}

export function writeHost(db: Db, host: HostView): void {
  db.prepare(
    'INSERT INTO host (name, private) VALUES (?, ?) ON CONFLICT (name) DO UPDATE SET private = excluded.private',
  ).run(host.name, Number(host.private));
}

export function removeHost(db: Db, name: string): boolean {
  return db.prepare('DELETE FROM host WHERE name = ?').run(name).changes > 0;
}

export interface HookRow {
  id: string;
  name: string;
  url: string;
  secret: string;
  batch: number;
}

export function allHooks(db: Db): HookView[] {
  return db
    .prepare<[], HookView>(
      `SELECT h.id, h.name, h.url, h.secret, h.batch,
         count(CASE WHEN d.state = 'waiting' THEN 1 END) AS waiting,
         count(CASE WHEN d.state = 'delivered' THEN 1 END) AS delivered,
         count(CASE WHEN d.state = 'given-up' THEN 1 END) AS givenUp
       FROM hook h LEFT JOIN delivery d ON d.hook = h.id GROUP BY h.id ORDER BY h.name COLLATE NOCASE`,
    )
    .all();
}

export function hookById(db: Db, id: string): HookRow | undefined {
  return db.prepare<[string], HookRow>('SELECT id, name, url, secret, batch FROM hook WHERE id = ?').get(id);
}

/** Makes a webhook with a secret of its own, as the Standard Webhooks scheme writes them. */
export function addHook(db: Db, { name, url, batch }: Pick<HookRow, 'name' | 'url' | 'batch'>): string {
  const id = randomUUID();
  const secret = `whsec_${randomBytes(24).toString('base64')}`;
  once(
    () =>
      db
        .prepare('INSERT INTO hook (id, name, url, secret, batch, made_at) VALUES (?, ?, ?, ?, ?, ?)')
        .run(id, name, url, secret, batch, Date.now()),
    name,
  );
  return id;
}

export function removeHook(db: Db, id: string): boolean {
  return db.prepare('DELETE FROM hook WHERE id = ?').run(id).changes > 0;
}

/** Does what a name that is taken stands in the way of. @throws Problem */
function once(act: () => unknown, name: string): void {
  try {
    act();
  } catch (error) {
    if ((error as { code?: string }).code !== 'SQLITE_CONSTRAINT_UNIQUE') throw error;
    throw new Problem('name-taken', `There is one called “${name}” already.`, {
      field: 'name',
      value: name,
      rule: 'a name that no other has',
    });
  }
}

export interface DeliveryRow {
  id: string;
  hook: string | null;
  folder: string | null;
  export: string;
  nth: number;
  of: number;
  from_byte: number;
  to_byte: number;
  rows: number;
  state: DeliveryState;
  attempts: number;
  due_at: number;
  tried_at: number | null;
  answer: string | null;
}

/** Puts deliveries in line, all of an export or none. */
export function addDeliveries(
  db: Db,
  rows: readonly Omit<DeliveryRow, 'id' | 'attempts' | 'due_at' | 'tried_at'>[],
  now: number,
): void {
  const insert = db.prepare(
    `INSERT INTO delivery (id, hook, folder, export, nth, of, from_byte, to_byte, rows, state, due_at, tried_at, answer)
     VALUES (@id, @hook, @folder, @export, @nth, @of, @from_byte, @to_byte, @rows, @state, @due_at, @tried_at, @answer)`,
  );
  db.transaction(() => {
    for (const row of rows)
      insert.run({
        ...row,
        id: `msg_${randomUUID()}`,
        due_at: now,
        tried_at: row.state === 'waiting' ? null : now,
      });
  })();
}

/** The next of each webhook that waits: those of an export go in their order. */
export function dueDeliveries(db: Db, now: number): DeliveryRow[] {
  return db
    .prepare<[number], DeliveryRow>(
      `SELECT d.* FROM delivery d WHERE d.state = 'waiting' AND d.due_at <= ? AND d.hook IS NOT NULL
         AND NOT EXISTS (SELECT 1 FROM delivery e WHERE e.hook = d.hook AND e.export = d.export AND e.state = 'waiting' AND e.nth < d.nth)
       ORDER BY d.due_at, d.id LIMIT 20`,
    )
    .all(now);
}

/** When the next one is due; null where none waits. */
export function nextDue(db: Db): number | null {
  return (
    db.prepare<[], number | null>(`SELECT min(due_at) FROM delivery WHERE state = 'waiting'`).pluck().get() ??
    null
  );
}

export function noteAttempt(
  db: Db,
  id: string,
  { state, dueAt, now, answer }: { state: DeliveryState; dueAt: number; now: number; answer: string },
): void {
  db.prepare(
    'UPDATE delivery SET state = ?, due_at = ?, tried_at = ?, answer = ?, attempts = attempts + 1 WHERE id = ?',
  ).run(state, dueAt, now, answer, id);
}

const MOST_SHOWN = 200;

/** The deliveries of late, names of exports beside. */
export function lateDeliveries(db: Db, nameOf: (id: string) => string): DeliveryView[] {
  const time = (at: number | null) => (at === null ? null : new Date(at).toISOString());
  return db
    .prepare<[number], DeliveryRow & { hook_name: string | null; folder_name: string | null }>(
      `SELECT d.*, h.name AS hook_name, f.name AS folder_name FROM delivery d
         LEFT JOIN hook h ON h.id = d.hook LEFT JOIN folder f ON f.id = d.folder
       ORDER BY COALESCE(d.tried_at, d.due_at) DESC, d.nth DESC LIMIT ?`,
    )
    .all(MOST_SHOWN)
    .map((row) => ({
      ...{ id: row.id, export: row.export, nth: row.nth, of: row.of, rows: row.rows, state: row.state },
      to: (row.hook_name ?? row.folder_name)!,
      kind: row.hook === null ? 'folder' : 'hook',
      exportName: nameOf(row.export),
      attempts: row.attempts,
      dueAt: row.state === 'waiting' ? time(row.due_at) : null,
      triedAt: time(row.tried_at),
      answer: row.answer,
    }));
}

/** Sends again what was delivered or given up: one, or all of its export to the same webhook. False where there is none such. */
export function sendAgain(db: Db, id: string, all: boolean, now: number): boolean {
  const again = `UPDATE delivery SET state = 'waiting', attempts = 0, due_at = ?, answer = NULL`;
  const where = all
    ? 'WHERE hook IS NOT NULL AND (hook, export) = (SELECT hook, export FROM delivery WHERE id = ?)'
    : 'WHERE hook IS NOT NULL AND id = ?';
  return db.prepare(`${again} ${where}`).run(now, id).changes > 0;
}
