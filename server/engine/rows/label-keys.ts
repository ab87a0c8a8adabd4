import type { PartySays, Relation, Store } from '../../../core/fields/field.ts';
import { fieldOf, subjectOf } from '../../../core/fields/registry.ts';
import { textKeys, type Keys } from '../../../core/tally/order.ts';
import { fold } from '../../../core/text/fold.ts';
import type { Db } from '../../db/open.ts';

/** Sort keys of a label, such as the name: labels are no columns, so all texts are read, folded and sorted. */
export function labelKeys(db: Db, subject: string, by: string): Keys {
  const { table, relation } = subjectOf(subject);
  const { store, column } = fieldOf(subject, by)!;
  const own = textOf(table, relation, store);
  // Degrees are labels that are numbers; as texts of one length they sort as such.
  const text = column?.numeric
    ? `CASE WHEN ${own} IS NOT NULL THEN printf('%011.6f', ${own} + 1000) END`
    : own;
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
  if (relation.roles.length === 0) return companySays(store.says, 't');
  if (store.says === 'all')
    return `(SELECT min(p.role) FROM ${relation.table} p WHERE p.${relation.record} = t.id)`;
  return `(SELECT min(c.name) FROM ${relation.table} p JOIN company c ON c.id = p.company_id WHERE p.${relation.record} = t.id AND p.role IN (${storedRoles(relation, store.role)}))`;
}

/** What a column says of the one company of a record, as an expression on its table: of a company that is not here, what its source says. */
export function companySays(says: PartySays | undefined, table: string): string {
  const [column, at] = COMPANY_SAYS[says ?? 'name'];
  return `COALESCE((SELECT c.${column} FROM company c WHERE c.id = ${table}.company_id), json_extract(${table}.reference, '$[${at}]'))`;
}

/** The column of a company, and the place in a reference. */
const COMPANY_SAYS = {
  number: ['registration', 0],
  domain: ['domain', 1],
  name: ['name', 2],
  all: ['name', 2],
  country: ['country', 3],
} as const satisfies Record<PartySays | 'name', readonly [string, number]>;

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
