import { euroLimits, isMoney } from '../money/limits.ts';
import { RATE_YEARS } from '../money/rates.ts';
import type { MoneyTest, NumberTest } from '../tape/nodes.ts';
import { noBits } from './bits.ts';
import { Basis, type RangeColumn } from './columns.ts';
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
  const { low, high, rangeLow, rangeHigh, basis, year } = column;
  const yes = noBits(size);
  const unknown = noBits(size);
  const estimated = noBits(size);
  const straddling = noBits(size);
  let from = test.from ?? -Infinity;
  let to = test.to ?? Infinity;
  const byYear = isMoney(test) && test.currency !== 'EUR' ? limitsByYear(test) : null;
  if (isMoney(test) && test.per === 'month') {
    from *= 12;
    to *= 12;
  }

  for (let w = 0, r = 0; r < size; w++) {
    const end = Math.min(size, r + 32);
    let yesWord = 0;
    let unknownWord = 0;
    let estimatedWord = 0;
    let straddlingWord = 0;
    for (let bit = 1; r < end; r++, bit <<= 1) {
      const rests = basis[r]!;
      if (rests === Basis.Unknown || (rests === Basis.Estimate && !estimates)) {
        unknownWord |= bit;
        continue;
      }
      if (byYear) {
        const at = (year[r]! - RATE_YEARS.from) * 2;
        from = byYear[at]!;
        to = byYear[at + 1]!;
      }
      const least = low[r]!;
      const most = high[r]!;
      if (least >= from && most <= to) yesWord |= bit;
      else if (!(most < from || least > to)) unknownWord |= bit;
      if (rests === Basis.Estimate) {
        estimatedWord |= bit;
        const below = rangeLow[r]!;
        const above = rangeHigh[r]!;
        if ((below < from && above > from) || (below < to && above > to)) straddlingWord |= bit;
      }
    }
    yes[w] = yesWord;
    unknown[w] = unknownWord;
    estimated[w] = estimatedWord;
    straddling[w] = straddlingWord;
  }
  return estimates ? { yes, unknown, estimated, straddling } : { yes, unknown };
}

function limitsByYear(test: MoneyTest): Float64Array {
  const limits = new Float64Array((RATE_YEARS.to - RATE_YEARS.from + 1) * 2).fill(NaN);
  for (const { year, from, to } of euroLimits(test)) limits.set([from, to], (year - RATE_YEARS.from) * 2);
  return limits;
}
