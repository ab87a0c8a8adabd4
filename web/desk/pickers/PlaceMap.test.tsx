/** @jest-environment jsdom */
import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import { fireEvent, screen } from '@testing-library/react';
import { useState } from 'react';
import { distanceKm } from '../../../core/geo/distance.ts';
import type { NearTest } from '../../../core/tape/nodes.ts';
import { drawnCanvas, type Drawn } from '../../testing/canvas.ts';
import { freshDesk, settled, show } from '../../testing/render.tsx';
import { PlaceMap } from './PlaceMap.tsx';

const [WIDTH, HEIGHT] = [800, 500];
let drawn: Drawn;
beforeEach(() => {
  freshDesk();
  drawn = drawnCanvas(WIDTH, HEIGHT);
  window.ResizeObserver = class {
    private readonly seen: ResizeObserverCallback;
    constructor(seen: ResizeObserverCallback) {
      this.seen = seen;
    }
    observe() {
      this.seen([{ contentRect: { width: WIDTH, height: HEIGHT } } as ResizeObserverEntry], this);
    }
    unobserve() {}
    disconnect() {}
  };
});

const BRNO: NearTest = { lat: 49.2, lon: 16.6, km: 40, label: 'Brno' };
const opened = async (props: Partial<Parameters<typeof PlaceMap>[0]> = {}) => {
  const [onPoint, onRadius] = [
    jest.fn<(lat: number, lon: number) => void>(),
    jest.fn<(km: number) => void>(),
  ];
  await settled(() =>
    show(<PlaceMap points={[]} near={null} km={40} onPoint={onPoint} onRadius={onRadius} {...props} />, {
      'GET /cities': {
        cities: [
          { name: 'Praha', lat: 50.08, lon: 14.43 },
          { name: 'Brno', lat: 49.2, lon: 16.6 },
          { name: 'Vyškov', lat: 49.28, lon: 17 },
        ],
      },
    }),
  );
  return { onPoint, onRadius, canvas: await screen.findByRole('img') };
};
const at = (x: number, y: number) => ({ clientX: x, clientY: y, pointerId: 1 });
const press = (canvas: HTMLElement, x: number, y: number) => {
  fireEvent.pointerDown(canvas, at(x, y));
  fireEvent.pointerUp(canvas, at(x, y));
};
const drag = (canvas: HTMLElement, from: [number, number], to: [number, number]) => {
  fireEvent.pointerDown(canvas, at(...from));
  fireEvent.pointerMove(canvas, at(...to));
  fireEvent.pointerUp(canvas, at(...to));
};

describe('a map of who is left', () => {
  test('gives the place that is pressed, and none where it was moved', async () => {
    const { canvas, onPoint } = await opened();
    expect(canvas.getAttribute('aria-label')).toBe('Map of who is left; click to choose a point');
    press(canvas, WIDTH / 2, HEIGHT / 2);
    expect(onPoint).toHaveBeenLastCalledWith(50, 14);
    drag(canvas, [400, 250], [500, 250]);
    expect(onPoint).toHaveBeenCalledTimes(1);
    // What lay in the middle went along with the hand.
    press(canvas, 500, 250);
    const [lat, lon] = onPoint.mock.calls[1]!;
    expect([Math.round(lat), Math.round(lon)]).toEqual([50, 14]);
  });

  test('is zoomed by the wheel about its middle', async () => {
    const { canvas, onPoint } = await opened();
    press(canvas, 600, 250);
    fireEvent.wheel(canvas, { deltaY: -400 });
    press(canvas, 600, 250);
    const [far, near] = onPoint.mock.calls.map(([, lon]) => lon - 14);
    expect(near! / far!).toBeCloseTo(1 / Math.E, 2);
  });

  test('names the towns in view, and the centre not twice', async () => {
    await opened({ near: BRNO, points: [16.6, 49.2, 10, 48] });
    const [dots, names] = [/^arc .* 2 0/, /^text /].map((kind) =>
      drawn.drawn.filter((one) => kind.test(one)),
    );
    expect(new Set(names)).toEqual(new Set(['text Vyškov', 'text Brno']));
    // A dot of a town goes before its name; Brno has the mark of the centre instead.
    expect(names!.filter((name) => name === 'text Vyškov')).toHaveLength(dots!.length);
  });
});

describe('a ring of equal distance', () => {
  /** A ring whose radius follows the hand. */
  function Ring({ told }: { told(km: number): void }) {
    const [km, setKm] = useState(40);
    const follow = (next: number) => {
      told(next);
      setKm(next);
    };
    return <PlaceMap points={[]} near={BRNO} km={km} onPoint={() => {}} onRadius={follow} />;
  }

  test('is taken by its edge and follows the hand', async () => {
    const told = jest.fn<(km: number) => void>();
    await settled(() => show(<Ring told={told} />, { 'GET /cities': { cities: [] } }));
    const canvas = screen.getByRole('img', { name: 'Map around Brno with a ring of 40 km' });
    // A new centre comes to the middle with a ring of 110 pixels.
    drag(canvas, [WIDTH / 2, HEIGHT / 2 - 110], [WIDTH / 2, HEIGHT / 2 - 165]);
    const km = told.mock.calls.at(-1)![0];
    expect(km).toBeGreaterThan(58);
    expect(km).toBeLessThan(62);
    expect(screen.getByRole('img').getAttribute('aria-label')).toContain(`ring of ${Math.round(km)} km`);
  });

  test('is as wide on the map as it says', async () => {
    const { canvas, onPoint } = await opened({ near: BRNO });
    press(canvas, WIDTH / 2 + 90, HEIGHT / 2);
    const [lat, lon] = onPoint.mock.calls[0]!;
    const wide = distanceKm(BRNO.lat, BRNO.lon, lat, lon);
    expect(wide / 40).toBeCloseTo(90 / 110, 1);
  });
});

test('a drawn area says its corners, and has a dot on each', async () => {
  const points = [
    [49, 14],
    [51, 14],
    [51, 17],
  ] as const;
  const { canvas } = await opened({ area: { points, open: false }, points: [15, 50.5] });
  expect(canvas.getAttribute('aria-label')).toBe('Map with a drawn area of 3 corners');
  // Three corners beside the dot of a town, each time it is drawn.
  const dots = drawn.drawn.filter((one) => /^arc -?\d+ -?\d+ 4 /.test(one));
  expect(dots.length).toBeGreaterThan(0);
  expect(dots.length % 3).toBe(0);
});
