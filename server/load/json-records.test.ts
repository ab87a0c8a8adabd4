import { expect, test } from '@jest/globals';
import { flat, recordsIn } from './json-records.ts';

/** Where JSON files have their records. */

const ONE = { name: 'Acorn', town: 'Leeds' };
const OTHER = { name: 'Birch', town: 'Truro' };

test.each([
  ['a list', [ONE, OTHER]],
  ['a list within an object', { made: '2026-09-30', items: [ONE, OTHER] }],
  ['a list within objects within objects', { answer: { data: { items: [ONE, OTHER] } } }],
  [
    'rows below a list of columns',
    {
      columns: ['name', 'town'],
      rows: [
        ['Acorn', 'Leeds'],
        ['Birch', 'Truro'],
      ],
    },
  ],
  [
    'a list of lists, the first of headings',
    [
      ['name', 'town'],
      ['Acorn', 'Leeds'],
      ['Birch', 'Truro'],
    ],
  ],
])('of %s', (_, parsed) => {
  expect(recordsIn(parsed)).toEqual([ONE, OTHER]);
});

test('of objects by their keys, which they keep, where these are alike', () => {
  const byKey = { a: ONE, b: OTHER };
  expect(recordsIn(byKey)).toEqual([
    { id: 'a', ...ONE },
    { id: 'b', ...OTHER },
  ]);
  expect(recordsIn({ count: 2, firms: byKey })).toHaveLength(2);
  const unlike = { address: { town: 'Leeds' }, contact: { mail: 'a@acorn.example' } };
  expect(recordsIn(unlike)).toEqual([unlike]);
});

test('of one object with a list of words it is the record, and a list of words beside the records is none', () => {
  const tagged = { ...ONE, technologies: ['Kiefer', 'Pulsmeter'] };
  expect(recordsIn(tagged)).toEqual([tagged]);
  expect(recordsIn({ tags: ['a', 'b'], items: [ONE, OTHER] })).toEqual([ONE, OTHER]);
});

test('of one object it is the record, and of a value there is none', () => {
  expect(recordsIn(ONE)).toEqual([ONE]);
  expect([recordsIn({ count: 0 }), recordsIn([]), recordsIn('text'), recordsIn(null)]).toEqual([
    null,
    null,
    null,
    null,
  ]);
});

test('objects in a record are taken apart, and of several each key has all', () => {
  expect(flat({ a: { b: { c: 1 } }, d: [{ e: 1 }, { e: 2 }], f: ['x', 'y'] })).toEqual({
    'a b c': 1,
    'd e': [1, 2],
    f: ['x', 'y'],
  });
});
