import { expect, test } from '@jest/globals';
import { CellError } from '../values/cell.ts';
import type { Quantity } from './record.ts';
import { readBasis, readReason, withEnds } from './told-basis.ts';

const exact = (point: number): Quantity => ({ basis: 'reported', low: point, high: point, point });

test('a basis is a word, a word with a range, or why nothing is known', () => {
  expect(readBasis('band')).toEqual({ basis: 'band' });
  expect(readBasis('estimate (70-110)')).toMatchObject({ basis: 'estimate', range: { low: 70, high: 110 } });
  expect(readBasis('estimate (-20--10)')).toMatchObject({ range: { low: -20, high: -10 } });
  expect(readBasis('unknown: withheld')).toEqual({ why: 'withheld' });
  expect(readBasis('unknown: not collected')).toEqual({});
  for (const cell of ['guessed', 'unknown: who knows', 'estimate (many)'])
    expect(() => readBasis(cell)).toThrow(CellError);
  expect(readReason('Withheld')).toBe('withheld');
});

test('a figure takes the ends that its columns say', () => {
  expect(withEnds(exact(80), exact(70), exact(110), { basis: 'estimate' })).toEqual({
    ...{ basis: 'estimate', low: 70, high: 110, point: 80 },
  });
  // The range holds the figure, whatever its ends say.
  expect(withEnds(exact(60), exact(70), null, { basis: 'estimate' })).toMatchObject({ low: 60, high: 60 });
  expect(withEnds(exact(80), exact(70), exact(110), null)).toEqual(exact(80));
  expect(withEnds(null, exact(10), null, null)).toEqual({
    ...{ basis: 'band', low: 10, high: Infinity, point: null },
  });
  expect(withEnds(null, exact(7), exact(7), null)).toEqual(exact(7));
  expect(withEnds(null, exact(9), exact(3), null)).toBeNull();
  expect(withEnds(null, null, null, null)).toBeNull();
});
