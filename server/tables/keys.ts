import { subjectOf } from '../../core/fields/registry.ts';
import type { Db } from '../db/open.ts';

/** Keys of companies by their ids; those that are gone are left out. */
export function companyKeys(universe: Db, ids: Uint32Array): string[] {
  const keyOf = universe.prepare<[number], string>('SELECT key FROM company WHERE id = ?').pluck();
  return Array.from(ids, (id) => keyOf.get(id)).filter((key) => key !== undefined);
}

/** Records by their keys. Keys of all but companies are made of the number, so that no index is needed for them. */
export class RecordKeys {
  private readonly own: RegExp | null;
  private readonly one;
  private readonly some;

  constructor(db: Db, subject: string) {
    const { table, relation } = subjectOf(subject);
    this.own = relation === null ? null : new RegExp(`^${table}-(\\d{1,10})$`);
    const by = relation === null ? 'key' : 'id';
    this.one = db.prepare<[string | number], { id: number; name: string | null }>(
      `SELECT id, name FROM ${table} WHERE ${by} = ?`,
    );
    this.some = db
      .prepare<[string], number>(`SELECT t.id FROM json_each(?) j CROSS JOIN ${table} t ON t.${by} = j.value`)
      .pluck();
  }

  /** Number and name of the record under a key; undefined where there is none. */
  find(key: string): { id: number; name: string | null } | undefined {
    const part = this.part(key);
    return part === null ? undefined : this.one.get(part);
  }

  /** Numbers of the records that there are under some keys. */
  ids(keys: readonly string[]): number[] {
    return this.some.all(JSON.stringify(keys.map((key) => this.part(key)).filter((part) => part !== null)));
  }

  private part(key: string): string | number | null {
    if (this.own === null) return key;
    const found = this.own.exec(key);
    return found ? Number(found[1]) : null;
  }
}
