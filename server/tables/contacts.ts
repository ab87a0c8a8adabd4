import type { Contact } from '../../contract/responses.ts';
import type { Db } from '../db/open.ts';
import { contactsChanged } from './facts.ts';

/** The address book: people whom we know. */

/** Puts an address book in the place of one of the same name. */
export function writeContacts(db: Db, book: string, contacts: readonly Contact[]): void {
  const add = db.prepare(
    'INSERT INTO contact (name, mail, phone, title, organisation, company, book) VALUES (?, ?, ?, ?, ?, ?, ?)',
  );
  db.transaction(() => {
    db.prepare('DELETE FROM contact WHERE book = ?').run(book);
    for (const { name, mail, phone, title, organisation, company } of contacts)
      add.run(name, mail, phone, title, organisation, company, book);
    contactsChanged(db);
  })();
}

export function removeBook(db: Db, book: string): boolean {
  return db.transaction(() => {
    const { changes } = db.prepare('DELETE FROM contact WHERE book = ?').run(book);
    contactsChanged(db);
    return changes > 0;
  })();
}

export interface BookRow {
  book: string;
  contacts: number;
  found: number;
}

export function allBooks(db: Db): BookRow[] {
  return db
    .prepare<[], BookRow>(
      'SELECT book, count(*) AS contacts, count(company) AS found FROM contact GROUP BY book ORDER BY book',
    )
    .all();
}

export function contactCompanies(db: Db): string[] {
  return db
    .prepare<[], string>('SELECT DISTINCT company FROM contact WHERE company IS NOT NULL')
    .pluck()
    .all();
}

export function contactsAt(db: Db, company: string): Contact[] {
  return db
    .prepare<[string], Contact>(
      'SELECT name, mail, phone, title, organisation, company FROM contact WHERE company = ? ORDER BY name',
    )
    .all(company);
}
