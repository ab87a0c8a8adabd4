import type { CategoryTest } from '../tape/nodes.ts';
import { addBits, dropBits, keepBits, noBits, notBits, setBit, type Bits } from './bits.ts';
import { NO_DAY, type CategoryColumn, type ManyColumn } from './columns.ts';
import { addPostings } from './postings.ts';
import { andVerdict, type Verdict } from './verdict.ts';

/** The dictionary of a flag's column. */
export const FLAG_WORDS = { yes: 'yes', no: 'no' } as const;

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

/**
 * Any of or all of the keys; a group key is met by any of its members. With `since`, only values first seen on
 * that day or later count, and one seen on a day nobody noted may.
 */
export function testMany(
  column: ManyColumn,
  test: CategoryTest,
  groups: Map<string, string[]>,
  size: number,
  since: number | null,
): Verdict {
  const need = (test.all ? test.all.map((key) => [key]) : [test.any ?? []]).map((keys) =>
    wantedValues(
      column.dictionary,
      keys.flatMap((key) => groups.get(key) ?? [key]),
    ),
  );
  const unsurveyed = notBits(column.known, size);
  const held = andVerdict(need.map((values) => heldBy(column, values, size, since)));
  keepBits(held.yes, column.known);
  addBits(held.unknown, unsurveyed);
  return held;
}

function heldBy(column: ManyColumn, values: readonly number[], size: number, since: number | null): Verdict {
  const yes = noBits(size);
  const unknown = noBits(size);
  const { postings, seen } = column;
  for (const v of values) {
    if (since === null || seen === null) {
      addPostings(yes, postings, v);
      continue;
    }
    for (let i = postings.starts[v]!; i < postings.starts[v + 1]!; i++) {
      const r = postings.records[i]!;
      if (seen[i] === NO_DAY) setBit(unknown, r);
      else if (seen[i]! >= since) setBit(yes, r);
    }
  }
  dropBits(unknown, yes);
  return { yes, unknown };
}

/** Positions in a dictionary of those of some keys that it has. */
function wantedValues(dictionary: readonly string[], keys: readonly string[]): number[] {
  const among = new Set(keys);
  return dictionary.flatMap((key, v) => (among.has(key) ? [v] : []));
}
