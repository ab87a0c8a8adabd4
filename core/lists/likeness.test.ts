import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { likenessShown, likenessToJudged } from './likeness.ts';
import type { Traits } from './traits.ts';

/** One value a record, or none. */
const field =
  (values: readonly (number | null)[]): Traits =>
  (r, take) => {
    if (values[r] !== null) take(values[r]!);
  };
const all = (size: number) => Uint32Array.from({ length: size }, (_, r) => r);

describe('likeness to those judged', () => {
  test('puts what has the values of those in before what has those of the ones out', () => {
    //                     in    in    out   out   like in, like out, neither, unknown
    const country = field([1, 1, 2, 2, 1, 2, 3, null]);
    const odds = likenessToJudged([country], { in: [0, 1], out: [2, 3] }, all(8));
    expect(odds[4]).toBeGreaterThan(0);
    expect(odds[5]).toBeCloseTo(-odds[4]!);
    expect(odds[6]).toBe(0);
    expect(odds[7]).toBeNaN();
  });
  test('is as reckoned by hand, shrunk towards what all judged share', () => {
    // Of 3 in 2 have the value, of 1 out none; all together 2 of 4, with a weight of 2.
    const odds = likenessToJudged([field([1, 1, 2, 2])], { in: [0, 1, 2], out: [3] }, all(4));
    expect(odds[0]).toBeCloseTo(Math.log((2 + 1) / (3 + 2) / ((0 + 1) / (1 + 2))));
  });
  test('takes the mean of several values, and more fields that agree make it surer', () => {
    const both: Traits = (r, take) => {
      take(r < 2 ? 1 : 2);
      take(9);
    };
    const one = field([1, 1, 2, 2]);
    const judged = { in: [0, 1], out: [2, 3] };
    const alone = likenessToJudged([one], judged, all(4));
    // The value that all have says nothing and halves the other.
    expect(likenessToJudged([both], judged, all(4))[0]).toBeCloseTo(alone[0]! / 2);
    expect(likenessToJudged([one, one], judged, all(4))[0]).toBeCloseTo(alone[0]! * Math.SQRT2);
  });
  test('says nothing before somebody is in and somebody out', () => {
    const one = field([1, 2]);
    expect([...likenessToJudged([one], { in: [0], out: [] }, all(2))]).toEqual([NaN, NaN]);
    expect([...likenessToJudged([one], { in: [], out: [1] }, all(2))]).toEqual([NaN, NaN]);
  });
  test('changes its sign, and nothing else, where in and out change places', () => {
    const values = fc.array(fc.option(fc.nat(3)), { minLength: 8, maxLength: 30 });
    fc.assert(
      fc.property(fc.array(values, { minLength: 1, maxLength: 4 }), (columns) => {
        const size = Math.min(...columns.map(({ length }) => length));
        const fields = columns.map(field);
        const [one, other] = [
          [0, 1, 2],
          [3, 4, 5, 6],
        ];
        const odds = likenessToJudged(fields, { in: one, out: other }, all(size));
        const turned = likenessToJudged(fields, { in: other, out: one }, all(size));
        odds.forEach((value, i) =>
          Number.isNaN(value) ? expect(turned[i]).toBeNaN() : expect(turned[i]).toBeCloseTo(-value),
        );
      }),
    );
  });
});

test('is shown from 0 to 100, with 50 for as like the one as the other', () => {
  expect([-Infinity, -1, 0, 1, Infinity].map(likenessShown)).toEqual([0, 27, 50, 73, 100]);
});
