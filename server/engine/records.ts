import { subjectOf } from '../../core/fields/registry.ts';
import type { Db } from '../db/open.ts';
import { recordsById, type StoredSubject, type StoredUniverse } from './opening/stored-universe.ts';

/** The records of one subject, found by id and by key. */
export interface Records {
  subject: string;
  table: string;
  ids: Uint32Array;
  /** Record of each id, or -1. */
  recordOf: Int32Array;
  /** The record under a key, or undefined where there is none. */
  byKey(key: string): number | undefined;
  /** The records under some keys, beside them; -1 where there is none. */
  byKeys(keys: readonly string[]): Int32Array;
}

/** The id in a key that is made of one. */
function numberIn(found: RegExpExecArray | null): number | undefined {
  return found ? Number(found[1]) : undefined;
}

/** The records of every subject of a stored universe. */
export function recordsOfAll(stored: StoredUniverse, db: Db): Map<string, Records> {
  const of = (subject: string, { ids }: StoredSubject): [string, Records] => {
    const { table } = subjectOf(subject);
    const recordOf = recordsById(ids);
    const find = db.prepare<[string], number>('SELECT id FROM company WHERE key = ?').pluck();
    const own = new RegExp(`^${table}-(\\d{1,10})$`);
    const byKey = (key: string) => {
      const id = subject === 'companies' ? find.get(key) : numberIn(own.exec(key));
      return id === undefined || (recordOf[id] ?? -1) < 0 ? undefined : recordOf[id];
    };
    const findAll = db
      .prepare<[string], [number, number]>(
        'SELECT j.key, c.id FROM json_each(?) j CROSS JOIN company c ON c.key = j.value',
      )
      .raw();
    const byKeys = (keys: readonly string[]) => {
      if (subject !== 'companies') return Int32Array.from(keys, (key) => byKey(key) ?? -1);
      const found = new Int32Array(keys.length).fill(-1);
      for (const [at, id] of findAll.all(JSON.stringify(keys))) found[at] = recordOf[id] ?? -1;
      return found;
    };
    return [subject, { subject, table, ids, recordOf, byKey, byKeys }];
  };
  return new Map([of('companies', stored), ...[...stored.related].map(([id, one]) => of(id, one))]);
}
