import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { curveOf, onCurve } from './calibration.ts';

/** Trials of which those told `told` come true with chance `truth(told)`; drawn evenly, so that no luck is in them. */
const trials = (truth: (told: number) => number, n = 6000) =>
  Array.from({ length: n }, (_, i) => {
    const told = (i % 100) / 100;
    return { told, right: (Math.floor(i / 100) * 0.6180339887) % 1 < truth(told) };
  });

test('says of each chance what came of it', () => {
  const curve = curveOf(trials((told) => told ** 2))!;
  for (const told of [0.2, 0.5, 0.8, 0.95])
    expect(Math.abs(onCurve(curve, told) - told ** 2)).toBeLessThan(0.04);
});

test('rises, whatever the trials were', () => {
  const trial = fc.record({ told: fc.double({ min: 0, max: 1, noNaN: true }), right: fc.boolean() });
  fc.assert(
    fc.property(fc.array(trial, { minLength: 300, maxLength: 900 }), (some) => {
      const { told, right } = curveOf(some)!;
      for (let i = 1; i < told.length; i++) {
        expect(told[i]!).toBeGreaterThanOrEqual(told[i - 1]!);
        expect(right[i]!).toBeGreaterThan(right[i - 1]!);
      }
      const curve = { told, right };
      for (const chance of [0, 0.3, 1]) {
        expect(onCurve(curve, chance)).toBeGreaterThanOrEqual(0);
        expect(onCurve(curve, chance)).toBeLessThanOrEqual(1);
      }
    }),
    { numRuns: 40 },
  );
});

test('the whole keeps its mean: as many came true as are told to', () => {
  const some = trials((told) => 0.3 + 0.5 * told);
  const curve = curveOf(some)!;
  const mean = (values: number[]) => values.reduce((a, b) => a + b, 0) / values.length;
  expect(mean(some.map(({ told }) => onCurve(curve, told)))).toBeCloseTo(
    mean(some.map(({ right }) => Number(right))),
    1,
  );
});

test('says nothing from few trials', () => {
  expect(curveOf(trials((told) => told, 200))).toBeNull();
});
