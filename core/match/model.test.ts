import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { cluster } from './clusters.ts';
import { FEATURE_NAMES } from './compare.ts';
import { chances, evidence, FIRST_MODEL, learn, randomShares, scorer, type ComparedPair } from './model.ts';
import { honestChance, limitsFor, outcomeOf } from './outcome.ts';

/** A pair at some levels, of which chance has the share that the first model gives them. */
const pair = (...levels: number[]): ComparedPair => ({
  levels: Uint8Array.from(levels),
  chance: Float64Array.from(levels, (level, f) =>
    level === 0 ? 0 : Math.log2(FIRST_MODEL.u[FEATURE_NAMES[f]!][level]!),
  ),
});
/** number, domain, phone, name, form, place, headcount */
const TWIN = pair(0, 1, 1, 1, 1, 1, 0);
const STRANGER = pair(0, 3, 3, 6, 2, 6, 2);

test('the first model is made of shares', () => {
  for (const side of [FIRST_MODEL.m, FIRST_MODEL.u])
    for (const feature of FEATURE_NAMES) {
      expect(side[feature][0]).toBe(0);
      expect(side[feature].reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 1);
      expect(side[feature].slice(1).every((share) => share > 0)).toBe(true);
    }
});

test('evidence is what m is over u in bits, and nothing where nothing is known', () => {
  const bits = evidence(TWIN, FIRST_MODEL.m);
  expect([bits[0], bits[6]]).toEqual([0, 0]);
  expect(bits[4]).toBeCloseTo(Math.log2(FIRST_MODEL.m.form[1]! / FIRST_MODEL.u.form[1]!), 9);
  expect(evidence(STRANGER, FIRST_MODEL.m).every((one) => one <= 0)).toBe(true);
});

describe('chances of the candidates of a row', () => {
  test('are together at most one, in the order of their evidence', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -60, max: 60, noNaN: true }), { maxLength: 12 }), (bits) => {
        const found = chances(bits, { found: 0.7 }, 48_000);
        expect(found.reduce((sum, one) => sum + one, 0)).toBeLessThanOrEqual(1 + 1e-9);
        for (let i = 0; i < bits.length; i++)
          for (let j = 0; j < bits.length; j++)
            if (bits[i]! > bits[j]!) expect(found[i]).toBeGreaterThanOrEqual(found[j]!);
      }),
    );
  });
  test('are shared by two that are alike, and sink as the universe grows', () => {
    const two = chances([40, 40], FIRST_MODEL, 1000);
    expect(two[0]).toBeCloseTo(two[1]!, 12);
    expect(two[0]).toBeLessThan(0.5);
    expect(chances([20], FIRST_MODEL, 1e6)[0]).toBeLessThan(chances([20], FIRST_MODEL, 1000)[0]!);
  });
});

describe('learning', () => {
  const file = (rows: number, phonesKept: number) =>
    Array.from({ length: rows }, (_, i) => [
      i % 100 < phonesKept ? TWIN : pair(0, 1, 3, 1, 1, 1, 0),
      STRANGER,
      STRANGER,
    ]);
  test('finds from unjudged rows how often phones are kept', () => {
    const { model, learning } = learn(file(2000, 30), FIRST_MODEL.u, 10_000);
    expect(model.m.phone[1]).toBeCloseTo(0.3, 1);
    expect(model.m.phone[3]).toBeCloseTo(0.69, 1);
    expect(model.found).toBeGreaterThan(0.95);
    expect(learning).toMatchObject({ rows: 2000, pairs: 6000 });
    for (const feature of FEATURE_NAMES)
      expect(model.m[feature].reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 6);
  });
  test('stays where it began when there is little to learn from', () => {
    const { model } = learn(file(2, 0), FIRST_MODEL.u, 10_000);
    expect(model.m.phone[1]).toBeGreaterThan(0.7);
    expect(learn([], FIRST_MODEL.u, 10_000).model.found).toBeCloseTo(FIRST_MODEL.found, 6);
  });
  test('of what comes up by chance leaves nothing impossible', () => {
    const u = randomShares(Array.from({ length: 5000 }, () => STRANGER.levels));
    expect(u.phone[1]).toBeGreaterThan(0);
    expect(u.phone[3]).toBeGreaterThan(0.99);
  });
  test('tells the twin from the stranger', () => {
    const { model } = learn(file(500, 90), FIRST_MODEL.u, 10_000);
    const [twin, other] = scorer(model, 10_000)([TWIN, STRANGER]);
    expect(twin).toBeGreaterThan(0.99);
    expect(other).toBeLessThan(1e-6);
  });
});

describe('chances as they turn out to be', () => {
  test('of what could be sure by something are as the model has them', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (chance) => {
        expect(honestChance(chance, 'name')).toBe(chance);
        expect(honestChance(chance, 'number')).toBe(chance);
      }),
    );
  });
  test('of a name alone are lower, in the same order, and never certain', () => {
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(share, share, (one, other) => {
        const [low, high] = [Math.min(one, other), Math.max(one, other)].map((chance) =>
          honestChance(chance, null),
        );
        expect(low).toBeLessThanOrEqual(high!);
        expect(low).toBeLessThanOrEqual(Math.min(one, other));
        expect(high).toBeLessThan(0.91);
      }),
    );
    expect(honestChance(0, null)).toBe(0);
    // What the model takes for 90 % was right in three of ten.
    expect(honestChance(0.9, null)).toBeCloseTo(0.22, 2);
    expect(honestChance(1, null)).toBeCloseTo(0.906, 3);
  });
});

describe('limits and outcomes', () => {
  test('the sure are right in the share asked, and none is sure by less than nine tenths', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { maxLength: 60 }),
        fc.constantFrom(0.9, 0.95, 0.99),
        (best, precision) => {
          const { sure } = limitsFor(precision, best);
          expect(sure).toBeGreaterThanOrEqual(0.9);
          const taken = best.filter((chance) => chance >= sure);
          const mean = taken.reduce((sum, one) => sum + one, 0) / taken.length;
          // Where a mean is not reached, the limit is that share itself.
          if (taken.length && mean < precision) expect(sure).toBeGreaterThanOrEqual(Math.min(precision, 0.9));
        },
      ),
    );
  });
  test('a high chance by nothing but the name stays doubtful', () => {
    const limits = { sure: 0.95, doubtful: 0.1 };
    expect(outcomeOf({ chance: 0.99, by: 'domain' }, limits)).toBe('sure');
    expect(outcomeOf({ chance: 0.99, by: null }, limits)).toBe('doubtful');
    expect(outcomeOf({ chance: 0.05, by: 'domain' }, limits)).toBe('none');
    expect(outcomeOf(null, limits)).toBe('none');
  });
});

describe('clusters', () => {
  const pairs = fc.array(
    fc.record({ a: fc.nat(9), b: fc.nat(9), chance: fc.double({ min: 0, max: 1, noNaN: true }) }),
    { maxLength: 30 },
  );
  const numbers = fc.array(fc.constantFrom(null, 'CZ-1', 'CZ-2', 'SK-1'), { minLength: 10, maxLength: 10 });
  const apart = fc.array(fc.tuple(fc.nat(9), fc.nat(9)), { maxLength: 5 });

  test('never hold two numbers of one register, nor two that were taken apart; and whatever the order of the pairs', () => {
    fc.assert(
      fc.property(pairs, numbers, apart, (given, registered, mustNot) => {
        const own = mustNot.filter(([a, b]) => a !== b);
        const first = cluster(10, given, registered, 0.5, own);
        for (let i = 0; i < 10; i++)
          for (let j = 0; j < 10; j++) {
            if (i === j || first[i] !== first[j]) continue;
            const [x, y] = [registered[i], registered[j]];
            if (x && y && x.slice(0, 2) === y.slice(0, 2)) expect(x).toBe(y);
            expect(own.some(([a, b]) => (a === i && b === j) || (a === j && b === i))).toBe(false);
          }
        expect([...cluster(10, [...given].reverse(), registered, 0.5, own)]).toEqual([...first]);
      }),
    );
  });
  test('join by the surest pair first', () => {
    const joined = cluster(
      3,
      [
        { a: 1, b: 2, chance: 0.97 },
        { a: 0, b: 1, chance: 0.99 },
      ],
      ['CZ-1', null, 'CZ-2'],
      0.9,
    );
    expect([...joined]).toEqual([0, 0, 2]);
  });
});
