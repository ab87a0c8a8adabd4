import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { hasBit } from './bits.ts';
import { handedColumn, lazyHanded, type HandedTo } from './handed.ts';
import { testMany } from './test-category.ts';

const SIZE = 70;
const receivers: fc.Arbitrary<HandedTo[]> = fc
  .array(fc.uniqueArray(fc.tuple(fc.nat(SIZE - 1), fc.nat(100)), { selector: ([r]) => r }), { maxLength: 4 })
  .map((all) =>
    all.map((own, i) => {
      const sorted = own.sort(([a], [b]) => a - b);
      return {
        receiver: `r${i}`,
        records: Uint32Array.from(sorted, ([r]) => r),
        days: Int32Array.from(sorted, ([, day]) => day),
      };
    }),
  );

test('a record was handed to whom it was, within the span it was, and nobody is unknown', () => {
  fc.assert(
    fc.property(receivers, fc.nat(100), fc.boolean(), (handed, since, all) => {
      const column = handedColumn(handed, SIZE);
      const keys = column.dictionary;
      if (keys.length === 0) return;
      const { yes, unknown } = testMany(column, all ? { all: keys } : { any: keys }, new Map(), SIZE, since);
      for (let r = 0; r < SIZE; r++) {
        const by = handed.map(({ records, days }) => {
          const at = records.indexOf(r);
          return at >= 0 && days[at]! >= since;
        });
        expect([r, hasBit(yes, r), hasBit(unknown, r)]).toEqual([
          r,
          all ? by.every(Boolean) : by.some(Boolean),
          false,
        ]);
        const own = [...column.values.subarray(column.offsets[r], column.offsets[r + 1])].map((v) => keys[v]);
        expect(own).toEqual(
          handed.filter(({ records }) => records.includes(r)).map(({ receiver }) => receiver),
        );
      }
    }),
    { numRuns: 100 },
  );
});

test('what nobody looks into is not read, and what is looked into is read once', () => {
  let reads = 0;
  const one = { receiver: 'a', records: Uint32Array.of(3), days: Int32Array.of(5) };
  const column = lazyHanded(['a'], SIZE, () => {
    reads++;
    return [one];
  });
  expect([column.dictionary, reads]).toEqual([['a'], 0]);
  expect([...column.postings.records, ...column.seen!, column.offsets[SIZE], column.values[0]]).toEqual([
    3, 5, 1, 0,
  ]);
  expect(reads).toBe(1);
});
