import { isMoney, limitsIn, type Limits } from '../money/limits.ts';
import type { MoneyTest, NumberTest } from '../tape/nodes.ts';
import { addBits, dropBits, noBits, setBit, type Bits } from './bits.ts';
import { Basis, type RangeColumn, type RangeIndex } from './columns.ts';
import { addRecords, dropRecords, firstAbove, firstAtLeast } from './sorted.ts';
import type { Verdict } from './verdict.ts';

/** Both ends of a test for values of a currency and year, in the column's own unit; null where there is no rate. */
export type LimitsOf = (currency: number, year: number) => Limits | null;

/** The ends of a test for each currency and year of a column. */
export function limitsOf(column: Pick<RangeColumn, 'currencies'>, test: NumberTest | MoneyTest): LimitsOf {
  if (!isMoney(test)) {
    const plain = { from: test.from ?? -Infinity, to: test.to ?? Infinity };
    return () => plain;
  }
  const known = new Map<number, Limits | null>();
  return (currency, year) => {
    const key = currency * 0x10000 + year;
    let limits = known.get(key);
    if (limits === undefined)
      known.set(key, (limits = limitsIn(test, column.currencies[currency]!, year || null)));
    return limits;
  };
}

/**
 * Yes where the whole value lies in the range, no where none of it does, unknown where it reaches
 * over a limit or the limit cannot be had in its currency. An estimate decides by its point where
 * estimates count, else it is unknown.
 */
export function testRange(
  column: RangeColumn,
  test: NumberTest | MoneyTest,
  estimates: boolean,
  size: number,
): Verdict {
  const { index } = column;
  const limits = limitsOf(column, test);
  const yes = noBits(size);
  const unknown = index.unknown.slice();
  let unrated: Bits | undefined;
  const withoutRate = (records: Uint32Array, start: number, end: number) =>
    addRecords((unrated ??= noBits(size)), records, start, end);
  for (const { basis, currency, year, start, end, members } of index.runs) {
    if (basis === Basis.Estimate && !estimates) continue;
    const range = limits(currency, year);
    if (!range) {
      withoutRate(index.records, start, end);
      continue;
    }
    const [first, last] = within(index.values, range, start, end);
    if (!members || 2 * (last - first) <= end - start) addRecords(yes, index.records, first, last);
    else {
      addBits(yes, members);
      dropRecords(yes, index.records, start, first);
      dropRecords(yes, index.records, last, end);
    }
  }
  for (const { currency, year, low, high, start, end } of index.bands) {
    const range = limits(currency, year);
    if (!range) withoutRate(index.bandRecords, start, end);
    else if (low >= range.from && high <= range.to) addRecords(yes, index.bandRecords, start, end);
    else if (!(high < range.from || low > range.to)) addRecords(unknown, index.bandRecords, start, end);
  }
  if (unrated) addBits(unknown, unrated);
  if (!estimates) {
    addBits(unknown, index.estimated);
    return { yes, unknown, unrated };
  }
  let { estimated } = index;
  if (unrated) dropBits((estimated = estimated.slice()), unrated);
  return { yes, unknown, unrated, estimated, straddling: straddlersOf(index, limits, size) };
}

/** The stretch of ascending values that lie within limits. */
export function within(
  values: Float64Array,
  { from, to }: Limits,
  start: number,
  end: number,
): [number, number] {
  const first = firstAtLeast(values, from, start, end);
  return [first, firstAbove(values, to, first, end)];
}

/** Records decided by an estimate of whose range a part lies within the limits and a part beyond one. */
function straddlersOf(index: RangeIndex, limits: LimitsOf, size: number): Bits {
  const straddling = noBits(size);
  for (const { basis, currency, year, start, end } of index.runs) {
    if (basis !== Basis.Estimate) continue;
    const range = limits(currency, year);
    if (!range) continue;
    const { from, to } = range;
    for (let i = start; i < end; i++) {
      const least = index.rangeLow[i - index.firstEstimate]!;
      const most = index.rangeHigh[i - index.firstEstimate]!;
      if (most >= from && least <= to && (least < from || most > to)) setBit(straddling, index.records[i]!);
    }
  }
  return straddling;
}
