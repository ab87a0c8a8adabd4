import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readFigure, readRange, spellFigure, spellRange } from './figures.ts';

/** Figures as people ask for them: whole, with a few decimals, of any size and sign. */
const figure = fc.oneof(
  fc.integer({ min: -1_000_000_000, max: 1_000_000_000 }),
  fc
    .tuple(fc.integer({ min: -99_999, max: 99_999 }), fc.constantFrom(0.01, 0.1, 100, 1e6))
    .map(([n, size]) => Number((n * size).toPrecision(12))),
);

describe('figures', () => {
  test.each([
    ['20', 20],
    ['1,500', 1500],
    ['2.5m', 2_500_000],
    ['2.3m', 2_300_000],
    ['500K', 500_000],
    ['1bn', 1_000_000_000],
    ['-3.5', -3.5],
    ['1e3', 1000],
    ['0', 0],
  ])('“%s” is %d', (text, value) => {
    expect(readFigure(text)).toBe(value);
  });
  test.each(['', 'm', '2,5m x', '1..2', '--3', '2 m', 'ten', '5t', '.5', '9e999', '1e400'])(
    '“%s” is none',
    (text) => {
      expect(readFigure(text)).toBeNull();
    },
  );
  test('read back as they were spelt, and no longer than in full', () => {
    fc.assert(
      fc.property(figure, (value) => {
        expect(readFigure(spellFigure(value))).toBe(value === 0 ? 0 : value);
        expect(spellFigure(value).length).toBeLessThanOrEqual(String(value).length);
      }),
    );
    expect([spellFigure(2_500_000), spellFigure(1500), spellFigure(1234), spellFigure(-4e9)]).toEqual([
      '2.5m',
      '1500',
      '1234',
      '-4bn',
    ]);
  });
});

describe('ranges', () => {
  test.each([
    ['20-249 staff', { from: 20, to: 249 }, 'staff'],
    ['2m..40m eur', { from: 2e6, to: 4e7 }, 'eur'],
    ['10 to 20', { from: 10, to: 20 }, ''],
    ['10 – 20 %', { from: 10, to: 20 }, '%'],
    ['50+', { from: 50 }, ''],
    ['50 or more people', { from: 50 }, 'people'],
    ['at least 3', { from: 3 }, ''],
    ['up to 9', { to: 9 }, ''],
    ['..9', { to: 9 }, ''],
    ['-5 .. -2', { from: -5, to: -2 }, ''],
    ['12', { from: 12, to: 12 }, ''],
  ])('“%s”', (text, range, rest) => {
    expect(readRange(text)).toEqual({ test: range, rest });
  });
  test('that are none are said not to be, and what only begins like one is', () => {
    for (const text of ['', 'staff', 'from', '1.2.3']) expect([text, readRange(text)]).toEqual([text, null]);
  });
  test('read back as they were spelt, whatever follows', () => {
    fc.assert(
      fc.property(figure, figure, fc.constantFrom('both', 'from', 'to'), (a, b, ends) => {
        const range = {
          ...(ends === 'to' ? {} : { from: Math.min(a, b) }),
          ...(ends === 'from' ? {} : { to: Math.max(a, b) }),
        };
        const read = readRange(`${spellRange(range)} EUR a year`);
        expect(read).toEqual({ test: range, rest: 'EUR a year' });
      }),
    );
  });
});
