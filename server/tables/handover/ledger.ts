import { gunzipSync, gzipSync } from 'node:zlib';
import type { Db } from '../../db/open.ts';

/** What was handed over to whom. */

export interface ReceiverRow {
  key: string;
  name: string;
  revision: number;
}

/** How often the ledger was changed. */
export function handoverRevision(db: Db): number {
  return db.prepare<[], number>('SELECT revision FROM change').pluck().get()!;
}

/** All receivers by name. */
export function allReceivers(db: Db): ReceiverRow[] {
  return db.prepare<[], ReceiverRow>('SELECT * FROM receiver ORDER BY name COLLATE NOCASE').all();
}

/** Whom a record was handed over to, the latest first, with the day it last was. */
export function handedOf(
  db: Db,
  subject: string,
  key: string,
): { receiver: string; name: string; day: number }[] {
  return db
    .prepare<[string, string], { receiver: string; name: string; day: number }>(
      `SELECT h.receiver, r.name, h.day FROM receiver r CROSS JOIN handed_over h ON h.subject = ? AND h.receiver = r.key AND h.key = ?
       ORDER BY h.day DESC, r.name`,
    )
    .all(subject, key);
}

/** Of each receiver, how many exports it had, the day of the last, and how many records, each once. */
export function receiverFigures(db: Db): Map<string, { exports: number; last: number; records: number }> {
  const rows = db
    .prepare<[], { receiver: string; exports: number; last: number; records: number }>(
      `SELECT receiver, count(*) AS exports, max(day) AS last,
         (SELECT count(*) FROM handed_over o WHERE o.receiver = h.receiver) AS records
       FROM handover h GROUP BY receiver`,
    )
    .all();
  return new Map(rows.map(({ receiver, ...figures }) => [receiver, figures]));
}

/** What one export handed over, and to whom. */
export interface Handover {
  export: string;
  subject: string;
  receiver: string;
  day: number;
  keys: readonly string[];
  /** Names of the columns, and a print of each cell of them, row by row. */
  columns: readonly string[];
  prints: Uint32Array;
}

/** Writes what an export hands over: all of it or nothing. */
export function writeHandover(db: Db, one: Handover, receiverName: string): void {
  const { subject, receiver, day, keys, columns, prints } = one;
  const packed = gzipSync(keys.join('\n'), { level: 1 });
  const printed = gzipSync(new Uint8Array(prints.buffer, prints.byteOffset, prints.byteLength), { level: 1 });
  db.transaction(() => {
    db.prepare(
      'INSERT INTO receiver (key, name, revision) VALUES (?, ?, 0) ON CONFLICT (key) DO NOTHING',
    ).run(receiver, receiverName);
    db.prepare(
      'INSERT INTO handover (export, subject, receiver, day, count, columns, keys, prints) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    ).run(one.export, subject, receiver, day, keys.length, JSON.stringify(columns), packed, printed);
    put(db, subject, receiver, day, keys);
    changed(db, receiver);
  })();
}

const KEYS_A_WRITE = 10_000;

function put(db: Db, subject: string, receiver: string, day: number, keys: readonly string[]): void {
  // Many at once: a statement for each of a million takes several times as long.
  const insert = db.prepare(
    `INSERT INTO handed_over (subject, receiver, key, day) SELECT ?, ?, value, ? FROM json_each(?) WHERE true
     ON CONFLICT (subject, receiver, key) DO UPDATE SET day = max(day, excluded.day)`,
  );
  // In the order of the table, which writes each page of it once.
  const sorted = keys.slice().sort();
  for (let at = 0; at < sorted.length; at += KEYS_A_WRITE)
    insert.run(subject, receiver, day, JSON.stringify(sorted.slice(at, at + KEYS_A_WRITE)));
}

function changed(db: Db, receiver: string): void {
  db.prepare('UPDATE change SET revision = revision + 1').run();
  db.prepare('UPDATE receiver SET revision = (SELECT revision FROM change) WHERE key = ?').run(receiver);
}

/** What companies were handed over under keys that are gone counts for those they were joined to. */
export function followHandovers(db: Db, joined: readonly { gone: string; key: string }[]): void {
  const find = db.prepare<[string], { receiver: string; day: number }>(
    `SELECT receiver, day FROM handed_over WHERE subject = 'companies' AND key = ?`,
  );
  const drop = db.prepare(`DELETE FROM handed_over WHERE subject = 'companies' AND receiver = ? AND key = ?`);
  db.transaction(() => {
    for (const { gone, key } of joined)
      for (const { receiver, day } of find.all(gone)) {
        put(db, 'companies', receiver, day, [key]);
        drop.run(receiver, gone);
        changed(db, receiver);
      }
  })();
}

/** Takes an export out of the ledger, as if it had never gone out. False where it is not in there. */
export function forgetHandover(db: Db, id: string): boolean {
  return db.transaction(() => {
    const row = db
      .prepare<[string], { subject: string; receiver: string }>(
        'SELECT subject, receiver FROM handover WHERE export = ?',
      )
      .get(id);
    if (!row) return false;
    const { subject, receiver } = row;
    db.prepare('DELETE FROM handover WHERE export = ?').run(id);
    db.prepare('DELETE FROM handed_over WHERE subject = ? AND receiver = ?').run(subject, receiver);
    const others = db
      .prepare<[string, string], { day: number; keys: Buffer }>(
        'SELECT day, keys FROM handover WHERE subject = ? AND receiver = ?',
      )
      .all(subject, receiver);
    for (const { day, keys } of others) put(db, subject, receiver, day, unpacked(keys));
    changed(db, receiver);
    db.prepare(
      'DELETE FROM receiver WHERE key = ? AND NOT EXISTS (SELECT 1 FROM handover h WHERE h.receiver = receiver.key)',
    ).run(receiver);
    return true;
  })();
}

/** The exports in the ledger. */
export function handedExports(db: Db): string[] {
  return db.prepare<[], string>('SELECT export FROM handover').pluck().all();
}

/** What an export handed over; undefined where it is not in the ledger. */
export function readHandover(db: Db, id: string): Omit<Handover, 'export'> | undefined {
  const row = db
    .prepare<
      [string],
      { subject: string; receiver: string; day: number; columns: string; keys: Buffer; prints: Buffer }
    >('SELECT subject, receiver, day, columns, keys, prints FROM handover WHERE export = ?')
    .get(id);
  if (!row) return undefined;
  const prints = gunzipSync(row.prints);
  return {
    ...{ subject: row.subject, receiver: row.receiver, day: row.day },
    keys: unpacked(row.keys),
    columns: JSON.parse(row.columns) as string[],
    prints: new Uint32Array(prints.buffer.slice(prints.byteOffset, prints.byteOffset + prints.byteLength)),
  };
}

function unpacked(keys: Buffer): string[] {
  const text = gunzipSync(keys).toString();
  return text === '' ? [] : text.split('\n');
}
