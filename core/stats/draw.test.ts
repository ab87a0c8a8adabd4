import { describe, expect, test } from '@jest/globals';
import { noBits, setBit } from '../tally/bits.ts';
import { drawSample, lotOf } from './draw.ts';

const SIZE = 3000;
const ids = Uint32Array.from({ length: SIZE }, (_, i) => 7 * i + 3);
const some = (from: number, to: number) => {
  const bits = noBits(SIZE);
  for (let i = from; i < to; i++) setBit(bits, i);
  return bits;
};
const ONE = [{ key: '', label: '' }];
const plain = (kept: ReturnType<typeof some>, size: number, seed = 7) =>
  drawSample(kept, ids, size, seed, () => 0, ONE).records.map(({ record }) => record);

describe('a sample', () => {
  test('is of those kept, each once, and all of them where it is larger', () => {
    const drawn = plain(some(100, 900), 60);
    expect(new Set(drawn).size).toBe(60);
    expect(drawn.every((record) => record >= 100 && record < 900)).toBe(true);
    expect(plain(some(0, 20), 60).sort((a, b) => a - b)).toEqual(Array.from({ length: 20 }, (_, i) => i));
    expect(plain(noBits(SIZE), 60)).toEqual([]);
  });
  test('is the same by the same seed, another by another, and goes on from a smaller one', () => {
    const kept = some(0, SIZE);
    expect(plain(kept, 60)).toEqual(plain(kept, 60));
    expect(plain(kept, 60, 8)).not.toEqual(plain(kept, 60));
    expect(plain(kept, 80).slice(0, 60)).toEqual(plain(kept, 60));
  });
  test('takes every record as often as any other', () => {
    const hits = new Uint32Array(40);
    for (let seed = 0; seed < 2000; seed++)
      for (const record of plain(some(0, 40), 10, seed)) hits[record]!++;
    // 500 expected; five times the spread of a binomial beside it.
    for (const one of hits) expect(Math.abs(one - 500)).toBeLessThan(97);
  });
  test('by strata has of each as much as its share', () => {
    const strata = ['a', 'b', 'c'].map((key) => ({ key, label: key }));
    const { records, strata: sizes } = drawSample(
      some(0, 1000),
      ids,
      50,
      7,
      (r) => (r < 600 ? 0 : r < 980 ? 1 : 2),
      strata,
    );
    expect(sizes.map(({ size }) => size)).toEqual([600, 380, 20]);
    const of = (stratum: number) => records.filter((one) => one.stratum === stratum).length;
    expect([of(0), of(1), of(2)]).toEqual([30, 19, 1]);
  });
});

test('lots are spread over all 32 bits', () => {
  const lots = Array.from({ length: 4096 }, (_, id) => lotOf(id, 7));
  expect(new Set(lots).size).toBe(4096);
  const below = lots.filter((lot) => lot < 2 ** 31).length;
  expect(Math.abs(below - 2048)).toBeLessThan(160);
});
