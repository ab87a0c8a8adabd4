import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { allBits, hasBit, noBits, setBit, type Bits } from '../tally/bits.ts';
import { clustersIn, countIn, latitudeOf, mercatorOf, mercatorX, mercatorY } from './clusters.ts';
import { extentOf } from './extent.ts';

/** A place in degrees; null where a record has none. */
type Point = [lat: number, lon: number] | null;

const degrees = (most: number) =>
  fc.integer({ min: -most * 10, max: most * 10 }).map((tenths) => tenths / 10);
const anyPoint: fc.Arbitrary<Point> = fc.option(fc.tuple(degrees(80), degrees(179)), { freq: 5 });
const anyPoints = fc.array(fc.tuple(anyPoint, fc.boolean()), { minLength: 1, maxLength: 80 });

/** The points on the plane, and those of the context. */
function placed(points: readonly (readonly [Point, boolean])[]) {
  const plane = mercatorOf(
    Float64Array.from(points, ([point]) => point?.[0] ?? NaN),
    Float64Array.from(points, ([point]) => point?.[1] ?? NaN),
  );
  const context: Bits = noBits(points.length);
  points.forEach(([, kept], r) => kept && setBit(context, r));
  return { plane, context };
}
const world = { west: -180, east: 180, south: -85, north: 85 };
const anyView = fc
  .tuple(degrees(170), degrees(75), fc.integer({ min: 1, max: 60 }), fc.integer({ min: 1, max: 40 }))
  .map(([west, south, width, cells]) => ({
    west,
    east: Math.min(180, west + width),
    south,
    north: Math.min(84, south + width / 2),
    cells,
  }));

describe('the plane of the maps', () => {
  test('has the equator and the meridian of Greenwich in its middle, and the north on top', () => {
    expect([mercatorX(0), mercatorY(0)]).toEqual([0.5, 0.5]);
    expect([mercatorX(-180), mercatorX(180)]).toEqual([0, 1]);
    expect(mercatorY(60)).toBeLessThan(mercatorY(0));
    // 60 degrees north is ln(2 + √3) / 2π above the equator.
    expect(0.5 - mercatorY(60)).toBeCloseTo(Math.log(2 + Math.sqrt(3)) / (2 * Math.PI), 12);
  });
  test('gives back the latitude that was put on it', () => {
    fc.assert(fc.property(degrees(84), (lat) => expect(latitudeOf(mercatorY(lat))).toBeCloseTo(lat, 9)));
  });
  test('has no place for a record without one', () => {
    const { x, y } = mercatorOf(Float64Array.of(NaN, 50), Float64Array.of(14, 14));
    expect([x[0], y[0]]).toEqual([NaN, NaN]);
    expect(x[1]).toBeGreaterThan(0.5);
  });
});

describe('clusters', () => {
  test('hold every record in view once, and say how many have a place at all', () => {
    fc.assert(
      fc.property(anyPoints, anyView, (points, view) => {
        const { plane, context } = placed(points);
        const { located, inView, clusters, singles } = clustersIn(plane, context, view, 0);
        const kept = points.filter(([point, in_]) => in_ && point).length;
        expect(located).toBe(kept);
        expect(singles).toEqual([]);
        let held = 0;
        for (let i = 2; i < clusters.length; i += 3) held += clusters[i]!;
        expect(held).toBe(inView);
        expect(inView).toBeLessThanOrEqual(countIn(plane, context, view));
      }),
    );
  });
  test('stand within the view, in the middle of what they hold', () => {
    fc.assert(
      fc.property(anyPoints, anyView, (points, view) => {
        const { plane, context } = placed(points);
        const { clusters } = clustersIn(plane, context, view, 0);
        for (let i = 0; i < clusters.length; i += 3) {
          expect(clusters[i]).toBeGreaterThanOrEqual(view.west - 1e-3);
          expect(clusters[i]).toBeLessThanOrEqual(view.east + 1e-3);
          expect(clusters[i + 1]).toBeGreaterThanOrEqual(view.south - 1e-3);
          expect(clusters[i + 1]).toBeLessThanOrEqual(view.north + 1e-3);
        }
      }),
    );
  });
  test('are none where all in view can stand by themselves, which then are just those in view', () => {
    fc.assert(
      fc.property(anyPoints, anyView, (points, view) => {
        const { plane, context } = placed(points);
        const { clusters, singles, inView } = clustersIn(plane, context, view, points.length);
        expect([clusters, singles.length]).toEqual([[], inView]);
        for (const r of singles) {
          expect(hasBit(context, r)).toBe(true);
          const [lat, lon] = points[r]![0]!;
          expect(lon).toBeGreaterThanOrEqual(view.west - 1e-4);
          expect(lon).toBeLessThanOrEqual(view.east + 1e-4);
          expect(lat).toBeGreaterThanOrEqual(view.south - 1e-4);
          expect(lat).toBeLessThanOrEqual(view.north + 1e-4);
        }
      }),
    );
  });
  test('of one cell hold all that is in view', () => {
    const points = [
      [[50, 14], true],
      [[50, 16], true],
      [[10, 14], true],
      [null, true],
    ] as const;
    const { plane, context } = placed(points as never);
    const view = { west: 10, east: 20, south: 45, north: 55, cells: 1 };
    const { clusters, located, inView } = clustersIn(plane, context, view, 1);
    expect([located, inView, clusters.length]).toEqual([3, 2, 3]);
    expect(clusters[0]).toBeCloseTo(15, 3);
    expect(clusters[1]).toBeCloseTo(50, 3);
    expect(clusters[2]).toBe(2);
  });
});

describe('the stretch that holds what is kept', () => {
  test('holds all but those it says are outside', () => {
    fc.assert(
      fc.property(anyPoints, (points) => {
        const { plane, context } = placed(points);
        const extent = extentOf(plane, context);
        const located = points.filter(([point, kept]) => kept && point);
        if (!extent) {
          expect(located).toEqual([]);
          return;
        }
        const reached = { ...extent, west: extent.west - 1e-4, east: extent.east + 1e-4 };
        const inside = countIn(plane, context, {
          ...reached,
          south: reached.south - 1e-4,
          north: reached.north + 1e-4,
        });
        expect(inside + extent.outside).toBe(located.length);
        // Each side leaves out one in two hundred at most, and one more for the last step.
        expect(extent.outside).toBeLessThanOrEqual(4 * (Math.ceil(located.length / 200) + 1));
      }),
    );
  });
  test('leaves out a few that are very far, and says how many', () => {
    const near = Array.from({ length: 400 }, (_, i): [Point, boolean] => [
      [49 + (i % 20) / 20, 14 + Math.floor(i / 20) / 20],
      true,
    ]);
    const { plane, context } = placed([...near, [[-30, 150], true]]);
    const extent = extentOf(plane, context)!;
    expect(extent.outside).toBeGreaterThanOrEqual(1);
    expect(extent.east).toBeLessThan(20);
    expect(extent.south).toBeGreaterThan(45);
  });
  test('keeps all where they are few or lie evenly, and is a point where there is one', () => {
    const three = placed([
      [[50, 10], true],
      [[40, 30], true],
      [[-30, 150], true],
    ]);
    expect(extentOf(three.plane, three.context)!.outside).toBe(0);
    const one = placed([[[50, 10], true]]);
    const extent = extentOf(one.plane, one.context)!;
    expect(extent.west).toBeCloseTo(10, 3);
    expect(extent.east).toBe(extent.west);
    expect(extent.north).toBeCloseTo(50, 3);
  });
  test('is none where nobody has a place, or nobody is kept', () => {
    const nowhere = placed([[null, true]]);
    expect(extentOf(nowhere.plane, allBits(1))).toBeNull();
    const nobody = placed([[[50, 10], false]]);
    expect(extentOf(nobody.plane, nobody.context)).toBeNull();
    expect(countIn(nobody.plane, nobody.context, world)).toBe(0);
  });
});
