import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { rangeSteps } from './steps.ts';

test('size classes step to the next size class', () => {
  expect(rangeSteps({ from: 20, to: 49 }, true)).toEqual(
    [
      { end: 'from', way: 'wider', test: { from: 10, to: 49 } },
      { end: 'from', way: 'narrower', test: { from: 50, to: 49 } },
      { end: 'to', way: 'narrower', test: { from: 20, to: 19 } },
      { end: 'to', way: 'wider', test: { from: 20, to: 99 } },
    ].filter(({ test: { from, to } }) => from <= to),
  );
  expect(rangeSteps({ from: 2e6 }, false).map((step) => step.test)).toEqual([{ from: 1e6 }, { from: 5e6 }]);
  expect(rangeSteps({ to: -10 }, false).map((step) => step.test)).toEqual([{ to: -20 }, { to: -5 }]);
  expect(rangeSteps({ from: 1 }, true).map((step) => step.test)).toEqual([{ from: 0 }, { from: 2 }]);
});

test('a wider range holds the range, a narrower one lies within it', () => {
  const figure = fc.integer({ min: -100_000, max: 100_000 });
  fc.assert(
    fc.property(figure, figure, fc.boolean(), (a, b, whole) => {
      const [from, to] = [Math.min(a, b), Math.max(a, b)];
      for (const { way, test: moved } of rangeSteps({ from, to }, whole)) {
        const [outer, inner] = way === 'wider' ? [moved, { from, to }] : [{ from, to }, moved];
        expect(outer.from!).toBeLessThanOrEqual(inner.from!);
        expect(outer.to!).toBeGreaterThanOrEqual(inner.to!);
      }
    }),
  );
});
