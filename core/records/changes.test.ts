import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { anyRecord } from '../testing/any-record.ts';
import { changesBetween } from './changes.ts';

test('a record does not differ from itself, and two differ in the same fields both ways', () => {
  fc.assert(
    fc.property(anyRecord, anyRecord, (a, b) => {
      expect(changesBetween(a, structuredClone(a))).toEqual({});
      const [there, back] = [changesBetween(a, b), changesBetween(b, a)];
      expect(Object.keys(back)).toEqual(Object.keys(there));
      for (const [field, { was, is }] of Object.entries(there))
        expect(back[field]).toEqual({ was: is, is: was });
    }),
  );
});

test('figures are written with what they are', () => {
  const [record] = fc.sample(anyRecord, { numRuns: 1, seed: 3 });
  const band = { basis: 'band', low: 10, high: 49, point: null } as const;
  const about = { basis: 'estimate', low: 40, high: 60, point: 50 } as const;
  const revenue = {
    basis: 'reported',
    low: 2e6,
    high: 2e6,
    point: 2e6,
    currency: 'EUR',
    year: 2025,
  } as const;
  const before = { ...record!, headcount: band, revenue: null };
  expect(changesBetween(before, { ...before, headcount: about, revenue })).toEqual({
    headcount: { was: '10-49', is: 'about 50' },
    revenue: { was: null, is: '2000000 EUR (2025)' },
  });
  const open = { basis: 'band', low: 250, high: Infinity, point: null } as const;
  expect(changesBetween(before, { ...before, headcount: open })).toEqual({
    headcount: { was: '10-49', is: '250+' },
  });
});
