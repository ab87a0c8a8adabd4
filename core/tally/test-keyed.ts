import type { NumberTest } from '../tape/nodes.ts';
import { addBits, dropBits, noBits, notBits, type Bits } from './bits.ts';
import type { KeyedColumn } from './columns.ts';
import { addRecords, firstAbove, firstAtLeast } from './sorted.ts';
import type { Verdict } from './verdict.ts';

/**
 * The number under one key, between limits. A record that has not this key is at 0 if it has others and
 * `absent` is 0; else it is unknown.
 */
export function testKeyed(
  column: KeyedColumn,
  key: string,
  test: NumberTest,
  absent: 0 | null,
  size: number,
): Verdict {
  const { keys, starts, records, values, known } = column;
  const from = test.from ?? -Infinity;
  const to = test.to ?? Infinity;
  const k = keys.indexOf(key);
  const [start, end] = k < 0 ? [0, 0] : [starts[k]!, starts[k + 1]!];
  const yes = noBits(size);
  const first = firstAtLeast(values, from, start, end);
  addRecords(yes, records, first, firstAbove(values, to, first, end));
  const members = noBits(size);
  addRecords(members, records, start, end);
  if (absent === null) return { yes, unknown: notBits(members, size) };
  if (from <= absent && to >= absent) addBits(yes, withoutKey(known, members));
  return { yes, unknown: notBits(known, size) };
}

function withoutKey(known: Bits, members: Bits): Bits {
  const without = known.slice();
  dropBits(without, members);
  return without;
}

/** The numbers under one key as they stand by record, NaN where there is none and none is meant. */
export function keyedValues(column: KeyedColumn, key: string, absent: 0 | null, size: number): Float64Array {
  const byRecord = new Float64Array(size).fill(NaN);
  const { keys, starts, records, values, known } = column;
  if (absent !== null)
    for (let r = 0; r < size; r++) if ((known[r >> 5]! >>> (r & 31)) & 1) byRecord[r] = absent;
  const k = keys.indexOf(key);
  if (k >= 0) for (let i = starts[k]!; i < starts[k + 1]!; i++) byRecord[records[i]!] = values[i]!;
  return byRecord;
}
