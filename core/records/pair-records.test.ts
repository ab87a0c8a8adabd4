import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { pairRecords, type Keyed } from './pair-records.ts';

const keyed = (id: number, ...keys: (string | null)[]): Keyed => ({ id, keys });

const anyKey = fc.option(fc.constantFrom('a', 'b', 'c', 'd'), { nil: null });
const anyVersion = (from: number) =>
  fc
    .array(fc.tuple(anyKey, anyKey, anyKey), { maxLength: 12 })
    .map((all) => all.map((keys, i) => keyed(from + i, ...keys)));

describe('records of two versions of a source', () => {
  test('are paired by the surest way first', () => {
    const before = [keyed(1, 'anna alder', 'anna'), keyed(2, 'bruno alder', 'bruno')];
    const now = [keyed(11, 'anna birch', 'anna'), keyed(12, 'bruno alder', 'bruno')];
    expect(pairRecords(before, now, 2, 1)).toEqual([
      [2, 12],
      [1, 11],
    ]);
  });

  test('with one key for several are paired in their order, but not where the key must be of one alone', () => {
    const before = [keyed(1, 'twin'), keyed(2, 'twin')];
    const now = [keyed(11, 'twin'), keyed(12, 'twin'), keyed(13, 'twin')];
    expect(pairRecords(before, now, 1, 1)).toEqual([
      [1, 11],
      [2, 12],
    ]);
    expect(pairRecords(before, now, 1, 0)).toEqual([]);
  });

  test('without a key are nobody’s', () => {
    expect(pairRecords([keyed(1, null)], [keyed(11, null)], 1, 1)).toEqual([]);
  });

  test('are each in one pair at most, share a key, and nothing that could be paired surely is left', () => {
    fc.assert(
      fc.property(anyVersion(0), anyVersion(100), (before, now) => {
        const pairs = pairRecords(before, now, 3, 2);
        const [old, fresh] = [pairs.map(([id]) => id), pairs.map(([, id]) => id)];
        expect(new Set(old).size).toBe(pairs.length);
        expect(new Set(fresh).size).toBe(pairs.length);
        const keysOf = (all: readonly Keyed[], id: number) => all.find((one) => one.id === id)!.keys;
        for (const [a, b] of pairs)
          expect(keysOf(before, a).some((key, way) => key !== null && key === keysOf(now, b)[way])).toBe(
            true,
          );
        const left = before.filter(({ id }) => !old.includes(id));
        const others = now.filter(({ id }) => !fresh.includes(id));
        for (const one of left)
          for (const other of others)
            for (const way of [0, 1])
              if (one.keys[way] !== null) expect(other.keys[way]).not.toBe(one.keys[way]);
      }),
    );
  });

  test('of one file read twice are all paired with themselves', () => {
    fc.assert(
      fc.property(anyVersion(0), (all) => {
        const told = all.filter(({ keys }) => keys[0] !== null);
        const again = told.map(({ id, keys }) => ({ id: id + 100, keys }));
        expect(pairRecords(told, again, 3, 2).every(([a, b]) => b === a + 100)).toBe(true);
        expect(pairRecords(told, again, 3, 2)).toHaveLength(told.length);
      }),
    );
  });
});
