import type { Relation, Store } from '../../../core/fields/field.ts';
import { fieldOf, subjectOf } from '../../../core/fields/registry.ts';
import { textKeys, type Keys } from '../../../core/tally/order.ts';
import { fold } from '../../../core/text/fold.ts';
import type { Db } from '../../db/open.ts';

/** Sort keys of a label, such as the name: labels are no columns, so all texts are read, folded and sorted. */
export function labelKeys(db: Db, subject: string, by: string): Keys {
  const { table, relation } = subjectOf(subject);
  const text = textOf(table, relation, fieldOf(subject, by)!.store);
  return textKeys(
    db
      .prepare<[], string | null>(`SELECT ${text} FROM ${table} t ORDER BY id`)
      .pluck()
      .all()
      .map((text) => (text === null ? null : fold(text))),
  );
}

/** The text of a label as an expression on its table, called t; of several parties the first by name. */
function textOf(table: string, relation: Relation | null, store: Store): string {
  if (store.at === 'column' || store.at === 'text') return `t.${store.column}`;
  if (store.at === 'holder') return holderSql(store, 't');
  if (store.at !== 'parties' || !relation) throw new Error(`${table} has no such order.`);
  if (relation.roles.length === 0) return '(SELECT c.name FROM company c WHERE c.id = t.company_id)';
  return `(SELECT min(c.name) FROM ${relation.table} p JOIN company c ON c.id = p.company_id WHERE p.${relation.record} = t.id AND p.role IN (${storedRoles(relation, store.role)}))`;
}

/** The person of a department who stands highest, as an expression on a company; of equal ones the one recorded first. */
export function holderSql({ department, column }: Extract<Store, { at: 'holder' }>, company: string): string {
  const ranks = fieldOf('people', 'level')!.values!.map(({ key }, rank) => `WHEN '${key}' THEN ${rank}`);
  return `(SELECT p.${column} FROM person p WHERE p.company_id = ${company}.id AND p.department = '${department}' ORDER BY CASE p.level ${ranks.join(' ')} ELSE 99 END, p.id LIMIT 1)`;
}

/** The stored roles that a role stands for, as a list for SQL. */
export function storedRoles(relation: Relation, role: string | undefined): string {
  return relation.roles
    .filter(({ key }) => role === undefined || key === role)
    .flatMap(({ stored }) => stored.map((one) => `'${one}'`))
    .join(', ');
}
