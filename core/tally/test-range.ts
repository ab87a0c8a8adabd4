import { euroLimits, isMoney } from '../money/limits.ts';
import type { MoneyTest, NumberTest } from '../tape/nodes.ts';
import { addBits, noBits, setBit, type Bits } from './bits.ts';
import { Basis, type RangeColumn, type RangeIndex } from './columns.ts';
import { addRecords, dropRecords, firstAbove, firstAtLeast } from './sorted.ts';
import type { Verdict } from './verdict.ts';

/**
 * Yes where the whole value lies in the range, no where none of it does, unknown where it reaches
 * over a limit. An estimate decides by its point where estimates count, else it is unknown.
 */
export function testRange(
  column: RangeColumn,
  test: NumberTest | MoneyTest,
  estimates: boolean,
  size: number,
): Verdict {
  const { index } = column;
  const limits = limitsOf(test);
  const yes = noBits(size);
  const unknown = index.unknown.slice();
  for (const { basis, year, start, end, members } of index.runs) {
    const { from, to } = limits(year);
    if (basis === Basis.Estimate && !estimates) continue;
    if (Number.isNaN(from) || Number.isNaN(to)) {
      addBits(unknown, members);
      continue;
    }
    const first = firstAtLeast(index.values, from, start, end);
    const last = firstAbove(index.values, to, first, end);
    if (2 * (last - first) <= end - start) addRecords(yes, index.records, first, last);
    else {
      addBits(yes, members);
      dropRecords(yes, index.records, start, first);
      dropRecords(yes, index.records, last, end);
    }
  }
  for (const { year, low, high, start, end } of index.bands) {
    const { from, to } = limits(year);
    if (low >= from && high <= to) addRecords(yes, index.bandRecords, start, end);
    else if (!(high < from || low > to)) addRecords(unknown, index.bandRecords, start, end);
  }
  if (!estimates) {
    addBits(unknown, index.estimated);
    return { yes, unknown };
  }
  return { yes, unknown, estimated: index.estimated, straddling: straddlersOf(index, limits, size) };
}

/** Records decided by an estimate whose range reaches over a limit. */
function straddlersOf(index: RangeIndex, limits: LimitsOf, size: number): Bits {
  const straddling = noBits(size);
  for (const { basis, year, start, end } of index.runs) {
    if (basis !== Basis.Estimate) continue;
    const { from, to } = limits(year);
    for (let i = start; i < end; i++) {
      const least = index.rangeLow[i - index.firstEstimate]!;
      const most = index.rangeHigh[i - index.firstEstimate]!;
      if ((least < from && most > from) || (least < to && most > to)) setBit(straddling, index.records[i]!);
    }
  }
  return straddling;
}

/** Both ends of a test for values of a year, in the column's unit; NaN where the year has no rate. */
type LimitsOf = (year: number) => { from: number; to: number };

function limitsOf(test: NumberTest | MoneyTest): LimitsOf {
  const times = isMoney(test) && test.per === 'month' ? 12 : 1;
  const plain = { from: (test.from ?? -Infinity) * times, to: (test.to ?? Infinity) * times };
  if (!isMoney(test) || test.currency === 'EUR') return () => plain;
  const byYear = new Map(euroLimits(test).map(({ year, from, to }) => [year, { from, to }]));
  const none = { from: NaN, to: NaN };
  return (year) => byYear.get(year) ?? none;
}
