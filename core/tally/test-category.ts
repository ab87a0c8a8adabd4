import type { CategoryTest } from '../tape/nodes.ts';
import { noBits, notBits, type Bits } from './bits.ts';
import type { CategoryColumn, ManyColumn } from './columns.ts';
import { addPostings } from './postings.ts';
import { verdictOfStates, State, type Verdict } from './verdict.ts';

export function testCategory(column: CategoryColumn, test: CategoryTest, size: number): Verdict {
  const states = new Uint8Array(column.dictionary.length + 1);
  states[0] = State.Unknown;
  states.set(wantedValues(column.dictionary, test.any ?? []), 1);
  return verdictOfStates(column.values, states, size);
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
    const held = holdersOf(column, keys, size);
    for (let w = 0; w < yes.length; w++) yes[w]! &= held[w]!;
  }
  return { yes, unknown: notBits(column.known, size) };
}

function holdersOf(column: ManyColumn, keys: readonly string[], size: number): Bits {
  const held = noBits(size);
  wantedValues(column.dictionary, keys).forEach((wanted, value) => {
    if (wanted) addPostings(held, column.postings, value);
  });
  return held;
}

/** Yes for each entry of the dictionary that is among the keys. */
export function wantedValues(dictionary: readonly string[], keys: readonly string[]): Uint8Array {
  const among = new Set(keys);
  return Uint8Array.from(dictionary, (key) => (among.has(key) ? State.Yes : State.No));
}
