import type { AddressOutcome } from '../../../core/people/standing.ts';
import type { Db } from '../../db/open.ts';

/** What is known of addresses from having been written to, and whose owners want no more. Addresses are compared in small letters. */

export interface Outcome {
  mail: string;
  outcome: AddressOutcome;
  /** In words. */
  how: string;
}

/** Notes what became of an address; what came later counts. */
export function noteOutcome(db: Db, { mail, outcome, how }: Outcome): void {
  db.prepare(
    'INSERT INTO outcome VALUES (?, ?, ?, ?) ON CONFLICT (mail) DO UPDATE SET outcome = excluded.outcome, how = excluded.how, at = excluded.at',
  ).run(mail.toLowerCase(), outcome, how, Date.now());
}

export function outcomeOf(db: Db, mail: string): Outcome | undefined {
  return db
    .prepare<[string], Outcome>('SELECT mail, outcome, how FROM outcome WHERE mail = ?')
    .get(mail.toLowerCase());
}

export function allOutcomes(db: Db): Map<string, Outcome & { at: number }> {
  return new Map(
    db
      .prepare<[], Outcome & { at: number }>('SELECT * FROM outcome')
      .all()
      .map((one) => [one.mail, one]),
  );
}

export function optOut(db: Db, mail: string, person: string | null): void {
  db.prepare('INSERT OR IGNORE INTO opted_out VALUES (?, ?, ?)').run(mail.toLowerCase(), person, Date.now());
}

/** Takes an opting out back that was none. */
export function optBackIn(db: Db, mail: string): void {
  db.prepare('DELETE FROM opted_out WHERE mail = ?').run(mail.toLowerCase());
}

/** Addresses and people that opted out. */
export function optedOut(db: Db): { mails: Set<string>; people: Set<string> } {
  const rows = db
    .prepare<[], { mail: string; person: string | null }>('SELECT mail, person FROM opted_out')
    .all();
  return {
    mails: new Set(rows.map(({ mail }) => mail)),
    people: new Set(rows.flatMap(({ person }) => person ?? [])),
  };
}
