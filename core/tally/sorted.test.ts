import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { hasBit, noBits, setBit } from './bits.ts';
import { addRecords, countRecords, dropRecords, firstAbove, firstAtLeast } from './sorted.ts';

const ascending = fc.array(fc.integer({ min: -20, max: 20 })).map((all) => all.sort((a, b) => a - b));

test('the first that is not under, and the first that is above, are where going through all finds them', () => {
  fc.assert(
    fc.property(ascending, fc.integer({ min: -25, max: 25 }), (values, limit) => {
      const find = (fits: (value: number) => boolean) => {
        const at = values.findIndex(fits);
        return at < 0 ? values.length : at;
      };
      expect(firstAtLeast(values, limit, 0, values.length)).toBe(find((value) => value >= limit));
      expect(firstAbove(values, limit, 0, values.length)).toBe(find((value) => value > limit));
    }),
  );
});

test('only the stretch that is asked about is looked at', () => {
  const values = [1, 2, 3, 4, 5];
  expect(firstAtLeast(values, 1, 2, 4)).toBe(2);
  expect(firstAtLeast(values, 9, 2, 4)).toBe(4);
  expect(firstAbove(values, 5, 0, 5)).toBe(5);
  expect(firstAbove(values, 0, 3, 3)).toBe(3);
});

test('stretches of records are put in, counted and taken out', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.nat(200), { maxLength: 60 }),
      fc.nat(60),
      fc.nat(60),
      (some, one, other) => {
        const records = Uint32Array.from(some);
        const [start, end] = [Math.min(one, other, some.length), Math.min(Math.max(one, other), some.length)];
        const bits = noBits(201);
        setBit(bits, 0);
        addRecords(bits, records, start, end);
        const within = some.slice(start, end);
        expect(countRecords(bits, records, start, end)).toBe(within.length);
        for (const record of some) expect(hasBit(bits, record)).toBe(within.includes(record) || record === 0);
        dropRecords(bits, records, start, end);
        expect(countRecords(bits, records, 0, some.length)).toBe(
          some.includes(0) && !within.includes(0) ? 1 : 0,
        );
      },
    ),
  );
});
