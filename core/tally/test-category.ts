import type { CategoryTest } from '../tape/nodes.ts';
import { keepBits, noBits, notBits, type Bits } from './bits.ts';
import type { CategoryColumn, ManyColumn } from './columns.ts';
import { addPostings } from './postings.ts';
import type { Verdict } from './verdict.ts';

export function testCategory(column: CategoryColumn, test: CategoryTest, size: number): Verdict {
  return { yes: havingAny(column, test.any ?? [], size), unknown: unvalued(column, size) };
}

/** Records with one of some values; where those are most, all are taken and the others dropped. */
export function havingAny(column: CategoryColumn, keys: readonly string[], size: number): Bits {
  const having = noBits(size);
  const { starts } = column.postings;
  const wanted = wantedValues(column.dictionary, keys).map((v) => v + 1);
  const count = wanted.reduce((sum, v) => sum + starts[v + 1]! - starts[v]!, 0);
  if (2 * count <= size) {
    for (const v of wanted) addPostings(having, column.postings, v);
    return having;
  }
  const among = new Set(wanted);
  for (let v = 0; v <= column.dictionary.length; v++)
    if (!among.has(v)) addPostings(having, column.postings, v);
  return notBits(having, size);
}

/** Records without a value. */
export function unvalued(column: CategoryColumn, size: number): Bits {
  const without = noBits(size);
  addPostings(without, column.postings, 0);
  return without;
}

/** Any of or all of the keys; a group key is met by any of its members. */
export function testMany(
  column: ManyColumn,
  test: CategoryTest,
  groups: Map<string, string[]>,
  size: number,
): Verdict {
  const need = test.all
    ? test.all.map((key) => groups.get(key) ?? [key])
    : [(test.any ?? []).flatMap((key) => groups.get(key) ?? [key])];
  const yes = column.known.slice();
  for (const keys of need) {
    const held = noBits(size);
    wantedValues(column.dictionary, keys).forEach((v) => addPostings(held, column.postings, v));
    keepBits(yes, held);
  }
  return { yes, unknown: notBits(column.known, size) };
}

/** Positions in a dictionary of those of some keys that it has. */
function wantedValues(dictionary: readonly string[], keys: readonly string[]): number[] {
  const among = new Set(keys);
  return dictionary.flatMap((key, v) => (among.has(key) ? [v] : []));
}
