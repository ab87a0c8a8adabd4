import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { allBits, noBits, setBit } from '../tally/bits.ts';
import { mercatorOf } from './clusters.ts';
import { distanceKm } from './distance.ts';
import { extentOf } from './extent.ts';
import { chordsOf, eachNear, pointGrid, pointOf } from './grid.ts';

const ARRAYS = {
  uint32: (length: number) => new Uint32Array(length),
  float32: (length: number) => new Float32Array(length),
};
/** Places all over the world, many of them on the edge of a cell, at a pole or at the date line. */
const latitude = fc.oneof(
  fc.double({ min: -90, max: 90, noNaN: true }),
  fc.integer({ min: -180, max: 180 }).map((n) => n / 2),
);
const longitude = fc.oneof(
  fc.double({ min: -180, max: 180, noNaN: true }),
  fc.integer({ min: -360, max: 360 }).map((n) => n / 2),
);
const place = fc.oneof(
  { weight: 9, arbitrary: fc.tuple(latitude, longitude) },
  { weight: 1, arbitrary: fc.constant([NaN, NaN] as [number, number]) },
);
const places = fc.array(place, { maxLength: 60 });
const columns = (some: readonly (readonly [number, number])[]) =>
  [Float64Array.from(some, ([lat]) => lat), Float64Array.from(some, ([, lon]) => lon)] as const;

describe('points in cells', () => {
  test('are each in one cell, in their order within it; those without a place in none', () => {
    fc.assert(
      fc.property(places, (some) => {
        const grid = pointGrid(...columns(some), ARRAYS);
        const placed = some.flatMap(([lat], r) => (Number.isNaN(lat) ? [] : [r]));
        expect([...grid.records].sort((a, b) => a - b)).toEqual(placed);
        expect(grid.starts.at(-1)).toBe(placed.length);
        grid.records.forEach((r, i) => {
          const [x, y, z] = pointOf(...some[r]!);
          expect([...grid.points.subarray(3 * i, 3 * i + 3)]).toEqual([x, y, z].map(Math.fround));
        });
      }),
    );
  });
  test('that lie within a distance are all visited, and those said to be sure are within it', () => {
    fc.assert(
      fc.property(
        places,
        latitude,
        longitude,
        fc.oneof(
          fc.double({ min: 0.1, max: 300, noNaN: true }),
          fc.double({ min: 300, max: 20_100, noNaN: true }),
        ),
        (some, lat, lon, km) => {
          const grid = pointGrid(...columns(some), ARRAYS);
          const seen = new Map<number, boolean>();
          const wrong: string[] = [];
          eachNear(grid, lat, lon, km, (start, end, sure) => {
            for (let i = start; i < end; i++) {
              if (seen.has(grid.records[i]!)) wrong.push(`${grid.records[i]} twice`);
              seen.set(grid.records[i]!, sure);
            }
          });
          some.forEach(([otherLat, otherLon], r) => {
            const away = distanceKm(lat, lon, otherLat, otherLon);
            if (Number.isNaN(otherLat) && seen.has(r)) wrong.push(`${r} is nowhere`);
            if (away <= km && !seen.has(r)) wrong.push(`${r} is missing`);
            if (away > km && seen.get(r)) wrong.push(`${r} is not within it`);
          });
          expect(wrong).toEqual([]);
        },
      ),
      { numRuns: 300 },
    );
  });
  test('are told by straight lines through the globe but for a hair around the limit', () => {
    fc.assert(
      fc.property(
        fc.tuple(latitude, longitude),
        fc.tuple(latitude, longitude),
        fc.double({ min: 0.1, max: 20_000, noNaN: true }),
        (one, other, km) => {
          const [a, b] = [pointOf(...one).map(Math.fround), pointOf(...other).map(Math.fround)];
          const square = a.reduce((sum, value, i) => sum + (value - b[i]!) ** 2, 0);
          const away = distanceKm(...one, ...other);
          const { surely, atMost } = chordsOf(km);
          if (square <= surely) expect(away).toBeLessThanOrEqual(km);
          if (square > atMost) expect(away).toBeGreaterThan(km);
        },
      ),
      { numRuns: 500 },
    );
  });
});

describe('the stretch that a map opens with', () => {
  const mercator = (some: readonly (readonly [number, number])[]) => mercatorOf(...columns(some));
  test('holds all of a few, wherever they are; none has no stretch', () => {
    expect(extentOf(mercator([[NaN, NaN]]), allBits(1))).toBeNull();
    expect(extentOf(mercator([[49, 16]]), noBits(1))).toBeNull();
    const extent = extentOf(
      mercator([
        [49, 16],
        [51, 12],
        [-33, 151],
      ]),
      allBits(3),
    )!;
    expect(extent.outside).toBe(0);
    expect([extent.west, extent.east].map(Math.round)).toEqual([12, 151]);
    expect([extent.south, extent.north].map(Math.round)).toEqual([-33, 51]);
  });
  test('leaves out the few farthest where that shrinks it, and says how many', () => {
    const near = Array.from({ length: 400 }, (_, i) => [49 + (i % 20) / 10, 14 + (i % 17) / 10] as const);
    const extent = extentOf(mercator([...near, [-40, 175]]), allBits(401))!;
    expect(extent.outside).toBe(1);
    expect(extent.east).toBeLessThan(17);
    // Spread evenly, leaving some out would gain nothing.
    const even = Array.from({ length: 400 }, (_, i) => [40 + (i % 20), (i * 7) % 40] as const);
    expect(extentOf(mercator(even), allBits(400))!.outside).toBe(0);
  });
  test('holds what it does not say is outside, and only records that are kept', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.double({ min: -80, max: 80, noNaN: true }), longitude), {
          minLength: 1,
          maxLength: 80,
        }),
        fc.array(fc.boolean(), { minLength: 80, maxLength: 80 }),
        (some, kept) => {
          const context = noBits(some.length);
          some.forEach((_, r) => kept[r] && setBit(context, r));
          const extent = extentOf(mercator(some), context);
          const inside = some.filter((_, r) => kept[r]);
          if (inside.length === 0) return expect(extent).toBeNull();
          const { west, east, south, north, outside } = extent!;
          const hair = 1e-3;
          const held = inside.filter(
            ([lat, lon]) =>
              lon >= west - hair && lon <= east + hair && lat >= south - hair && lat <= north + hair,
          );
          expect(held.length).toBeGreaterThanOrEqual(inside.length - outside);
          expect(outside).toBeLessThanOrEqual(Math.ceil(inside.length / 200) * 4);
        },
      ),
    );
  });
});
