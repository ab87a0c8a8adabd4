import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { anyRecord } from '../testing/any-record.ts';
import { measuresOf, revenuePerHead } from './derived.ts';
import { growthOf, growthOver } from './growth.ts';

describe('growth', () => {
  test('is in percent, not rounded, and unknown from zero or from nothing', () => {
    expect(growthOf(120, 132)).toBe(10);
    expect(growthOf(30, 20)).toBeCloseTo(-33.3333333, 6);
    // 5 % exactly, which a quotient less 1 would miss.
    expect(growthOf(20, 21)).toBe(5);
    expect(growthOf(1010, 1060)).toBeCloseTo(4.9505, 4);
    expect(growthOf(5, 0)).toBe(-100);
    expect(growthOf(0, 7)).toBeNull();
    expect(growthOf(null, 7)).toBeNull();
  });
  test('of a history ends on its latest year and never mixes reported with estimated', () => {
    const history = [
      { year: 2022, value: 80, estimate: false },
      { year: 2024, value: 100, estimate: true },
      { year: 2025, value: 120, estimate: false },
    ];
    expect(growthOver(history, 3)).toBe(50);
    expect(growthOver(history, 1)).toBeNull();
    expect(growthOver([], 1)).toBeNull();
  });
});

test('revenue per head lies within its range and rests on the weaker of its two figures', () => {
  fc.assert(
    fc.property(anyRecord, (record) => {
      const each = revenuePerHead(record);
      if (!record.revenue || !record.headcount) return expect(each).toBeNull();
      if (!each) return;
      expect(each.low).toBeLessThanOrEqual(each.high);
      if (each.point !== null) {
        expect(each.point).toBeGreaterThanOrEqual(each.low);
        expect(each.point).toBeLessThanOrEqual(each.high);
      }
      const bases = [record.revenue.basis, record.headcount.basis];
      expect(each.basis === 'reported').toBe(bases.every((basis) => basis === 'reported'));
    }),
  );
});

test('a department grows from its own earlier staff', () => {
  const [record] = fc.sample(anyRecord, 1);
  const departments = [{ key: 'sales', now: 6, before1: 5, before3: 0 }];
  expect(measuresOf({ ...record!, headcountHistory: [], revenueHistory: [], departments })).toEqual([
    ['departments', 'sales', 6],
    ['growth', 'sales 1y', 20],
  ]);
});
