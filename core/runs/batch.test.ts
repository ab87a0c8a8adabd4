import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { guessBatch, openerOf, rowsOfRun, typedOf } from './batch.ts';

const OPENERS = new Set(['in', 'headcount', 'revenue', 'industry', 'technology', 'founded']);
const opens = (words: string) => OPENERS.has(words);

test('the column of searches is found by its heading, else by its length; others by what they open', () => {
  const header = ['Country', 'Search', 'Headcount from', 'Headcount to', 'Remark'];
  expect(
    guessBatch(header, [['CZ', 'words joinery', '20', '249', 'a very long remark on this row']], opens),
  ).toEqual({
    search: 1,
    fields: [
      { column: 0, as: 'in' },
      { column: 2, as: 'headcount from' },
      { column: 3, as: 'headcount to' },
    ],
  });
  expect(guessBatch(['a', 'b'], [['x', 'nace 25.51']], opens).search).toBe(1);
});

test.each([
  ['Employees min', 'headcount from'],
  ['Turnover (max)', 'revenue to'],
  ['Land', 'in'],
  ['Technology', 'technology'],
])('%s is read as “%s”', (heading, opener) => expect(openerOf(heading)).toBe(opener));

test('cells become typed lines; ends of a range become one, and empty cells none', () => {
  const fields = [
    { column: 0, as: 'in' },
    { column: 1, as: 'headcount from' },
    { column: 2, as: 'headcount to' },
    { column: 3, as: 'revenue from' },
    { column: 4, as: 'founded to' },
  ];
  expect(typedOf(fields, ['Czechia', '20', '249', '2m eur', '1990'])).toEqual([
    ...['in Czechia', 'headcount 20-249', 'revenue from 2m eur', 'founded up to 1990'],
  ]);
  const money = [
    { column: 0, as: 'revenue from' },
    { column: 1, as: 'revenue to' },
  ];
  expect(typedOf(money, ['2m eur', '40m eur'])).toEqual(['revenue 2m-40m eur']);
  expect(typedOf(fields, [' ', '', '249'])).toEqual(['headcount up to 249']);
});

test('runs one after another go through every row before any comes again', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 40 }),
      fc.option(fc.integer({ min: 1, max: 12 }), { nil: null }),
      (total, most) => {
        const seen: number[] = [];
        let at = 0;
        do {
          const { rows, next } = rowsOfRun(total, at, most);
          seen.push(...rows);
          at = next;
        } while (at !== 0);
        expect(seen).toEqual(Array.from({ length: total }, (_, i) => i));
      },
    ),
  );
});
