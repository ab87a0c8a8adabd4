import { countBits, countBoth, type Bits } from './bits.ts';
import type { NumberTest } from '../tape/nodes.ts';
import type { Histogram } from './counts.ts';
import { barOf, eachKeyedInBar, withoutKey } from './in-bars.ts';
import type { KeyedColumn, ListColumn } from './columns.ts';
import { countRecords, firstAtLeast } from './sorted.ts';

/** Records of a context that have a figure above 0 under each key, in the order of the column's keys. */
export function countKeys(
  { keys, starts, records, values }: KeyedColumn,
  context: Bits,
): Map<string, number> {
  return new Map(
    keys.map((key, k) => {
      const end = starts[k + 1]!;
      const first = firstAtLeast(values, Number.MIN_VALUE, starts[k]!, end);
      return [key, countRecords(context, records, first, end)];
    }),
  );
}

/** The figures under one key as a histogram; `absent` is what having none means for a record that has others. */
export function keyedHistogram(
  column: KeyedColumn,
  key: string,
  absent: 0 | null,
  context: Bits,
  bars: readonly NumberTest[],
): Histogram {
  const counts = bars.map(() => 0);
  eachKeyedInBar(column, key, bars, (bar, records, start, end) => {
    counts[bar]! += countRecords(context, records, start, end);
  });
  const k = column.keys.indexOf(key);
  let known = k < 0 ? 0 : countRecords(context, column.records, column.starts[k]!, column.starts[k + 1]!);
  if (absent !== null) {
    const without = countBoth(withoutKey(column, key), context);
    const bar = barOf(bars, absent);
    if (bar >= 0) counts[bar]! += without;
    known += without;
  }
  return {
    counts,
    estimated: bars.map(() => 0),
    banded: known - counts.reduce((sum, count) => sum + count, 0),
    unknown: countBits(context) - known,
    reasons: {},
  };
}

/** Members of each list among the records of a context. */
export function countLists({ lists }: ListColumn, context: Bits): Map<string, number> {
  return new Map(
    [...lists].map(([key, { records }]) => [key, countRecords(context, records, 0, records.length)]),
  );
}
