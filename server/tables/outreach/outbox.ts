import type { Db } from '../../db/open.ts';
import { MESSAGE, type MessageRow } from './messages.ts';

/** Messages on their way: put in the outbox, taken to be sent, and what became of them. Each step is one statement, so that none is taken twice. */

const WAITING = "state = 'outbox'";

/** Puts a draft in the outbox with the address it goes to. False where it is no draft any more: another window was first. */
export function putInOutbox(
  db: Db,
  id: number,
  to: { mail: string; certainty: number | null },
  person: string,
): boolean {
  return (
    db
      .prepare(
        `UPDATE message SET state = 'outbox', mail = ?, certainty = ?, put_at = ?, put_by = ?, tries = 0, next_at = NULL, trouble = NULL
         WHERE id = ? AND state = 'draft'`,
      )
      .run(to.mail, to.certainty, Date.now(), person, id).changes > 0
  );
}

/** Takes messages out of the outbox that have not been handed over yet; they are drafts again. Returns their numbers. */
export function takeFromOutbox(db: Db, ids: readonly number[]): number[] {
  return db
    .prepare<[string], number>(
      `UPDATE message SET state = 'draft', put_at = NULL, put_by = NULL, next_at = NULL, trouble = NULL
       WHERE ${WAITING} AND id IN (SELECT value FROM json_each(?)) RETURNING id`,
    )
    .pluck()
    .all(JSON.stringify(ids));
}

/** What waits, in the order it was put there. */
export function waiting(db: Db): MessageRow[] {
  return db.prepare<[], MessageRow>(`${MESSAGE} WHERE m.${WAITING} ORDER BY m.put_at, m.id`).all();
}

/** The same with what is being handed over just now. */
export function inOutbox(db: Db, limit: number): MessageRow[] {
  return db
    .prepare<[number], MessageRow>(
      `${MESSAGE} WHERE m.state IN ('outbox', 'sending') ORDER BY m.put_at, m.id LIMIT ?`,
    )
    .all(limit);
}

export function countWaiting(db: Db): number {
  return db
    .prepare<[], number>("SELECT count(*) FROM message WHERE state IN ('outbox', 'sending')")
    .pluck()
    .get()!;
}

/** Messages that left since a time, those that may have among them. */
export function countSentSince(db: Db, since: number): number {
  return db
    .prepare<[number], number>(
      "SELECT count(*) FROM message WHERE state IN ('sending', 'sent', 'perhaps', 'bounced') AND sent_at >= ?",
    )
    .pluck()
    .get(since)!;
}

/** What of a day's limit is taken: messages that wait, and those that left since a time, each once. */
export function countTaken(db: Db, since: number): number {
  return db
    .prepare<[number], number>(
      "SELECT count(*) FROM message WHERE state = 'outbox' OR (state <> 'draft' AND sent_at >= ?)",
    )
    .pluck()
    .get(since)!;
}

/** When messages left since a time, in ms, the earliest first. */
export function sentTimes(db: Db, since: number): number[] {
  return db
    .prepare<[number], number>(
      "SELECT sent_at FROM message WHERE state IN ('sending', 'sent', 'perhaps', 'bounced') AND sent_at >= ? ORDER BY sent_at",
    )
    .pluck()
    .all(since);
}

/** Companies somebody of was written to since a time, or is about to be. */
export function companiesSince(db: Db, since: number): Set<string> {
  return new Set(
    db
      .prepare<[number], string>(
        `SELECT DISTINCT company FROM message WHERE company IS NOT NULL
           AND (state IN ('outbox', 'sending') OR (state <> 'draft' AND sent_at >= ?))`,
      )
      .pluck()
      .all(since),
  );
}

/**
 * Takes a message to hand it over, under the Message-ID that it goes by. From here on until `noteSent` it may have gone: where
 * the program ends in between it is "perhaps sent" and is never handed over again by itself. False where it waits no more.
 */
export function takeToSend(db: Db, id: number, messageId: string): boolean {
  return (
    db
      .prepare(
        `UPDATE message SET state = 'sending', message_id = ?, sent_at = ?, tries = tries + 1 WHERE id = ? AND ${WAITING}`,
      )
      .run(messageId, Date.now(), id).changes > 0
  );
}

export function noteSent(db: Db, id: number): void {
  db.prepare("UPDATE message SET state = 'sent', trouble = NULL WHERE id = ? AND state = 'sending'").run(id);
}

/** Puts a message back that was not taken: it is tried again at a time. */
export function noteNotTaken(db: Db, id: number, trouble: string, nextAt: number): void {
  db.prepare(
    `UPDATE message SET state = 'outbox', message_id = NULL, sent_at = NULL, trouble = ?, next_at = ? WHERE id = ? AND state = 'sending'`,
  ).run(trouble, nextAt, id);
}

/** A message that may have gone: the connection ended after it was handed over. */
export function notePerhaps(db: Db, id: number, trouble: string): void {
  db.prepare("UPDATE message SET state = 'perhaps', trouble = ? WHERE id = ? AND state = 'sending'").run(
    trouble,
    id,
  );
}

/** A message of which nobody could say whether it went, and that was answered. */
export function noteArrived(db: Db, id: number): void {
  db.prepare("UPDATE message SET state = 'sent', trouble = NULL WHERE id = ? AND state = 'perhaps'").run(id);
}

export function noteBounced(db: Db, id: number, trouble: string): void {
  db.prepare("UPDATE message SET state = 'bounced', trouble = ? WHERE id = ? AND state <> 'draft'").run(
    trouble,
    id,
  );
}

/** What was being handed over when the program ended may have gone. Returns how many. */
export function perhapsAfterStop(db: Db): number {
  return db
    .prepare(
      "UPDATE message SET state = 'perhaps', trouble = 'The program ended while it was handed over; it may have gone.' WHERE state = 'sending'",
    )
    .run().changes;
}
