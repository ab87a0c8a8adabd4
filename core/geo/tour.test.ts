import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { distanceKm } from './distance.ts';
import { tourOf, type Stop } from './tour.ts';

const stop = fc.record({
  lat: fc.double({ min: 45, max: 55, noNaN: true }),
  lon: fc.double({ min: 5, max: 25, noNaN: true }),
});
const brno: Stop = { lat: 49.195, lon: 16.608 };
const length = (start: Stop, stops: readonly Stop[]) => {
  const round = [start, ...stops, start];
  return round
    .slice(1)
    .reduce((sum, one, i) => sum + distanceKm(round[i]!.lat, round[i]!.lon, one.lat, one.lon), 0);
};
function* orders<T>(all: readonly T[]): Generator<T[]> {
  if (all.length < 2) yield [...all];
  else
    for (const [i, first] of all.entries())
      for (const rest of orders(all.filter((_, at) => at !== i))) yield [first, ...rest];
}

test('visits every stop once, and its legs are those of its order', () => {
  fc.assert(
    fc.property(stop, fc.array(stop, { maxLength: 25 }), (start, stops) => {
      const { order, legs, km } = tourOf(start, stops);
      expect([...order].sort((a, b) => a - b)).toEqual(stops.map((_, i) => i));
      expect(legs).toHaveLength(stops.length + 1);
      expect(km).toBeCloseTo(
        length(
          start,
          order.map((at) => stops[at]!),
        ),
        6,
      );
    }),
  );
});

test('no part of it turned round would be shorter', () => {
  fc.assert(
    fc.property(fc.array(stop, { minLength: 3, maxLength: 12 }), (stops) => {
      const { order, km } = tourOf(brno, stops);
      for (let i = 0; i < order.length; i++)
        for (let j = i + 1; j < order.length; j++) {
          const turned = [...order.slice(0, i), ...order.slice(i, j + 1).reverse(), ...order.slice(j + 1)];
          expect(
            length(
              brno,
              turned.map((at) => stops[at]!),
            ),
          ).toBeGreaterThanOrEqual(km - 1e-6);
        }
    }),
    { numRuns: 50 },
  );
});

test('of few stops it is hardly longer than the shortest of all', () => {
  let [ours, best] = [0, 0];
  const some = fc.sample(fc.array(stop, { minLength: 5, maxLength: 6 }), { numRuns: 60, seed: 3 });
  for (const stops of some) {
    ours += tourOf(brno, stops).km;
    best += Math.min(...[...orders(stops)].map((order) => length(brno, order)));
  }
  expect(ours / best).toBeLessThan(1.03);
});

test('nowhere to go is no way', () => {
  expect(tourOf(brno, [])).toEqual({ order: [], legs: [0], km: 0 });
  expect(tourOf(brno, [brno, brno]).km).toBe(0);
});
