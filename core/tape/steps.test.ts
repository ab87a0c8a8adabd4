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

const said = (test: Parameters<typeof rangeSteps>[0], whole: boolean) =>
  rangeSteps(test, whole).map(
    ({ end, way, test: { from = '', to = '' } }) => `${end} ${way}: ${from}..${to}`,
  );

test.each([
  [
    'both limits, each either way',
    { from: 2, to: 500 },
    false,
    ['from wider: 1..500', 'from narrower: 5..500', 'to narrower: 2..200', 'to wider: 2..1000'],
  ],
  ['an upper limit alone', { to: 50 }, true, ['to narrower: ..20', 'to wider: ..100']],
  [
    'whole numbers that end on 9, to those that do',
    { to: 49 },
    true,
    ['to narrower: ..19', 'to wider: ..99'],
  ],
  ['a 9 that is no whole number', { to: 49 }, false, ['to narrower: ..20', 'to wider: ..50']],
  ['figures between the steps, to the next', { from: 3 }, false, ['from wider: 2..', 'from narrower: 5..']],
  ['from nought', { from: 0 }, false, ['from wider: -1..', 'from narrower: 1..']],
  [
    'fractions, of which one below 1 goes to nought',
    { from: 0.2 },
    false,
    ['from wider: 0..', 'from narrower: 0.5..'],
  ],
  [
    'nothing between the limits is left out',
    { from: 4, to: 5 },
    false,
    ['from wider: 2..5', 'from narrower: 5..5', 'to wider: 4..10'],
  ],
  ['no limits', {}, true, []],
])('%s', (_, range, whole, expected) => {
  expect(said(range, whole)).toEqual(expected);
});
