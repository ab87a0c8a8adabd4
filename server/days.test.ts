import { expect, test } from '@jest/globals';
import { isoOf } from '../core/dates.ts';
import { asOfDay, todayOf } from './days.ts';

test('today is the day of the place where the program runs, not that of Greenwich', () => {
  const late = new Date('2026-03-31T22:30:00Z');
  for (const [place, day] of [
    ['UTC', '2026-03-31'],
    ['Europe/Prague', '2026-04-01'],
    ['America/New_York', '2026-03-31'],
    ['Pacific/Auckland', '2026-04-01'],
    ['Pacific/Pago_Pago', '2026-03-31'],
  ] as const)
    expect([place, isoOf(todayOf(late, place))]).toEqual([place, day]);
});

test('a day ends at midnight, also on the day that the clocks change', () => {
  const dayAt = (time: string) => isoOf(todayOf(new Date(time), 'Europe/Prague'));
  expect(dayAt('2026-10-24T21:59:59Z')).toBe('2026-10-24');
  expect(dayAt('2026-10-24T22:00:00Z')).toBe('2026-10-25');
  expect(dayAt('2026-10-25T22:59:59Z')).toBe('2026-10-25');
  expect(dayAt('2026-10-25T23:00:00Z')).toBe('2026-10-26');
});

test('the as-of date is the day set, whatever day it is', () => {
  const now = new Date('2026-11-28T12:00:00Z');
  expect(isoOf(asOfDay({ asOf: '2026-09-30' }, now))).toBe('2026-09-30');
  expect(asOfDay({ asOf: null }, now)).toBe(todayOf(now));
});
