/**
 * Calendar dates as whole days since 1 January 1970 (UTC), so that columns are integers and
 * comparing is subtraction. In files and requests a date is written "2026-09-30".
 */

const MS_A_DAY = 86_400_000;

/** Days since 1970-01-01 of an ISO date, or null where the text is not a real calendar date of the years 1000 to 9999. */
export function dayOf(iso: string): number | null {
  const parts = /^([1-9]\d{3})-(\d{2})-(\d{2})$/.exec(iso);
  if (!parts) return null;
  const [year, month, day] = [Number(parts[1]), Number(parts[2]), Number(parts[3])];
  if (month < 1 || month > 12 || day < 1 || day > lengthOf(year, month)) return null;
  return Date.UTC(year, month - 1, day) / MS_A_DAY;
}

function lengthOf(year: number, month: number): number {
  if (month === 2) return year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0) ? 29 : 28;
  return month === 4 || month === 6 || month === 9 || month === 11 ? 30 : 31;
}

/** The ISO date of a day number. */
export function isoOf(day: number): string {
  const date = new Date(day * MS_A_DAY);
  const two = (n: number) => (n < 10 ? `0${n}` : String(n));
  return `${String(date.getUTCFullYear()).padStart(4, '0')}-${two(date.getUTCMonth() + 1)}-${two(date.getUTCDate())}`;
}

/** The calendar year a day lies in. */
export function yearOf(day: number): number {
  return new Date(day * MS_A_DAY).getUTCFullYear();
}

/** The same day of the month, so many months earlier; the month's last day where it has fewer (31 May − 3 → 28 February). */
export function monthsBefore(day: number, months: number): number {
  const date = new Date(day * MS_A_DAY);
  const first = Date.UTC(date.getUTCFullYear(), date.getUTCMonth() - months, 1);
  const start = new Date(first);
  const lastOfMonth = new Date(Date.UTC(start.getUTCFullYear(), start.getUTCMonth() + 1, 0)).getUTCDate();
  return first / MS_A_DAY + Math.min(date.getUTCDate(), lastOfMonth) - 1;
}

/** Whole calendar months from one day to another, at least 0: from 30 September to 29 October none. */
export function monthsBetween(from: number, to: number): number {
  let months = Math.max(0, Math.floor((to - from) / MOST_DAYS_A_MONTH));
  while (monthsBefore(to, months + 1) >= from) months++;
  return months;
}
const MOST_DAYS_A_MONTH = 31;

/** A span such as "18 months", "2 years" or "90 days"; null where it is none. */
export function parseSpan(text: string): { count: number; unit: 'days' | 'months' | 'years' } | null {
  const parts = /^\s*(\d{1,4})\s*(day|month|year)s?\s*$/i.exec(text);
  if (!parts || Number(parts[1]) === 0) return null;
  return { count: Number(parts[1]), unit: `${parts[2]!.toLowerCase()}s` as 'days' | 'months' | 'years' };
}

/** The day from which something counts: an ISO date as it is, or the first day of a span that ends on `end`. Null where the text is neither. */
export function sinceDay(end: number, text: string): number | null {
  const span = parseSpan(text);
  return span ? spanStart(end, span) : dayOf(text);
}

/** The first day of the span that ends on `end` (both ends included). */
export function spanStart(end: number, span: { count: number; unit: 'days' | 'months' | 'years' }): number {
  if (span.unit === 'days') return end - span.count;
  return monthsBefore(end, span.unit === 'years' ? span.count * 12 : span.count);
}
