import type { CountryGroup } from '../../core/geo/country-groups.ts';
import { readFunctions, spellFunctions, type RightPersonChoice } from '../../core/people/functions.ts';
import type { Db } from '../db/open.ts';

/** What tapes rest on of the user's own: lists, the address book, groups of countries, choices of functions, settings. */

/** How often they were changed. */
export function factsRevision(db: Db): number {
  return db.prepare<[], number>('SELECT revision FROM facts').pluck().get()!;
}

export function factsChanged(db: Db): void {
  db.prepare('UPDATE facts SET revision = revision + 1').run();
}

/** How often the address book was changed. */
export function contactsRevision(db: Db): number {
  return db.prepare<[], number>('SELECT contacts FROM facts').pluck().get()!;
}

export function contactsChanged(db: Db): void {
  db.prepare('UPDATE facts SET contacts = contacts + 1').run();
  factsChanged(db);
}

export function ownGroups(db: Db): CountryGroup[] {
  return db
    .prepare<[], { key: string; label: string; countries: string }>(
      'SELECT * FROM country_group ORDER BY label',
    )
    .all()
    .map(({ key, label, countries }) => ({ key, label, countries: countries.split(' ') }));
}

export function writeGroup(db: Db, { key, label, countries }: CountryGroup): void {
  db.transaction(() => {
    db.prepare('INSERT OR REPLACE INTO country_group (key, label, countries) VALUES (?, ?, ?)').run(
      key,
      label,
      countries.join(' '),
    );
    factsChanged(db);
  })();
}

export function removeGroup(db: Db, key: string): boolean {
  return db.transaction(() => {
    const { changes } = db.prepare('DELETE FROM country_group WHERE key = ?').run(key);
    factsChanged(db);
    return changes > 0;
  })();
}

/** The workspace's own choices of functions, by name. */
export function ownRightPeople(db: Db): RightPersonChoice[] {
  return db
    .prepare<[], { key: string; label: string; functions: string }>(
      'SELECT * FROM right_person ORDER BY label COLLATE NOCASE',
    )
    .all()
    .map(({ functions, ...one }) => ({ ...one, functions: readFunctions(functions) }));
}

export function writeRightPerson(db: Db, { key, label, functions }: RightPersonChoice): void {
  db.transaction(() => {
    db.prepare('INSERT OR REPLACE INTO right_person (key, label, functions) VALUES (?, ?, ?)').run(
      key,
      label,
      spellFunctions(functions),
    );
    factsChanged(db);
  })();
}

export function removeRightPerson(db: Db, key: string): boolean {
  return db.transaction(() => {
    const { changes } = db.prepare('DELETE FROM right_person WHERE key = ?').run(key);
    factsChanged(db);
    return changes > 0;
  })();
}
