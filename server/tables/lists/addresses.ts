import type { ListView } from '../../../contract/lists.ts';
import type { Db } from '../../db/open.ts';
import { noteListsChange } from './changes.ts';
import { listByKey } from './list-rows.ts';

/** Domains and mail addresses that suppression lists keep off beside their members. */

export function addressesOf(db: Db, list: string): string[] {
  return db
    .prepare<[string], string>('SELECT address FROM list_address WHERE list = ? ORDER BY address')
    .pluck()
    .all(list);
}

/** Puts addresses in the place of those that a list had. */
export function setAddresses(db: Db, list: string, addresses: readonly string[]): ListView {
  db.prepare('DELETE FROM list_address WHERE list = ?').run(list);
  const add = db.prepare('INSERT OR IGNORE INTO list_address (list, address) VALUES (?, ?)');
  for (const address of addresses) add.run(list, address.toLowerCase());
  db.prepare('UPDATE list SET addresses_at = @now, changed_at = @now WHERE key = @list').run({
    now: Date.now(),
    list,
  });
  noteListsChange(db);
  return listByKey(db, list)!;
}

/** Lists that have addresses, with the moment of which they are. */
export function listsWithAddresses(db: Db): { list: string; at: number }[] {
  return db
    .prepare<[], { list: string; at: number }>(
      'SELECT key AS list, addresses_at AS at FROM list WHERE addresses_at IS NOT NULL AND suppression IS NOT NULL AND removed_at IS NULL',
    )
    .all();
}

/** Ids of the companies and people that the addresses of a list are of; the universe is attached as `u`. */
export function recordsAt(db: Db, list: string): { companies: number[]; people: number[] } {
  const among = 'IN (SELECT address FROM list_address WHERE list = @list)';
  const ids = (sql: string) => db.prepare<[{ list: string }], number>(sql).pluck().all({ list });
  return {
    companies: ids(`SELECT id FROM u.company WHERE domain ${among} OR lower(mail) ${among}`),
    people: ids(
      `SELECT id FROM u.person WHERE lower(mail) ${among} OR lower(substr(mail, instr(mail, '@') + 1)) ${among}`,
    ),
  };
}
