import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { dayOf, isoOf, monthsBefore, monthsBetween, parseSpan, spanStart, yearOf } from './dates.ts';
import { daysOf, wordDays } from './tape/dates.ts';

/** Days of the years 1600 to 2400. */
const day = fc.integer({ min: dayOf('1600-01-01')!, max: dayOf('2400-12-31')! });

describe('days', () => {
  test('and dates are two spellings of one thing', () => {
    expect([dayOf('1970-01-01'), isoOf(0), isoOf(-1)]).toEqual([0, '1970-01-01', '1969-12-31']);
    fc.assert(
      fc.property(day, (one) => {
        expect(dayOf(isoOf(one))).toBe(one);
        expect(isoOf(one + 1) > isoOf(one)).toBe(true);
        expect(String(yearOf(one))).toBe(isoOf(one).slice(0, 4));
      }),
    );
  });
  test('are of the calendar: leap years by the rule of 400, no day that is not there', () => {
    expect(dayOf('2000-02-29')).not.toBeNull();
    for (const none of ['1900-02-29', '2026-02-29', '2026-04-31', '2026-13-01', '2026-00-10', '2026-06-00'])
      expect([none, dayOf(none)]).toEqual([none, null]);
    for (const text of ['26-09-30', '2026-9-30', '2026-09-30T00:00', ' 2026-09-30', '0999-01-01', ''])
      expect([text, dayOf(text)]).toEqual([text, null]);
  });
});

describe('months before a day', () => {
  test('keep the day of the month, or take the last that there is', () => {
    const before = (iso: string, months: number) => isoOf(monthsBefore(dayOf(iso)!, months));
    expect(before('2026-05-31', 3)).toBe('2026-02-28');
    expect(before('2024-05-31', 3)).toBe('2024-02-29');
    expect(before('2026-01-15', 1)).toBe('2025-12-15');
    expect(before('2024-02-29', 12)).toBe('2023-02-28');
    expect(before('2026-09-30', 0)).toBe('2026-09-30');
  });
  test('never lie later for more months, and are the months apart that were asked', () => {
    fc.assert(
      fc.property(day, fc.integer({ min: 0, max: 240 }), (one, months) => {
        const earlier = monthsBefore(one, months);
        expect(monthsBefore(one, months + 1)).toBeLessThanOrEqual(earlier);
        const count = (at: number) => 12 * yearOf(at) + Number(isoOf(at).slice(5, 7));
        expect(count(one) - count(earlier)).toBe(months);
        expect(Number(isoOf(earlier).slice(8))).toBeLessThanOrEqual(Number(isoOf(one).slice(8)));
      }),
    );
  });
});

describe('spans', () => {
  test('are so many days, months or years, and nothing else', () => {
    expect(parseSpan('18 months')).toEqual({ count: 18, unit: 'months' });
    expect(parseSpan(' 1 Year ')).toEqual({ count: 1, unit: 'years' });
    expect(parseSpan('90days')).toEqual({ count: 90, unit: 'days' });
    for (const none of ['', '0 days', '18', 'months', '-3 months', '3.5 years', '3 weeks', '12345 days'])
      expect([none, parseSpan(none)]).toEqual([none, null]);
  });
  test('begin so that both end days are in', () => {
    const end = dayOf('2026-09-30')!;
    const start = (text: string) => isoOf(spanStart(end, parseSpan(text)!));
    expect([start('30 days'), start('12 months'), start('1 year'), start('2 years')]).toEqual([
      '2026-08-31',
      '2025-09-30',
      '2025-09-30',
      '2024-09-30',
    ]);
  });
});

describe('a test of dates', () => {
  const asOf = dayOf('2026-03-31')!;
  const days = (test: Parameters<typeof daysOf>[0]) => {
    const { from, to } = daysOf(test, asOf);
    return [from === null ? null : isoOf(from), to === null ? null : isoOf(to)];
  };
  test('means days of the calendar, both in, counted from the as-of date', () => {
    expect(days({ past: '1 month' })).toEqual(['2026-02-28', '2026-03-31']);
    expect(days({ year: 'this' })).toEqual(['2026-01-01', '2026-12-31']);
    expect(days({ year: 'last' })).toEqual(['2025-01-01', '2025-12-31']);
    expect(days({ year: 2019 })).toEqual(['2019-01-01', '2019-12-31']);
    expect(days({ from: '2026-01-05' })).toEqual(['2026-01-05', null]);
    expect(days({ to: '2026-01-05' })).toEqual([null, '2026-01-05']);
  });
  test('says which days it means', () => {
    expect(wordDays({ past: '12 months' }, asOf)).toBe('2025-03-31 to 2026-03-31');
    expect(wordDays({ from: '2026-01-05' }, asOf)).toBe('since 2026-01-05');
    expect(wordDays({ to: '2026-01-05' }, asOf)).toBe('up to 2026-01-05');
  });
});

test('months between are whole ones of the calendar', () => {
  const between = (from: string, to: string) => monthsBetween(dayOf(from)!, dayOf(to)!);
  expect(between('2026-09-30', '2026-10-29')).toBe(0);
  expect(between('2026-09-30', '2026-10-30')).toBe(1);
  expect(between('2024-09-30', '2026-09-30')).toBe(24);
  expect([between('2026-01-31', '2026-02-28'), between('2026-01-31', '2026-03-31')]).toEqual([0, 2]);
  expect(between('1900-01-01', '2026-01-01')).toBe(126 * 12);
  expect(between('2026-10-01', '2026-09-30')).toBe(0);
});
