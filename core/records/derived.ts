import { growthKey, growthOf, growthOver } from './growth.ts';
import type { CompanyRecord, Money } from './record.ts';

/** What is worked out from a company's own values. */

/**
 * Revenue over headcount, of the revenue's year and currency. An estimate if either is one, else a band if
 * either is one: from the least revenue over the most heads to the most over the least. Null where
 * either is unknown or nobody may be employed.
 */
export function revenuePerHead({ revenue, headcount }: CompanyRecord): Money | null {
  if (!revenue || !headcount || headcount.low <= 0) return null;
  const basis =
    revenue.basis === 'estimate' || headcount.basis === 'estimate'
      ? 'estimate'
      : revenue.basis === 'band' || headcount.basis === 'band'
        ? 'band'
        : 'reported';
  const low = headcount.high === Infinity ? 0 : revenue.low / headcount.high;
  const high = revenue.high / headcount.low;
  if (basis === 'estimate' && (revenue.point === null || headcount.point === null)) return null;
  const point = basis === 'band' ? null : revenue.point! / headcount.point!;
  return { basis, low, high, point, currency: revenue.currency, year: revenue.year };
}

export type Measure = [measure: 'growth' | 'departments', key: string, value: number];

/** Numbers by key: growth of headcount, revenue and each department, and staff by department. */
export function measuresOf(record: CompanyRecord): Measure[] {
  const measures: Measure[] = [];
  const grew = (of: string, over: '1y' | '3y', percent: number | null) => {
    if (percent !== null) measures.push(['growth', growthKey(of, over), percent]);
  };
  for (const [of, history] of [
    ['headcount', record.headcountHistory],
    ['revenue', record.revenueHistory],
  ] as const) {
    grew(of, '1y', growthOver(history, 1));
    grew(of, '3y', growthOver(history, 3));
  }
  for (const { key, now, before1, before3 } of record.departments ?? []) {
    measures.push(['departments', key, now]);
    grew(key, '1y', growthOf(before1, now));
    grew(key, '3y', growthOf(before3, now));
  }
  return measures;
}
