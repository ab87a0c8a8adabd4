import type { CategoryTest } from '../tape/nodes.ts';
import { noBits } from './bits.ts';
import type { CategoryColumn, ManyColumn } from './columns.ts';
import type { Verdict } from './verdict.ts';

export function testCategory(column: CategoryColumn, test: CategoryTest, size: number): Verdict {
  const wanted = wantedValues(column.dictionary, test.any ?? []);
  const yes = noBits(size);
  const unknown = noBits(size);
  for (let r = 0; r < size; r++) {
    const value = column.values[r]!;
    if (value === 0) unknown[r >> 5]! |= 1 << (r & 31);
    else if (wanted[value - 1]) yes[r >> 5]! |= 1 << (r & 31);
  }
  return { yes, unknown };
}

/** Any of or all of the keys; a group key is met by any of its members. */
export function testMany(
  column: ManyColumn,
  test: CategoryTest,
  groups: Map<string, string[]>,
  size: number,
): Verdict {
  const keys = test.all ?? test.any ?? [];
  const yes = noBits(size);
  const unknown = noBits(size);
  for (let w = 0; w < unknown.length; w++) unknown[w] = ~column.known[w]!;
  if (size & 31) unknown[size >> 5]! &= (2 ** (size & 31) - 1) >>> 0;
  else if (size === 0) unknown[0] = 0;

  const need = test.all
    ? keys.map((key) => wantedValues(column.dictionary, groups.get(key) ?? [key]))
    : [
        wantedValues(
          column.dictionary,
          keys.flatMap((key) => groups.get(key) ?? [key]),
        ),
      ];
  for (let r = 0; r < size; r++) {
    const end = column.offsets[r + 1]!;
    let met = 0;
    for (const wanted of need) {
      let i = column.offsets[r]!;
      while (i < end && !wanted[column.values[i]!]) i++;
      if (i === end) break;
      met++;
    }
    if (met === need.length) yes[r >> 5]! |= 1 << (r & 31);
  }
  for (let w = 0; w < yes.length; w++) yes[w]! &= ~unknown[w]!;
  return { yes, unknown };
}

/** 1 for each entry of the dictionary that is among the keys. */
export function wantedValues(dictionary: readonly string[], keys: readonly string[]): Uint8Array {
  const among = new Set(keys);
  return Uint8Array.from(dictionary, (key) => (among.has(key) ? 1 : 0));
}
