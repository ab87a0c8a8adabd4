import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Chance } from '../random.ts';
import { lastDayOf } from './calendar.ts';
import { addressOf, nextMonth, type Cells } from './register.ts';
import { isoOf } from '../../core/dates.ts';

/** What a month makes of a register's rows. */

const ROW: Cells = {
  ...{
    name: 'Lakovna Prostec s.r.o.',
    'legal-form': 's.r.o.',
    registration: '27000011',
    status: 'active',
    country: 'CZ',
  },
  ...{
    region: 'CZ-71',
    town: 'Hranice',
    postcode: '753 01',
    street: 'Cejl 1',
    latitude: '49.5',
    longitude: '17.7',
  },
  ...{
    'main-code': '25.51',
    'other-codes': '',
    headcount: '48',
    'headcount-year': '2025',
    revenue: '4200000',
  },
  ...{ ownership: 'independent', group: '', checked: '2026-03-01' },
};
const NEARBY = {
  address: {
    region: 'CZ-64',
    town: 'Brno',
    postcode: '602 00',
    street: 'Nová 7',
    latitude: '49.2',
    longitude: '16.6',
  },
  owner: 'Velka Skupina a.s.',
  code: '25.53',
};
const DAY = '2026-10-31';
const months = (count: number, cells: Cells = ROW, nearby: Parameters<typeof nextMonth>[2] = NEARBY) =>
  Array.from({ length: count }, (_, i) => nextMonth(cells, new Chance(i * 7919 + 1), nearby, DAY));
const changedIn = (next: Cells) => Object.keys(next).filter((heading) => next[heading] !== ROW[heading]);

test('most are as they were; of the others each change is as frequent as it is meant to be', () => {
  const all = months(20_000);
  const there = all.filter((next) => next !== null);
  const share = (count: number) => count / all.length;
  expect(share(all.length - there.length)).toBeCloseTo(0.004, 2);
  const having = (heading: string) => share(there.filter((next) => next[heading] !== ROW[heading]).length);
  for (const [heading, meant] of [
    ['headcount', 0.12],
    ['revenue', 0.06],
    ['town', 0.008],
    ['ownership', 0.005],
    ['other-codes', 0.007],
    ['status', 0.006],
    ['name', 0.002],
  ] as const)
    expect(Math.abs(having(heading) - meant)).toBeLessThan(0.25 * meant + 0.002);
  expect(share(there.filter((next) => changedIn(next).length === 0).length)).toBeGreaterThan(0.75);
});

test('a changed row was checked on the new day, another keeps the day it had', () => {
  for (const next of months(3000)) {
    if (!next) continue;
    const fields = changedIn(next).filter((heading) => heading !== 'checked');
    expect(next.checked).toBe(fields.length ? DAY : ROW.checked);
  }
});

test('who moves does so whole, and who is bought names its owner', () => {
  for (const next of months(5000)) {
    if (!next) continue;
    const moved = next.town !== ROW.town;
    expect(addressOf(next)).toEqual(moved ? NEARBY.address : addressOf(ROW));
    if (next.ownership === 'subsidiary') expect(next.group).toBe(NEARBY.owner);
  }
});

test('without anything nearby nobody moves, is bought or takes up another trade', () => {
  for (const next of months(3000, ROW, { address: null, owner: null, code: null }))
    if (next) expect([next.town, next.ownership, next['other-codes']]).toEqual([ROW.town, ROW.ownership, '']);
});

test('the same month is the same, whatever was asked before', () => {
  fc.assert(
    fc.property(fc.integer(), (seed) => {
      const once = () => nextMonth(ROW, new Chance(seed), NEARBY, DAY);
      expect(once()).toEqual(once());
    }),
  );
});

test('unknown figures stay unknown, and no headcount is below nobody', () => {
  for (const next of months(2000, { ...ROW, headcount: '', revenue: '' }))
    expect([next?.headcount ?? '', next?.revenue ?? '']).toEqual(['', '']);
  for (const next of months(2000, { ...ROW, headcount: '1' }))
    if (next) expect(Number(next.headcount)).toBeGreaterThanOrEqual(0);
});

test('months end on their last day', () => {
  expect(['2026-10', '2027-02', '2028-02', '2026-12'].map((month) => isoOf(lastDayOf(month)))).toEqual([
    ...['2026-10-31', '2027-02-28', '2028-02-29', '2026-12-31'],
  ]);
});
