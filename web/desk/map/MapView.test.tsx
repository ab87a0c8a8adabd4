/** @jest-environment jsdom */
import { beforeEach, describe, expect, test } from '@jest/globals';
import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import type { ChartAnswer, ClustersAnswer } from '../../../contract/market.ts';
import { emptyTape, type PlaceTest } from '../../../core/tape/nodes.ts';
import { undo } from '../../app/history.ts';
import { drawnCanvas, type Drawn } from '../../testing/canvas.ts';
import { freshDesk, settled, show, type Answers } from '../../testing/render.tsx';
import { usePutting } from '../putting.ts';
import { useDesk } from '../store.ts';
import { MapView } from './MapView.tsx';

let drawn: Drawn;
beforeEach(() => {
  freshDesk();
  usePutting.setState({ acted: null });
  drawn = drawnCanvas();
  window.ResizeObserver = class {
    private readonly seen: ResizeObserverCallback;
    constructor(seen: ResizeObserverCallback) {
      this.seen = seen;
    }
    observe() {
      this.seen([], this);
    }
    unobserve() {}
    disconnect() {}
  };
});

const clusters = (more: Partial<ClustersAnswer> = {}) => ({
  clusters: [],
  singles: [
    { key: 'CZ-1', name: 'Lakovna Veldin', lat: 49.2, lon: 16.6 },
    { key: 'DE-2', name: 'Quelbek', lat: 50.9, lon: 6.9 },
  ],
  inView: 2,
  located: 40,
  seen: 2,
  extent: { west: 5, south: 45, east: 25, north: 55 },
  places: undefined,
  ...more,
});
const shaded: ChartAnswer = {
  chart: {
    id: 'shading',
    shape: 'table',
    by: { field: 'place', level: 'country' },
    measure: { of: 'count' },
  },
  total: 40,
  median: null,
  split: null,
  scatter: null,
  slots: [
    ['CZ', 'Czechia', 30, 60],
    ['PL', 'Poland', 7, 70],
    ['AT', 'Austria', 3, 4],
  ].map(([key, label, count, all]) => ({
    ...{ kind: 'group' as const, key: key as string, label: label as string, groups: 1, edges: null },
    ...{ count: count as number, value: count as number, valued: count as number, estimated: 0 },
    ...{ test: null, base: { count: all as number, value: all as number } },
  })) as unknown as ChartAnswer['slots'],
};
const unknown = { kind: 'unknown', key: null, label: null, groups: 1, edges: null, count: 5, value: 5 };

const opened = (more: Answers = {}) =>
  show(<MapView />, {
    'GET /cities': { cities: [] },
    'POST /clusters': clusters(),
    'POST /charts': {
      charts: [{ ...shaded, slots: [...shaded.slots, { ...unknown, valued: 5, estimated: 0, test: null }] }],
    },
    'GET /inhabitants': { countries: { CZ: 10_000_000, PL: 38_000_000, AT: 9_000_000 }, regions: {} },
    ...more,
  });
const map = () => screen.findByRole('application');
const placeLines = () =>
  useDesk.getState().tape.lines.flatMap((line) => ('test' in line ? [line.test as PlaceTest] : []));

describe('the map', () => {
  test('says how many are in view and how many beyond it, and opens those in view by name', async () => {
    const { user } = opened();
    expect(await screen.findByRole('application', { name: /^Map of 2 companies in view/ })).toBeTruthy();
    expect((await screen.findByText(/with a place/)).textContent).toBe(
      '40 with a place, 38 outside this viewFit',
    );
    await user.click(await screen.findByRole('button', { name: 'Quelbek' }));
    expect(useDesk.getState().company).toBe('DE-2');
  });

  test('asks for the stretch that is seen, and for another once it was moved by keys', async () => {
    const { sent } = opened();
    fireEvent.keyDown(await map(), { key: 'ArrowRight' });
    await waitFor(() => expect(sent('POST /clusters').length).toBeGreaterThan(1));
    const asked = sent('POST /clusters') as { west: number; seen: { west: number; east: number } }[];
    expect(asked.at(-1)!.seen.west).toBeGreaterThan(asked[0]!.seen.west);
    const before = asked.at(-1)!;
    fireEvent.keyDown(await map(), { key: '+' });
    await waitFor(() => {
      const last = (sent('POST /clusters') as typeof asked).at(-1)!;
      expect(last.seen.east - last.seen.west).toBeLessThan(before.seen.east - before.seen.west);
    });
  });

  test('keeps what is in view as a line, which is taken back in one step', async () => {
    const { user } = opened();
    await map();
    await user.click(screen.getByRole('button', { name: 'Keep the view' }));
    const [line] = placeLines();
    expect(line!.within!.points).toHaveLength(4);
    expect(line!.within!.label).toBe('the view of the map');
    await settled(() => undo());
    expect(placeLines()).toEqual([]);
  });

  test('takes an area that is drawn corner by corner', async () => {
    const { user } = opened();
    const canvas = await map();
    await user.click(screen.getByRole('button', { name: 'Draw an area' }));
    expect(screen.getByText('click the corners')).toBeTruthy();
    const press = (x: number, y: number) => {
      fireEvent.pointerDown(canvas, { clientX: x, clientY: y, pointerId: 1 });
      fireEvent.pointerUp(canvas, { clientX: x, clientY: y, pointerId: 1 });
    };
    press(100, 100);
    press(300, 100);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Keep this area' }).disabled).toBe(true);
    press(300, 300);
    // Pressing the first corner again closes it.
    press(103, 103);
    expect(placeLines()[0]!.within!.points).toHaveLength(3);
    expect(screen.getByRole('button', { name: 'Draw an area' })).toBeTruthy();
  });

  test('leaves an area that was begun on Escape', async () => {
    const { user } = opened();
    await map();
    await user.click(screen.getByRole('button', { name: 'Draw an area' }));
    fireEvent.keyDown(await map(), { key: 'Escape' });
    expect(await screen.findByRole('button', { name: 'Draw an area' })).toBeTruthy();
    expect(placeLines()).toEqual([]);
  });

  test('puts what is in view on a list, without a line on the tape', async () => {
    const { user } = opened();
    await map();
    await user.click(screen.getByRole('button', { name: 'View to a list' }));
    expect(usePutting.getState().acted).toMatchObject({
      count: null,
      tape: { lines: [{ field: 'place', test: { within: { label: 'the view of the map' } } }] },
    });
    expect(placeLines()).toEqual([]);
  });

  test('opens the single record that is pressed, or with Alt puts it on a list', async () => {
    opened({
      'POST /clusters': clusters({ extent: null, singles: [{ key: 'X', name: 'Mid', lat: 51.5, lon: 13 }] }),
    });
    const canvas = await map();
    await screen.findByRole('button', { name: 'Mid' });
    // Wherever earlier moves left it, the record is looked for by its own place on the screen.
    const pressed = (altKey: boolean, found: () => unknown) => {
      for (let x = 0; x < 800 && !found(); x += 5)
        for (let y = 0; y < 500 && !found(); y += 5)
          act(() => {
            fireEvent.pointerDown(canvas, { clientX: x, clientY: y, pointerId: 1 });
            fireEvent.pointerUp(canvas, { clientX: x, clientY: y, pointerId: 1, altKey });
          });
    };
    pressed(true, () => usePutting.getState().acted);
    expect(usePutting.getState().acted).toMatchObject({ one: true, picks: { keys: new Map([['X', 0]]) } });
    expect(useDesk.getState().company).toBeNull();
    pressed(false, () => useDesk.getState().company);
    expect(useDesk.getState().company).toBe('X');
  });

  test('says what went wrong', async () => {
    opened({ 'POST /clusters': new Error('The columns are being opened.') });
    expect((await screen.findByRole('alert')).textContent).toContain('The columns are being opened.');
  });
});

describe('shading', () => {
  test('shows countries in classes, with the figures as a table for those who cannot see it', async () => {
    const { user, sent } = opened();
    await user.click(screen.getByRole('radio', { name: 'Countries' }));
    const table = await screen.findByRole('table', { name: 'how many' });
    expect(table.textContent).toBe('how manyCzechia30Poland7Austria3');
    expect(screen.getByText('5 of unknown place')).toBeTruthy();
    expect(sent('POST /charts')).toMatchObject([
      {
        charts: [{ by: { field: 'place', level: 'country' }, measure: { of: 'count' } }],
        against: 'universe',
      },
    ]);
  });

  test('stands in relation to the records there, or to the people living there', async () => {
    const { user } = opened();
    await user.click(screen.getByRole('radio', { name: 'Countries' }));
    await screen.findByRole('table', { name: 'how many' });
    await user.selectOptions(screen.getByLabelText('In relation to'), 'of 100 companies there');
    expect((await screen.findByRole('table')).textContent).toMatch(/Austria75.*Czechia50.*Poland10/);
    await user.selectOptions(screen.getByLabelText('In relation to'), 'for 100,000 inhabitants');
    await waitFor(() =>
      expect(screen.getByRole('table').textContent).toMatch(/inhabitants.*Czechia0\.3.*Poland0/),
    );
  });

  test('by a median stands for itself', async () => {
    const { user } = opened();
    await user.click(screen.getByRole('radio', { name: 'Regions' }));
    await user.selectOptions(await screen.findByLabelText('Shaded by'), 'median growth');
    expect(screen.queryByLabelText('In relation to')).toBeNull();
  });
});

test('a subject without places is drawn where its companies are, and says so', async () => {
  useDesk.setState({ tape: emptyTape('people') });
  opened();
  await map();
  expect(screen.getByText('People stand where their company is')).toBeTruthy();
  expect(screen.queryByRole('radio', { name: 'Countries' })).toBeNull();
  await waitFor(() => expect(drawn.drawn.filter((one) => one.startsWith('arc')).length).toBeGreaterThan(0));
});
