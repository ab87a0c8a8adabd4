import type { MoneyTest, NumberTest } from '../tape/nodes.ts';
import { exchange } from './rates.ts';

/** Both ends of a test, included, infinite where open. */
export interface Limits {
  from: number;
  to: number;
}

/**
 * What a money test means for values of a currency and year: its limits carried into that currency, so that a value is
 * compared as it came. A monthly limit is taken twelve times. Null where there is no rate, which values in the test's own
 * currency do not need.
 */
export function limitsIn(test: MoneyTest, currency: string, year: number | null): Limits | null {
  const way = exchange(test.currency, currency, year);
  if (!way) return null;
  const months = test.per === 'month' ? 12 : 1;
  const carried = (limit: number) => decimal((limit * months * way.times) / way.by);
  return {
    from: test.from === undefined ? -Infinity : carried(test.from),
    to: test.to === undefined ? Infinity : carried(test.to),
  };
}

/**
 * The decimal that a figure reckoned in binary stands for. The few steps above lose less than half a unit of the
 * fifteenth digit, so that a limit that is a whole amount in the value's currency comes out as that amount.
 */
function decimal(value: number): number {
  return Number(value.toPrecision(15));
}

export function isMoney(test: NumberTest | MoneyTest): test is MoneyTest {
  return 'currency' in test;
}
