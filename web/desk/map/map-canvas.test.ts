/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { drawnCanvas, frame, type Drawn } from '../../testing/canvas.ts';
import type { Land } from './land.ts';
import { EUROPE, MapCanvas, type View } from './map-canvas.ts';

const [WIDTH, HEIGHT] = [800, 500];
let drawn: Drawn;
let map: MapCanvas;
beforeEach(() => {
  drawn = drawnCanvas(WIDTH, HEIGHT);
  map = new MapCanvas(document.createElement('canvas'));
});

const anyView: fc.Arbitrary<View> = fc.record({
  lon: fc.double({ min: -150, max: 150, noNaN: true }),
  lat: fc.double({ min: -60, max: 65, noNaN: true }),
  scale: fc.double({ min: 200, max: 100_000, noNaN: true }),
});
const anyPoint = fc.record({ x: fc.integer({ min: 0, max: WIDTH }), y: fc.integer({ min: 0, max: HEIGHT }) });

describe('a view of the map', () => {
  test('has each point of the world at one point of the screen', () => {
    fc.assert(
      fc.property(anyView, anyPoint, (view, { x, y }) => {
        map.view = view;
        const [px, py] = map.toPixels(...map.toPlace(x, y));
        expect(px).toBeCloseTo(x, 3);
        expect(py).toBeCloseTo(y, 3);
      }),
    );
  });

  test('moves by as many pixels as the hand, and back', () => {
    fc.assert(
      fc.property(fc.integer({ min: -300, max: 300 }), fc.integer({ min: -200, max: 200 }), (dx, dy) => {
        map.view = EUROPE;
        const before = map.toPlace(400, 250);
        map.view = map.pan(EUROPE, dx, dy);
        const [x, y] = map.toPixels(...before);
        expect([x, y].map(Math.round)).toEqual([400 + dx, 250 + dy]);
        const back = map.pan(map.view, -dx, -dy);
        expect(back.lon).toBeCloseTo(EUROPE.lon, 6);
        expect(back.lat).toBeCloseTo(EUROPE.lat, 6);
      }),
    );
  });

  test('zooms about the point under the hand', () => {
    fc.assert(
      fc.property(anyPoint, fc.double({ min: 0.5, max: 3, noNaN: true }), ({ x, y }, factor) => {
        map.view = EUROPE;
        const there = map.toPlace(x, y);
        map.view = map.zoom(EUROPE, factor, x, y);
        const [px, py] = map.toPixels(...there);
        expect(px).toBeCloseTo(x, 3);
        expect(py).toBeCloseTo(y, 3);
      }),
    );
  });

  test('that fits a stretch has all of it on the screen', () => {
    const degree = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(
        degree(-10, 20),
        degree(36, 50),
        degree(0.1, 20),
        degree(0.1, 15),
        (west, south, wide, high) => {
          map.view = map.fit(west, south, west + wide, south + high);
          const seen = map.seen();
          expect(seen.west).toBeLessThanOrEqual(west);
          expect(seen.east).toBeGreaterThanOrEqual(west + wide);
          expect(seen.south).toBeLessThanOrEqual(south);
          expect(seen.north).toBeGreaterThanOrEqual(south + high);
        },
      ),
    );
  });

  test('asks for more than is seen, and for the same again where it moves a little', () => {
    map.view = EUROPE;
    const [box, seen] = [map.box(), map.seen()];
    expect(box.west).toBeLessThan(seen.west);
    expect(box.north).toBeGreaterThan(seen.north);
    expect(box.cells).toBeGreaterThan(WIDTH / 52);
    const width = box.east - box.west;
    map.view = map.pan(EUROPE, 3, 0);
    expect(map.box().east - map.box().west).toBeCloseTo(width, 0);
  });
});

describe('what lies under the hand', () => {
  test('is a single record, a cluster by its size, or nothing', () => {
    map.view = EUROPE;
    map.clusters = {
      singles: [{ key: 'CZ-1', name: 'Lakovna', lat: 49.2, lon: 16.6 }],
      clusters: [20, 52, 140],
    };
    const at = (lat: number, lon: number, more = 0) => {
      const [x, y] = map.toPixels(lat, lon);
      return map.under(x + more, y);
    };
    expect(at(49.2, 16.6)).toEqual({ kind: 'single', key: 'CZ-1', name: 'Lakovna' });
    expect(at(49.2, 16.6, 9)).toBeNull();
    expect(at(52, 20, 15)).toEqual({ kind: 'cluster', count: 140, lat: 52, lon: 20 });
    expect(at(52, 20, 24)).toBeNull();
  });

  test('is a region where regions are shaded, and then no record', () => {
    const square = (key: string, country: string, west: number): Land['regions']['features'][number] => ({
      type: 'Feature',
      properties: { key, country },
      geometry: {
        type: 'Polygon',
        coordinates: [
          [
            [west, 48],
            [west, 52],
            [west + 4, 52],
            [west + 4, 48],
            [west, 48],
          ],
        ],
      },
    });
    const none = { type: 'MultiLineString' as const, coordinates: [] };
    const regions = {
      type: 'FeatureCollection' as const,
      features: [square('CZ-64', 'CZ', 14), square('PL-02', 'PL', 20)],
    };
    map.view = EUROPE;
    map.setLand({ regions, inner: none, borders: none }, []);
    map.clusters = { singles: [{ key: 'CZ-1', name: 'Lakovna', lat: 50, lon: 16 }], clusters: [] };
    map.shades = { by: 'region', of: new Map([['CZ-64', 0.5]]) };
    const [x, y] = map.toPixels(50, 16);
    drawn.within = true;
    expect(map.under(x, y)).toEqual({ kind: 'region', key: 'CZ-64', country: 'CZ' });
    drawn.within = false;
    expect(map.under(x, y)).toBeNull();
  });
});

test('records are drawn with their counts, those outside the view left out, in one frame', async () => {
  map.view = EUROPE;
  map.clusters = {
    singles: [
      { key: 'a', name: 'Here', lat: 50, lon: 14 },
      { key: 'b', name: 'Far', lat: -30, lon: 150 },
    ],
    clusters: [20, 52, 1400, 10, 48, 1],
  };
  map.corners = [
    [50, 14],
    [51, 15],
  ];
  map.setLand(undefined, [{ name: 'Brno', lat: 49.2, lon: 16.6 }] as Parameters<MapCanvas['setLand']>[1]);
  map.draw();
  map.draw();
  await frame();
  await frame();
  const circles = drawn.drawn.filter((one) => one.startsWith('arc'));
  expect(drawn.drawn.filter((one) => one.startsWith('text'))).toEqual(['text Brno', 'text 1.4k']);
  // A town, one record, a cluster, a cluster of one, two corners.
  expect(circles).toHaveLength(6);
  map.dispose();
});
