import { dayOf, isoOf, parseSpan, spanStart, yearOf } from '../dates.ts';
import type { DateTest } from './nodes.ts';

/** The days a date test means, both included; an open end is null. Rolling spans end on the as-of date, calendar years on 31 December. */
export function daysOf(test: DateTest, asOf: number): { from: number | null; to: number | null } {
  if (test.past !== undefined) return { from: spanStart(asOf, parseSpan(test.past)!), to: asOf };
  if (test.year !== undefined) {
    const year = test.year === 'this' ? yearOf(asOf) : test.year === 'last' ? yearOf(asOf) - 1 : test.year;
    return { from: dayOf(`${year}-01-01`), to: dayOf(`${year}-12-31`) };
  }
  return { from: test.from ? dayOf(test.from) : null, to: test.to ? dayOf(test.to) : null };
}

/** "2025-09-30 to 2026-09-30", or with an open end. */
export function wordDays(test: DateTest, asOf: number): string {
  const { from, to } = daysOf(test, asOf);
  if (from === null) return `up to ${isoOf(to!)}`;
  return to === null ? `since ${isoOf(from)}` : `${isoOf(from)} to ${isoOf(to)}`;
}
