import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { distanceKm } from './distance.ts';
import { sketchPoints } from './sketch.ts';

const spot = fc.record({
  lat: fc.double({ min: 48, max: 50, noNaN: true }),
  lon: fc.double({ min: 15, max: 18, noNaN: true }),
});

test('places of a day stand in the square, to scale and north up', () => {
  fc.assert(
    fc.property(fc.array(spot, { minLength: 3, maxLength: 12 }), (spots) => {
      const points = sketchPoints(spots, 200, 14);
      for (const { x, y } of points) {
        expect(Math.min(x, y)).toBeGreaterThanOrEqual(14 - 1e-6);
        expect(Math.max(x, y)).toBeLessThanOrEqual(186 + 1e-6);
      }
      const [a, b, c] = spots as [(typeof spots)[0], (typeof spots)[0], (typeof spots)[0]];
      if (a.lat > b.lat) expect(points[0]!.y).toBeLessThanOrEqual(points[1]!.y);
      const far = (i: number, j: number) =>
        Math.hypot(points[i]!.x - points[j]!.x, points[i]!.y - points[j]!.y);
      const [one, other] = [distanceKm(a.lat, a.lon, b.lat, b.lon), distanceKm(a.lat, a.lon, c.lat, c.lon)];
      // Within 200 km a flat map is true to some percent.
      if (one > 10 && other > 10) expect(far(0, 1) / far(0, 2) / (one / other)).toBeCloseTo(1, 1);
    }),
  );
});

test('one place alone stands at the edge, and nothing is divided by zero', () => {
  expect(sketchPoints([{ lat: 49, lon: 16 }], 200, 14)).toEqual([{ x: 14, y: 14 }]);
});
