import type { CodeSearches } from '../../core/codes/search.ts';
import type { Crosswalk } from '../../core/codes/crosswalk.ts';
import type { CodeTree, Scheme } from '../../core/codes/tree.ts';
import { SUBJECTS } from '../../core/fields/registry.ts';
import { READY_GROUPS } from '../../core/geo/country-groups.ts';
import { READY_RIGHT_PEOPLE } from '../../core/people/functions.ts';
import type { Gazetteer } from '../../core/geo/gazetteer.ts';
import type { Choice, Lookup } from '../../core/tape/lookup.ts';
import type { CategoryColumn, ManyColumn } from '../../core/tally/columns.ts';
import type { Db } from '../db/open.ts';

import type { StoredUniverse } from './opening/stored-universe.ts';
import type { WorkspaceFacts } from './workspace-facts.ts';

/** What an office says a code covers, and of which edition it says it. */
export interface CodeNote {
  text: string;
  from: string;
}

export interface ReferenceData {
  trees: ReadonlyMap<Scheme, CodeTree>;
  searches: CodeSearches;
  /** Read when it is first asked for. */
  crosswalk(): Crosswalk;
  note(scheme: Scheme, code: string): CodeNote | null;
  places: Gazetteer;
}

/** What the tapes of this universe may name: the reference data, and the values found in the tables. */
export function universeLookup(
  db: Db,
  reference: ReferenceData,
  stored: Pick<StoredUniverse, 'columns' | 'related'>,
  workspace: Pick<
    WorkspaceFacts,
    'asOf' | 'currency' | 'countryGroups' | 'rightPeople' | 'lists' | 'receivers' | 'joinable'
  >,
  peers: Lookup['peers'] = () => {
    throw new Error('Likeness is measured where tapes are counted.');
  },
): Lookup {
  const choices = new Map<string, readonly Choice[]>();
  const sources = db.prepare<[], Choice>('SELECT key, name AS label FROM source ORDER BY id').all();
  for (const { id: subject, fields } of SUBJECTS.values()) {
    const columns = subject === 'companies' ? stored.columns : stored.related.get(subject)?.columns;
    for (const field of fields) {
      if (field.kind !== 'category') continue;
      const column = columns?.get(field.id) as CategoryColumn | ManyColumn | undefined;
      const values = () => (column ? byFrequency(column) : []);
      choices.set(
        `${subject} ${field.id}`,
        field.values ??
          (field.id === 'source'
            ? sources
            : field.id === 'technology'
              ? technologies(db)
              : field.id === 'sold-in'
                ? values().map((key) => ({ key, label: reference.places.country(key)?.name ?? key }))
                : values().map((value) => ({ key: value, label: value }))),
      );
    }
  }
  const nameOf = db.prepare<[string], string>('SELECT name FROM company WHERE key = ?').pluck();
  return {
    codes: (scheme) => reference.trees.get(scheme)!,
    findCodes: (scheme, text, limit) => reference.searches.of(scheme).find(text, limit),
    crosswalk: () => reference.crosswalk(),
    places: reference.places,
    countryGroups: new Map([
      ...READY_GROUPS,
      ...workspace.countryGroups.map((group) => [group.key, group] as const),
    ]),
    rightPeople: new Map([
      ...READY_RIGHT_PEOPLE,
      ...workspace.rightPeople.map((one) => [one.key, one] as const),
    ]),
    choices: ({ subject, id }) =>
      id === 'list'
        ? workspace.lists.filter((list) => list.subject === subject)
        : id === 'handed-over'
          ? workspace.receivers
          : id === 'joined'
            ? workspace.joinable
            : (choices.get(`${subject} ${id}`) ?? []),
    companyName: (key) => nameOf.get(key),
    peers,
    currency: workspace.currency,
    currencies: currenciesOf(stored),
    asOf: workspace.asOf,
  };
}

/** The currencies of all amounts, by name. */
function currenciesOf({ columns, related }: Pick<StoredUniverse, 'columns' | 'related'>): string[] {
  const found = new Set<string>();
  for (const own of [columns, ...[...related.values()].map((one) => one.columns)])
    for (const column of own.values())
      if ('kind' in column && column.kind === 'range') for (const code of column.currencies) found.add(code);
  return [...found].sort();
}

/** The values that any company has, the most frequent first. */
function byFrequency({ kind, dictionary, postings }: CategoryColumn | ManyColumn): string[] {
  // A single-valued column has its unknown records first.
  const first = kind === 'category' ? 1 : 0;
  return dictionary
    .map((value, i) => ({
      value,
      count: postings.starts[i + first + 1]! - postings.starts[i + first]!,
    }))
    .filter(({ count }) => count > 0)
    .sort((a, b) => b.count - a.count || (a.value < b.value ? -1 : 1))
    .map(({ value }) => value);
}

/** Categories first, then their products. */
function technologies(db: Db): Choice[] {
  const groups = db
    .prepare<[], Choice>(
      'SELECT DISTINCT category AS key, category_label AS label FROM technology WHERE category IS NOT NULL ORDER BY 2',
    )
    .all();
  const products = db
    .prepare<[], Choice & { group: string | null }>(
      'SELECT key, label, category AS "group" FROM technology ORDER BY label',
    )
    .all();
  return [
    ...groups,
    ...products.map(({ key, label, group }) => (group === null ? { key, label } : { key, label, group })),
  ];
}
