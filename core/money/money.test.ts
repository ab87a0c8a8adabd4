import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { limitsIn } from './limits.ts';
import { converted, CURRENCIES, exchange, RATE_YEARS, ratePerEuro, toEuro } from './rates.ts';

const anyCurrency = fc.constantFrom(...CURRENCIES);
const anyYear = fc.integer({ min: RATE_YEARS.from, max: RATE_YEARS.to });

test('limits are carried into the currency of the value at the rate of its year, a month twelve times', () => {
  expect(limitsIn({ from: 1000, to: 2000, currency: 'EUR', per: 'month' }, 'CZK', 2024)).toEqual({
    from: 301_440,
    to: 602_880,
  });
  expect(limitsIn({ from: 25_120, currency: 'CZK' }, 'EUR', 2024)).toEqual({ from: 1000, to: Infinity });
});

test('within one currency no rate is needed, in another one is', () => {
  expect(limitsIn({ from: 5, currency: 'EUR' }, 'EUR', null)).toEqual({ from: 5, to: Infinity });
  expect(limitsIn({ from: 5, currency: 'CZK' }, 'CZK', 1990)).toEqual({ from: 5, to: Infinity });
  expect(limitsIn({ from: 5, currency: 'CZK' }, 'EUR', 1990)).toBeNull();
  expect(limitsIn({ from: 5, currency: 'CZK' }, 'EUR', null)).toBeNull();
  expect(toEuro(7, 'EUR', 1990)).toBe(7);
  expect(converted(7, 'CZK', 'EUR', 1990)).toBeNull();
});

test('a limit that is a whole amount in the currency of the value is that amount', () => {
  // 2,000,000 EUR at 1.08 are 2,160,000 USD, which binary fractions miss by a hair.
  expect(limitsIn({ from: 2_160_000, to: 2_160_000, currency: 'USD' }, 'EUR', 2024)).toEqual({
    from: 2_000_000,
    to: 2_000_000,
  });
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 1e9 }), anyCurrency, anyYear, (euros, currency, year) => {
      // Reckoned in whole numbers: rates have at most five decimals.
      const rate = ratePerEuro(currency, year)!;
      const amount = Number((BigInt(euros) * BigInt(Math.round(rate * 1e5))).toString()) / 1e5;
      expect(limitsIn({ from: amount, currency }, 'EUR', year)!.from).toBe(euros);
    }),
  );
});

test('there and back is the same amount, to the last cent', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: -1e12, max: 1e12 }),
      anyCurrency,
      anyCurrency,
      anyYear,
      (cents, from, to, year) => {
        const there = converted(cents / 100, from, to, year)!;
        expect(Math.round(converted(there, to, from, year)! * 100)).toBe(cents);
        expect(exchange(from, to, year)).not.toBeNull();
      },
    ),
  );
});
