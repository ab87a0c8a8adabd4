import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { distanceKm } from './distance.ts';
import { sketchOf, townsOnSketch } from './sketch.ts';

const spot = fc.record({
  lat: fc.double({ min: 48, max: 50, noNaN: true }),
  lon: fc.double({ min: 15, max: 18, noNaN: true }),
});

test('places of a day stand in the square, to scale and north up', () => {
  fc.assert(
    fc.property(fc.array(spot, { minLength: 3, maxLength: 12 }), (spots) => {
      const place = sketchOf(spots, 200, 14);
      const points = spots.map(place);
      for (const { x, y } of points) {
        expect(Math.min(x, y)).toBeGreaterThanOrEqual(14 - 1e-6);
        expect(Math.max(x, y)).toBeLessThanOrEqual(186 + 1e-6);
      }
      const [a, b, c] = spots as [(typeof spots)[0], (typeof spots)[0], (typeof spots)[0]];
      if (a.lat > b.lat) expect(points[0]!.y).toBeLessThanOrEqual(points[1]!.y);
      const far = (i: number, j: number) =>
        Math.hypot(points[i]!.x - points[j]!.x, points[i]!.y - points[j]!.y);
      const [one, other] = [distanceKm(a.lat, a.lon, b.lat, b.lon), distanceKm(a.lat, a.lon, c.lat, c.lon)];
      // Within 200 km a flat plan is true to some percent.
      if (one > 10 && other > 10) {
        const ratio = far(0, 1) / far(0, 2) / (one / other);
        expect(Math.abs(ratio - 1)).toBeLessThan(0.1);
      }
    }),
  );
});

test('one place alone stands in the middle, and nothing is divided by zero', () => {
  const { x, y } = sketchOf([{ lat: 49, lon: 16 }], 200, 14)({ lat: 49, lon: 16 });
  expect([Math.round(x), Math.round(y)]).toEqual([100, 100]);
});

test('towns are named where they stand on the plan and leave each other room', () => {
  const place = ({ lat, lon }: { lat: number; lon: number }) => ({ x: lon, y: lat });
  const town = (name: string, lon: number, lat: number) => ({ name, lon, lat });
  const towns = [
    town('first', 50, 50),
    town('too near', 60, 55),
    town('beside its name', 100, 52),
    town('outside', 50, 300),
    town('at the right end', 190, 100),
    town('second', 100, 120),
  ];
  const named = townsOnSketch(towns, [{ x: 102, y: 121 }], place, 200);
  expect(named.map(({ name }) => name)).toEqual(['first', 'second']);
  // A name stands behind the stop that is there.
  expect(named.map(({ at }) => at)).toEqual([54, 111]);
});
