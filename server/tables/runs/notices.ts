import { nanoid } from 'nanoid';
import type { NoticeView } from '../../../contract/runs.ts';
import type { Db } from '../../db/open.ts';

/** What there is to tell, and whether it was told and read. */

/** Notices that are listed; older ones are taken away. */
const KEPT = 500;

export interface Notice {
  kind: NoticeView['kind'];
  title: string;
  why: string;
  items: readonly string[];
  link: string;
  /** bell, mail, feed, or the id of a webhook. */
  ways: readonly string[];
  /** When it is told by mail and webhook; it stands under the bell at once. */
  dueAt: number;
}

interface NoticeRow extends Omit<Notice, 'items' | 'ways' | 'dueAt'> {
  id: string;
  at: number;
  items: string;
  ways: string;
  due_at: number;
  told_at: number | null;
  read_at: number | null;
  trouble: string | null;
}

export function addNotice(db: Db, notice: Notice, now: number): string {
  const id = nanoid(12);
  db.prepare(
    `INSERT INTO notice (id, at, kind, title, why, items, link, ways, due_at, told_at) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
  ).run(
    ...[id, now, notice.kind, notice.title, notice.why, JSON.stringify(notice.items), notice.link],
    // What only stands under the bell and in the feed is told by standing there.
    ...[JSON.stringify(notice.ways), notice.dueAt, notice.ways.some(isSent) ? null : now],
  );
  db.prepare('DELETE FROM notice WHERE id NOT IN (SELECT id FROM notice ORDER BY at DESC, id LIMIT ?)').run(
    KEPT,
  );
  return id;
}

/** Whether a way to be told needs something to be sent. */
export function isSent(way: string): boolean {
  return way !== 'bell' && way !== 'feed';
}

export interface StoredNotice extends NoticeView {
  ways: string[];
}

const viewOf = (row: NoticeRow): StoredNotice => ({
  ...{ id: row.id, kind: row.kind, title: row.title, why: row.why, link: row.link, trouble: row.trouble },
  at: new Date(row.at).toISOString(),
  items: JSON.parse(row.items) as string[],
  ways: JSON.parse(row.ways) as string[],
  read: row.read_at !== null,
  toldAt: row.told_at === null ? null : new Date(row.told_at).toISOString(),
});

/** Notices of one way, or all, the newest first. */
export function notices(db: Db, way: string | null, limit: number): StoredNotice[] {
  return db
    .prepare<[object], NoticeRow>(
      `SELECT * FROM notice WHERE @way IS NULL OR EXISTS (SELECT 1 FROM json_each(ways) w WHERE w.value = @way)
       ORDER BY at DESC, id LIMIT @limit`,
    )
    .all({ way, limit })
    .map(viewOf);
}

export function unreadCount(db: Db): number {
  return db
    .prepare<[], number>(
      "SELECT count(*) FROM notice WHERE read_at IS NULL AND EXISTS (SELECT 1 FROM json_each(ways) w WHERE w.value = 'bell')",
    )
    .pluck()
    .get()!;
}

/** Marks notices as read; all where none are named. */
export function readNotices(db: Db, ids: readonly string[] | null, now: number): void {
  db.prepare(
    'UPDATE notice SET read_at = COALESCE(read_at, @now) WHERE @ids IS NULL OR id IN (SELECT value FROM json_each(@ids))',
  ).run({ now, ids: ids && JSON.stringify(ids) });
}

/** What is due to be told by mail or webhook, the oldest first. */
export function dueNotices(db: Db, now: number): StoredNotice[] {
  return db
    .prepare<[number], NoticeRow>(
      'SELECT * FROM notice WHERE told_at IS NULL AND due_at <= ? ORDER BY at, id',
    )
    .all(now)
    .map(viewOf);
}

export function nextNotice(db: Db): number | null {
  return (
    db.prepare<[], number | null>('SELECT min(due_at) FROM notice WHERE told_at IS NULL').pluck().get() ??
    null
  );
}

export function noteTold(db: Db, ids: readonly string[], now: number, trouble: string | null): void {
  db.prepare('UPDATE notice SET told_at = ?, trouble = ? WHERE id IN (SELECT value FROM json_each(?))').run(
    now,
    trouble,
    JSON.stringify(ids),
  );
}

export interface TellSettings {
  /** Where digests go; none are sent where empty. */
  mail: string;
  /** Hour of the day at which they do. */
  hour: number;
  /** What a reader of feeds names. */
  token: string;
}

export function tellSettings(db: Db): TellSettings {
  const text = db.prepare<[], string>("SELECT value FROM setting WHERE key = 'tell'").pluck().get();
  if (text) return JSON.parse(text) as TellSettings;
  const fresh = { mail: '', hour: 7, token: nanoid(24) };
  writeTellSettings(db, fresh);
  return fresh;
}

export function writeTellSettings(db: Db, settings: TellSettings): void {
  db.prepare("INSERT OR REPLACE INTO setting (key, value) VALUES ('tell', ?)").run(JSON.stringify(settings));
}
