import { exchange, RATE_YEARS } from '../money/rates.ts';
import type { RangeColumn } from './columns.ts';

/** A figure of a record's value in another unit; NaN where there is no rate. */
export type Scale = (value: number, r: number) => number;

const AS_IT_IS: Scale = (value) => value;
const YEARS = RATE_YEARS.to - RATE_YEARS.from + 1;

/** How the figures of a column become a currency at the rate of each value's year; plain numbers stay as they are. */
export function scaleTo(
  column: Pick<RangeColumn, 'currency' | 'currencies' | 'year'>,
  currency: string,
): Scale {
  const { currency: currencyOf, currencies, year } = column;
  if (!currencyOf || currencies.every((one) => one === currency)) return AS_IT_IS;
  // By currency, its years one after the other, and at the end years without a rate.
  const times = new Float64Array(currencies.length * (YEARS + 1));
  const by = new Float64Array(times.length);
  currencies.forEach((from, c) => {
    for (let y = 0; y <= YEARS; y++) {
      const way = exchange(from, currency, y < YEARS ? RATE_YEARS.from + y : null);
      times[c * (YEARS + 1) + y] = way?.times ?? NaN;
      by[c * (YEARS + 1) + y] = way?.by ?? NaN;
    }
  });
  return (value, r) => {
    const y = year[r]! - RATE_YEARS.from;
    const at = currencyOf[r]! * (YEARS + 1) + (y >= 0 && y < YEARS ? y : YEARS);
    return (value * times[at]!) / by[at]!;
  };
}
