import type { ListView } from '../../contract/responses.ts';
import { foldedWords } from '../../core/text/fold.ts';
import { Problem } from '../../core/tape/problem.ts';
import type { ListVerdict } from '../../core/tape/nodes.ts';
import { nextVersion } from './version.ts';
import type { Db } from '../db/open.ts';
import { factsChanged } from './facts.ts';

export function allLists(db: Db): ListView[] {
  return db
    .prepare<[], ListView>(
      `SELECT key, name, made_at AS madeAt,
        (SELECT count(*) FROM list_member m WHERE m.list = list.key) AS members
      FROM list ORDER BY name`,
    )
    .all();
}

export function listByKey(db: Db, key: string): ListView | undefined {
  return allLists(db).find((list) => list.key === key);
}

/** Adds an empty list. Its key is made of its name and never changes. @throws Problem where the name is taken */
export function addList(db: Db, name: string): ListView {
  refuseTakenName(db, name, null);
  const stem = foldedWords(name).join('-').slice(0, 60) || 'list';
  let key = stem;
  for (let n = 2; listByKey(db, key); n++) key = `${stem}-${n}`;
  db.transaction(() => {
    db.prepare('INSERT INTO list (key, name, made_at) VALUES (?, ?, ?)').run(
      key,
      name,
      new Date().toISOString(),
    );
    factsChanged(db);
  })();
  return listByKey(db, key)!;
}

/** @throws Problem where the name is another list's */
export function renameList(db: Db, key: string, name: string): void {
  refuseTakenName(db, name, key);
  db.transaction(() => {
    db.prepare('UPDATE list SET name = ? WHERE key = ?').run(name, key);
    factsChanged(db);
  })();
}

function refuseTakenName(db: Db, name: string, own: string | null): void {
  const holder = db.prepare<[string], string>('SELECT key FROM list WHERE name = ?').pluck().get(name);
  if (holder !== undefined && holder !== own)
    throw new Problem('name-taken', `There is a list named "${name}" already.`, {
      field: 'name',
      value: name,
      rule: 'a name that no other list has',
    });
}

export function removeList(db: Db, key: string): void {
  db.transaction(() => {
    db.prepare('DELETE FROM list WHERE key = ?').run(key);
    factsChanged(db);
  })();
}

function membersChanged(db: Db, key: string): void {
  db.prepare('UPDATE list SET revision = revision + 1 WHERE key = ?').run(key);
  factsChanged(db);
}

/** Adds companies that are not on the list yet. Returns how many those were, and the time that names the addition. */
export function addMembers(
  db: Db,
  key: string,
  companies: readonly string[],
  origin: string,
): { added: number; at: string } {
  const add = db.prepare(
    "INSERT OR IGNORE INTO list_member (list, company, verdict, origin, added_at) VALUES (?, ?, 'in', ?, ?)",
  );
  const at = nextVersion();
  return db.transaction(() => {
    let added = 0;
    for (const company of companies) added += add.run(key, company, origin, at).changes;
    membersChanged(db, key);
    return { added, at };
  })();
}

/** Takes those off a list that one addition put there. Returns how many still were. */
export function removeAddition(db: Db, key: string, at: string): number {
  return db.transaction(() => {
    const { changes } = db.prepare('DELETE FROM list_member WHERE list = ? AND added_at = ?').run(key, at);
    membersChanged(db, key);
    return changes;
  })();
}

/** Takes companies off a list. Returns how many were on it. */
export function removeMembers(db: Db, key: string, companies: readonly string[]): number {
  const remove = db.prepare('DELETE FROM list_member WHERE list = ? AND company = ?');
  return db.transaction(() => {
    let removed = 0;
    for (const company of companies) removed += remove.run(key, company).changes;
    membersChanged(db, key);
    return removed;
  })();
}

/** The members of one list. */
export function membersOf(db: Db, key: string): IterableIterator<{ company: string; verdict: ListVerdict }> {
  return db
    .prepare<[string], { company: string; verdict: ListVerdict }>(
      'SELECT company, verdict FROM list_member WHERE list = ?',
    )
    .iterate(key);
}

/** Every list with how often its members were changed. */
export function listRevisions(db: Db): { key: string; name: string; revision: number }[] {
  return db
    .prepare<[], { key: string; name: string; revision: number }>(
      'SELECT key, name, revision FROM list ORDER BY name',
    )
    .all();
}
