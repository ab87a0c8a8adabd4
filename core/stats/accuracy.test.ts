import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  accuracyOf,
  allocation,
  holdsAtLeast,
  moreToDecide,
  sizeFor,
  wilson,
  type Stratum,
} from './accuracy.ts';
import { betaAbove, fisherExact } from './beta.ts';

/** Statistics of spot checks, by simulation and against figures worked out elsewhere. */

/** Numbers from 0 to 1, the same each time. */
function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}

/** The first `n` of a list of which some fit, in an order drawn anew: each is one that fits or not, as many of those are left. */
function drawn(size: number, fit: number, n: number, random: () => number): Uint8Array {
  const first = new Uint8Array(n);
  let left = fit;
  for (let i = 0; i < n; i++)
    if (random() * (size - i) < left) {
      first[i] = 1;
      left--;
    }
  return first;
}
const fits = (list: Uint8Array) => list.reduce((sum, one) => sum + one, 0);

const LISTS = 2000;

describe('over 2,000 simulated lists', () => {
  test('the intervals of plain samples hold the true share in 93.5 to 97 %', () => {
    const random = seeded(7);
    let held = 0;
    for (let i = 0; i < LISTS; i++) {
      const size = 200 + Math.floor(random() * 3000);
      const fit = Math.floor(size * (0.3 + 0.65 * random()));
      const n = 40 + Math.floor(random() * 120);
      const { low, high } = accuracyOf([{ size, judged: n, fit: fits(drawn(size, fit, n, random)) }])!;
      if (low <= fit / size && fit / size <= high) held++;
    }
    expect(held / LISTS).toBeGreaterThanOrEqual(0.935);
    expect(held / LISTS).toBeLessThanOrEqual(0.97);
  });
  test('and so do those of stratified samples, with the share of the population that was judged', () => {
    const random = seeded(11);
    let held = 0;
    for (let i = 0; i < LISTS; i++) {
      const parts = Array.from({ length: 2 + Math.floor(random() * 5) }, () => {
        const size = 40 + Math.floor(random() * 800);
        return { size, fit: Math.floor(size * (0.3 + 0.65 * random())) };
      });
      const population = parts.reduce((sum, { size }) => sum + size, 0);
      const judged = allocation(
        parts.map(({ size }) => size),
        60 + Math.floor(random() * 100),
      );
      const strata: Stratum[] = parts.map(({ size, fit }, k) => ({
        size,
        judged: judged[k]!,
        fit: fits(drawn(size, fit, judged[k]!, random)),
      }));
      const truth = parts.reduce((sum, { fit }) => sum + fit, 0) / population;
      const { low, high } = accuracyOf(strata)!;
      if (low <= truth && truth <= high) held++;
    }
    expect(held / LISTS).toBeGreaterThanOrEqual(0.935);
    expect(held / LISTS).toBeLessThanOrEqual(0.97);
  });
  test('the sequential test is wrong in at most 5 %, though it is looked at after each judgement', () => {
    const random = seeded(13);
    const said = new Map<string, ReturnType<typeof holdsAtLeast>>();
    let wrong = 0;
    let decided = 0;
    for (let i = 0; i < LISTS; i++) {
      const limit = [0.6, 0.75, 0.9][Math.floor(3 * random())]!;
      const size = 600;
      // Close to the limit on either side, where it errs most.
      const fit = Math.round(size * Math.min(1, Math.max(0, limit + 0.08 * (random() - 0.5))));
      const list = drawn(size, fit, 150, random);
      let seen = 0;
      for (let n = 1; n <= 150; n++) {
        seen += list[n - 1]!;
        const name = `${limit} ${seen} ${n}`;
        const says = said.get(name) ?? holdsAtLeast(limit, seen, n);
        said.set(name, says);
        if (says === 'not decided') continue;
        decided++;
        if ((says === 'holds') !== fit / size >= limit) wrong++;
        break;
      }
    }
    expect(decided).toBeGreaterThan(50);
    expect(wrong / LISTS).toBeLessThanOrEqual(0.05);
  });
});

describe('the interval', () => {
  test('of Wilson is that of the tables', () => {
    const { low, high } = wilson(34 / 41, 41);
    expect([low, high].map((one) => Math.round(1000 * one) / 1000)).toEqual([0.687, 0.915]);
    expect(wilson(0, 10).low).toBe(0);
  });
  test('is a point once everything is judged, and there is none before anything is', () => {
    expect(accuracyOf([{ size: 20, judged: 20, fit: 15 }])).toEqual({ share: 0.75, low: 0.75, high: 0.75 });
    expect(accuracyOf([{ size: 20, judged: 0, fit: 0 }])).toBeNull();
  });
  test('holds its share, within 0 and 1, and narrows with more of the same', () => {
    const stratum = fc
      .tuple(fc.integer({ min: 1, max: 60 }), fc.nat(60))
      .map(([judged, fit]) => ({ judged, fit: fit % (judged + 1) }));
    fc.assert(
      fc.property(fc.array(stratum, { minLength: 1, maxLength: 5 }), (parts) => {
        const of = (times: number) =>
          accuracyOf(
            parts.map(({ judged, fit }) => ({ size: 10_000, judged: judged * times, fit: fit * times })),
          )!;
        const [once, more] = [of(1), of(4)];
        expect(once.low).toBeGreaterThanOrEqual(0);
        expect(once.high).toBeLessThanOrEqual(1);
        expect(once.share).toBeGreaterThanOrEqual(once.low - 1e-9);
        expect(once.share).toBeLessThanOrEqual(once.high + 1e-9);
        expect(more.high - more.low).toBeLessThan(once.high - once.low);
      }),
    );
  });
});

test('the size for a margin is that of the tables, and less of a small list', () => {
  expect([sizeFor(0.05, 1e9), sizeFor(0.1, 1e9), sizeFor(0.05, 500), sizeFor(0.01, 30)]).toEqual([
    385, 97, 218, 30,
  ]);
});

test('a clear case is decided soon, and says about how many more before', () => {
  expect(holdsAtLeast(0.75, 60, 60)).toBe('holds');
  expect(holdsAtLeast(0.75, 10, 40)).toBe('does not hold');
  expect(holdsAtLeast(0.75, 34, 41)).toBe('not decided');
  const more = moreToDecide(0.75, 34, 41, 1456)!;
  expect(more).toBeGreaterThan(5);
  expect(moreToDecide(0.75, 34, 41, 45)).toBeNull();
});

test('a sample is shared out exactly, nowhere more than there are, and every part has one where the sample has room', () => {
  fc.assert(
    fc.property(fc.array(fc.nat(400), { minLength: 1, maxLength: 12 }), fc.nat(300), (sizes, size) => {
      const taken = allocation(sizes, size);
      const all = sizes.reduce((sum, one) => sum + one, 0);
      expect(taken.reduce((sum, one) => sum + one, 0)).toBe(Math.min(size, all));
      taken.forEach((one, i) => expect(one).toBeLessThanOrEqual(sizes[i]!));
      if (size >= sizes.length) taken.forEach((one, i) => expect(one > 0).toBe(sizes[i]! > 0));
    }),
  );
});

test('the tail of the beta and Fisher’s test are those of the tables', () => {
  expect(betaAbove(0.5, 3, 3)).toBeCloseTo(0.5, 12);
  expect(betaAbove(0.3, 2, 5)).toBeCloseTo(0.420175, 6);
  // Fisher's tea: three of four right.
  expect(fisherExact(3, 1, 1, 3)).toBeCloseTo(0.485714, 6);
  expect(fisherExact(31, 9, 2, 86)).toBeLessThan(1e-15);
});
