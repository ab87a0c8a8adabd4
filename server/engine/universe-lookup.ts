import type { CodeSearches } from '../../core/codes/search.ts';
import type { CodeTree, Scheme } from '../../core/codes/tree.ts';
import { SUBJECTS } from '../../core/fields/registry.ts';
import type { Gazetteer } from '../../core/geo/gazetteer.ts';
import type { Choice, Lookup } from '../../core/tape/lookup.ts';
import type { CategoryColumn } from '../../core/tally/columns.ts';
import type { Db } from '../db/open.ts';

import type { StoredUniverse } from './stored-universe.ts';

export interface ReferenceData {
  trees: ReadonlyMap<Scheme, CodeTree>;
  searches: CodeSearches;
  places: Gazetteer;
}

/** What the tapes of this universe may name: the reference data, and the values found in the tables. */
export function universeLookup(
  db: Db,
  reference: ReferenceData,
  asOf: number,
  stored: Pick<StoredUniverse, 'columns'>,
): Lookup {
  const choices = new Map<string, readonly Choice[]>();
  for (const field of SUBJECTS.get('companies')!.fields) {
    if (field.kind !== 'category') continue;
    if (field.values) choices.set(field.id, field.values);
    else if (field.id === 'source')
      choices.set(
        'source',
        db.prepare<[], Choice>('SELECT key, name AS label FROM source ORDER BY id').all(),
      );
    else if (field.id === 'technology') choices.set('technology', technologies(db));
    else if (stored.columns.has(field.id)) {
      const values = byFrequency(stored.columns.get(field.id) as CategoryColumn);
      choices.set(
        field.id,
        values.map((value) => ({ key: value, label: value })),
      );
    }
  }
  return {
    codes: (scheme) => reference.trees.get(scheme)!,
    findCodes: (scheme, text, limit) => reference.searches.of(scheme).find(text, limit),
    places: reference.places,
    choices: (field) => choices.get(field) ?? [],
    asOf,
  };
}

/** The values that any company has, the most frequent first. */
function byFrequency({ dictionary, values }: CategoryColumn): string[] {
  const counts = new Uint32Array(dictionary.length + 1);
  for (let r = 0; r < values.length; r++) counts[values[r]!]!++;
  return dictionary
    .map((value, i) => ({ value, count: counts[i + 1]! }))
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
