import type { MoneyTest, NumberTest } from '../tape/nodes.ts';
import type { Bits } from './bits.ts';
import { Basis, type KeyedColumn, type RangeColumn } from './columns.ts';
import { dropRecords } from './sorted.ts';
import { limitsOf, within } from './test-range.ts';

/** Takes a stretch of records that all lie wholly in one bar. */
export type TakeBar = (
  bar: number,
  records: Uint32Array,
  start: number,
  end: number,
  estimated: boolean,
) => void;

/** The records of a column by the bars they lie in, as `testRange` would find them for each bar where estimates count. */
export function eachInBar(
  column: RangeColumn,
  bars: readonly (NumberTest | MoneyTest)[],
  take: TakeBar,
): void {
  const { index } = column;
  const limits = bars.map((bar) => limitsOf(column, bar));
  for (const { basis, currency, year, start, end } of index.runs)
    limits.forEach((of, bar) => {
      const range = of(currency, year);
      if (!range) return;
      const [first, last] = within(index.values, range, start, end);
      if (last > first) take(bar, index.records, first, last, basis === Basis.Estimate);
    });
  for (const { currency, year, low, high, start, end } of index.bands)
    limits.forEach((of, bar) => {
      const range = of(currency, year);
      if (range && low >= range.from && high <= range.to) take(bar, index.bandRecords, start, end, false);
    });
}

/** The records of a key by the bars they lie in; those without it, where that means 0, come as a set. */
export function eachKeyedInBar(
  { keys, starts, records, values }: KeyedColumn,
  key: string,
  bars: readonly NumberTest[],
  take: TakeBar,
): void {
  const k = keys.indexOf(key);
  if (k < 0) return;
  bars.forEach(({ from, to }, bar) => {
    const [first, last] = within(
      values,
      { from: from ?? -Infinity, to: to ?? Infinity },
      starts[k]!,
      starts[k + 1]!,
    );
    if (last > first) take(bar, records, first, last, false);
  });
}

/** The bar that a value lies in, or -1. */
export function barOf(bars: readonly NumberTest[], value: number): number {
  return bars.findIndex(({ from, to }) => value >= (from ?? -Infinity) && value <= (to ?? Infinity));
}

/** Records that have figures under other keys and none under this. */
export function withoutKey({ keys, starts, records, known }: KeyedColumn, key: string): Bits {
  const without = known.slice();
  const k = keys.indexOf(key);
  if (k >= 0) dropRecords(without, records, starts[k]!, starts[k + 1]!);
  return without;
}

/** By record, the number of its bar from 1 on, one above the last where it has a figure that lies in none, and 0 where it has none. */
export function barNumbers(
  column: RangeColumn,
  bars: readonly (NumberTest | MoneyTest)[],
  size: number,
  estimates = true,
): Uint8Array {
  const numbers = new Uint8Array(size);
  const limits = limitsOf(column, bars[0]!);
  const { index } = column;
  const fill = (value: number, records: Uint32Array, start: number, end: number) => {
    for (let i = start; i < end; i++) numbers[records[i]!] = value;
  };
  const none = bars.length + 1;
  for (const { basis, currency, year, start, end } of index.runs)
    if ((estimates || basis !== Basis.Estimate) && limits(currency, year))
      fill(none, index.records, start, end);
  for (const { currency, year, start, end } of index.bands)
    if (limits(currency, year)) fill(none, index.bandRecords, start, end);
  eachInBar(column, bars, (bar, records, start, end, estimated) => {
    if (estimates || !estimated) fill(bar + 1, records, start, end);
  });
  return numbers;
}

/** The same for the figures under a key; `absent` is what having none means for a record that has others. */
export function keyedBarNumbers(
  column: KeyedColumn,
  key: string,
  absent: 0 | null,
  bars: readonly NumberTest[],
  size: number,
): Uint8Array {
  const numbers = new Uint8Array(size);
  const k = column.keys.indexOf(key);
  if (k >= 0)
    for (let i = column.starts[k]!; i < column.starts[k + 1]!; i++)
      numbers[column.records[i]!] = bars.length + 1;
  eachKeyedInBar(column, key, bars, (bar, records, start, end) => {
    for (let i = start; i < end; i++) numbers[records[i]!] = bar + 1;
  });
  if (absent === null) return numbers;
  const without = withoutKey(column, key);
  const bar = barOf(bars, absent) + 1;
  for (let r = 0; r < size; r++) if ((without[r >> 5]! >>> (r & 31)) & 1) numbers[r] = bar;
  return numbers;
}
