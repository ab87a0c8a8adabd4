import { dayOf, isoOf } from '../../core/dates.ts';

/** The months of the demo's scenario, as calendar months. */

/** How many months a month such as 2026-10 is after the first of year 0. */
export const monthNumber = (month: string) => Number(month.slice(0, 4)) * 12 + Number(month.slice(5)) - 1;

/** The last day of a month such as 2026-10. */
export function lastDayOf(month: string): number {
  const [year, nth] = month.split('-').map(Number) as [number, number];
  return dayOf(isoOf(Date.UTC(year, nth, 0) / 86_400_000))!;
}
