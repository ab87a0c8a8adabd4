import type { MoneyTest, NumberTest } from '../tape/nodes.ts';
import { ratePerEuro, RATE_YEARS } from './rates.ts';

/** Limits in euros for one year of values, both ends included, infinite where open. */
export interface EuroLimits {
  year: number;
  from: number;
  to: number;
}

/** What a money test means in euros for values of each year that has rates. A monthly limit is taken twelve times. */
export function euroLimits(test: MoneyTest): EuroLimits[] {
  const times = test.per === 'month' ? 12 : 1;
  const limits: EuroLimits[] = [];
  for (let year = RATE_YEARS.from; year <= RATE_YEARS.to; year++) {
    const rate = ratePerEuro(test.currency, year);
    if (rate === null) continue;
    limits.push({
      year,
      from: test.from === undefined ? -Infinity : (test.from * times) / rate,
      to: test.to === undefined ? Infinity : (test.to * times) / rate,
    });
  }
  return limits;
}

export function isMoney(test: NumberTest | MoneyTest): test is MoneyTest {
  return 'currency' in test;
}
