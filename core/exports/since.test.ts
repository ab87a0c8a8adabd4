import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Comparison, printOf } from './since.ts';

type Table = Map<string, (string | number | null)[]>;
const earlierOf = (table: Table, columns: string[]) => ({
  keys: [...table.keys()],
  columns,
  prints: Uint32Array.from([...table.values()].flat().map(printOf)),
});

test('a row is new, changed in certain columns, or the same; those not met are gone', () => {
  const before = earlierOf(
    new Map([
      ['a', ['x', 1, null]],
      ['b', ['y', 2, 'd']],
      ['c', ['z', 3, null]],
    ]),
    ['name', 'staff', 'town'],
  );
  const comparison = new Comparison(before, ['staff', 'name', 'web']);
  const now = (key: string, cells: (string | number | null)[]) =>
    comparison.row(key, Uint32Array.from(cells.map(printOf)), 0);
  expect(now('a', [1, 'x', 'a.example'])).toEqual({ fresh: false, changed: [] });
  expect(now('b', [5, 'y', null])).toEqual({ fresh: false, changed: [0] });
  expect(now('d', [1, 'x', null])).toEqual({ fresh: true });
  expect(comparison.gone()).toEqual(['c']);
});

test('a text is no number, and nothing is neither', () => {
  expect(new Set([printOf('1'), printOf(1), printOf(null), printOf('')]).size).toBe(4);
});

test('what is compared with itself has no changes, and with another just those that there are', () => {
  const cells = fc.array(fc.oneof(fc.string(), fc.integer(), fc.constant(null)), {
    minLength: 3,
    maxLength: 3,
  });
  const tables = fc.dictionary(fc.string({ maxLength: 4 }), cells).map((one) => new Map(Object.entries(one)));
  fc.assert(
    fc.property(tables, tables, (before, after) => {
      const columns = ['a', 'b', 'c'];
      const comparison = new Comparison(earlierOf(before, columns), columns);
      for (const [key, values] of after) {
        const since = comparison.row(key, Uint32Array.from(values.map(printOf)), 0);
        const was = before.get(key);
        expect(since).toEqual(
          was === undefined
            ? { fresh: true }
            : { fresh: false, changed: [0, 1, 2].filter((i) => !Object.is(was[i], values[i])) },
        );
      }
      expect(comparison.gone()).toEqual([...before.keys()].filter((key) => !after.has(key)));
    }),
    { numRuns: 200 },
  );
});
