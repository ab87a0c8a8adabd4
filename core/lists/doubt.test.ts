import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { doubtOf, FEW_JUDGED, wordDoubts, type Doubts } from './doubt.ts';

const nothing: Doubts = {
  blank: { unknown: 0, of: 0 },
  months: null,
  unsure: { lines: [], of: 0 },
  misses: { out: 0, of: 0 },
};

test('is the mean of what can be told, in percent, and nothing where nothing can', () => {
  expect(doubtOf(nothing)).toBeNull();
  expect(doubtOf({ ...nothing, blank: { unknown: 10, of: 40 } })).toBe(25);
  // A quarter not known, checked half of three years ago, one line of two unsure, all three of its kind out.
  expect(
    doubtOf({
      blank: { unknown: 10, of: 40 },
      months: 18,
      unsure: { lines: ['headcount 20 or more'], of: 2 },
      misses: { out: 3, of: 3 },
    }),
  ).toBe(56);
});

test('a record checked longer ago than three years may as well never have been', () => {
  expect([36, 72, 400].map((months) => doubtOf({ ...nothing, months }))).toEqual([100, 100, 100]);
  expect(doubtOf({ ...nothing, months: 0 })).toBe(0);
});

test('of few judged of a kind nothing is said', () => {
  const misses = { out: FEW_JUDGED - 1, of: FEW_JUDGED - 1 };
  expect([doubtOf({ ...nothing, misses }), wordDoubts({ ...nothing, misses })]).toEqual([null, '']);
});

test('says what it is made of, the unsure lines first, and nothing of what gives no doubt', () => {
  expect(
    wordDoubts({
      blank: { unknown: 3, of: 39 },
      months: 1,
      unsure: { lines: ['Headcount 20 or more', 'Revenue to 4m'], of: 2 },
      misses: { out: 5, of: 6 },
    }),
  ).toBe(
    'unsure: Headcount 20 or more; unsure: Revenue to 4m; 5 of 6 judged of its kind are out; checked 1 month ago; 3 of 39 fields not known',
  );
  expect(wordDoubts({ ...nothing, months: 0, misses: { out: 0, of: 9 } })).toBe('');
});

test('lies between 0 and 100, and more of any one thing never makes it less', () => {
  const part = fc.nat(40).chain((of) => fc.nat(of).map((n) => ({ n, of })));
  fc.assert(
    fc.property(part, fc.nat(60), part, part, (blank, months, unsure, misses) => {
      const doubts = (more: Partial<Doubts> = {}): Doubts => ({
        blank: { unknown: blank.n, of: blank.of },
        months,
        unsure: { lines: Array.from({ length: unsure.n }, (_, i) => `line ${i}`), of: unsure.of },
        misses: { out: misses.n, of: misses.of },
        ...more,
      });
      const own = doubtOf(doubts())!;
      expect(own).toBeGreaterThanOrEqual(0);
      expect(own).toBeLessThanOrEqual(100);
      expect(doubtOf(doubts({ months: months + 5 }))!).toBeGreaterThanOrEqual(own);
      if (blank.n < blank.of)
        expect(doubtOf(doubts({ blank: { unknown: blank.n + 1, of: blank.of } }))!).toBeGreaterThanOrEqual(
          own,
        );
    }),
  );
});
