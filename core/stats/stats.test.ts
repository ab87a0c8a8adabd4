import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { classOf, roundClasses } from './classes.ts';
import { concentrationOf } from './concentration.ts';
import { quantilesOf } from './quantiles.ts';

const figures = fc.array(fc.double({ min: 0.001, max: 1e9, noNaN: true }), { minLength: 1, maxLength: 80 });

const percents = fc.integer({ min: -1e6, max: 1e6 }).map((tenths) => tenths / 10);

describe('quantiles', () => {
  test('the middle of an even number is the mean of the two in the middle', () => {
    expect(quantilesOf([4, 1, 3, 2], [0, 0.25, 0.5, 1])).toEqual([1, 1.75, 2.5, 4]);
    expect(quantilesOf([], [0.5])).toEqual([]);
  });
  test('rise with the share, from the least to the most', () => {
    fc.assert(
      fc.property(figures, (some) => {
        const found = quantilesOf(some, [0, 0.1, 0.5, 0.9, 1]);
        expect(found).toEqual([...found].sort((a, b) => a - b));
        expect([found[0], found[4]]).toEqual([Math.min(...some), Math.max(...some)]);
      }),
    );
  });
});

describe('concentration', () => {
  test('of one holder is full, of equal ones 10,000 over their number', () => {
    expect(concentrationOf([7])).toMatchObject({
      units: 1,
      hhi: 10_000,
      largest: [{ units: 1, share: 100 }],
    });
    expect(concentrationOf([5, 5, 5, 5])!.hhi).toBeCloseTo(2500);
    expect(concentrationOf([0, -3])).toBeNull();
  });
  test('the curve never falls nor bends upwards, and ends at all', () => {
    fc.assert(
      fc.property(figures, (some) => {
        const { curve, units } = concentrationOf(some)!;
        expect(curve[0]).toEqual([0, 0]);
        expect(curve.at(-1)![0]).toBe(units);
        expect(curve.at(-1)![1]).toBeCloseTo(100, 6);
        for (let i = 1; i < curve.length; i++) {
          const [n, share] = curve[i]!;
          expect(share).toBeGreaterThanOrEqual(curve[i - 1]![1]);
          // What so many of the largest hold is never less than their share of the number.
          expect(share).toBeGreaterThanOrEqual((100 * n) / units - 1e-6);
        }
      }),
    );
  });
});

describe('classes of a map', () => {
  test('begin at round numbers and hold every figure', () => {
    fc.assert(
      fc.property(figures, fc.integer({ min: 2, max: 6 }), (some, most) => {
        const begins = roundClasses(some, most);
        expect(begins.length).toBeLessThanOrEqual(most);
        for (const begin of begins)
          expect([1, 2, 5]).toContain(Math.round(begin / 10 ** Math.floor(Math.log10(begin) + 1e-9)));
        for (const figure of some) expect(classOf(begins, figure)).toBeGreaterThanOrEqual(0);
      }),
    );
  });
  test('hold figures below nothing too', () => {
    expect(roundClasses([-7, -3, -0.4, 0, 1.8, 4, 12], 5)).toEqual([-10, -2, -0.5, 2, 5]);
    fc.assert(
      fc.property(fc.array(percents, { minLength: 1 }), (some) => {
        const begins = roundClasses(some, 5);
        const held = some.some((figure) => figure < 0) ? some : some.filter((figure) => figure > 0);
        for (const figure of held) expect(classOf(begins, figure)).toBeGreaterThanOrEqual(0);
      }),
    );
  });
});
