import type { Field } from '../../../core/fields/field.ts';
import { subjectOf } from '../../../core/fields/registry.ts';
import { noBits, setBit, type Bits } from '../../../core/tally/bits.ts';
import type { Db } from '../../db/open.ts';
import { reachableSql } from '../../exports/places.ts';
import type { Records } from '../records.ts';
import { companySays, holderSql, storedRoles } from './label-keys.ts';

/** Which records have a value of a field, as a cell of the sheet would show one. */
export function knownIn(db: Db, records: Records, field: Field): Bits {
  return bitsOf(db, records, `SELECT t.id FROM ${records.table} t WHERE ${knownSql(field)}`);
}

/** Which records a letter reaches, or a map shows. */
export function reachable(db: Db, records: Records, what: 'address' | 'point'): Bits {
  return bitsOf(db, records, reachableSql(records.subject, what));
}

function bitsOf(db: Db, { ids, recordOf }: Records, text: string): Bits {
  const bits = noBits(ids.length);
  const statement = db.prepare<[], number>(text).pluck();
  for (const id of statement.iterate()) {
    const record = recordOf[id] ?? -1;
    if (record >= 0) setBit(bits, record);
  }
  return bits;
}

/** A condition on a row `t` of the subject's table. @throws Error for fields that are in no table */
function knownSql({ id, subject, store, column }: Field): string {
  const { table, relation } = subjectOf(subject);
  switch (store.at) {
    case 'column':
    case 'text':
    case 'history':
      return `t.${store.column} IS NOT NULL`;
    case 'range':
      return `t.${store.stem}_basis IS NOT NULL`;
    case 'place':
      return 'COALESCE(t.town, t.country) IS NOT NULL';
    case 'codes':
      return 'EXISTS (SELECT 1 FROM company_code k WHERE k.company_id = t.id)';
    case 'many':
      return store.known === null
        ? `EXISTS (SELECT 1 FROM ${store.table} v WHERE v.${table}_id = t.id)`
        : `t.${store.known} IS NOT NULL`;
    case 'keyed': {
      const key = column?.key === undefined ? '' : ` AND m.key = '${column.key}'`;
      return `EXISTS (SELECT 1 FROM ${store.table ?? `${table}_measure`} m WHERE m.${table}_id = t.id AND m.measure = '${store.measure}'${key})`;
    }
    case 'parties':
      return relation!.roles.length
        ? `EXISTS (SELECT 1 FROM ${relation!.table} p WHERE p.${relation!.record} = t.id
             AND p.role IN (${storedRoles(relation!, store.role)})
             AND (p.company_id IS NOT NULL OR COALESCE(json_extract(p.reference, '$[2]'), json_extract(p.reference, '$[1]'), json_extract(p.reference, '$[0]')) IS NOT NULL))`
        : `${companySays(store.says, 't')} IS NOT NULL`;
    case 'holder':
      return `${holderSql(store, 't')} IS NOT NULL`;
    default:
      throw new Error(`${id} is in no table.`);
  }
}
