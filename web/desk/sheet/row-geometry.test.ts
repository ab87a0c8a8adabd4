import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { columnWidths, rowGeometry, TALLEST, type Box } from './row-geometry.ts';

const ROW = 38;
const box = (scrollTop: number, more: Partial<Box> = {}): Box => ({
  scrollTop,
  height: 600,
  head: 34,
  foot: 36,
  ...more,
});
/** What is left for rows between head and foot. */
const VIEW = 600 - 34 - 36;

test('rows in view are those between head and foot', () => {
  expect(rowGeometry(box(0), 1000, ROW).shown).toEqual({ from: 0, to: 13 });
  expect(VIEW / ROW).toBeCloseTo(13.947);
  expect(rowGeometry(box(0, { height: 34 + 36 + 10 * ROW }), 1000, ROW).shown).toEqual({ from: 0, to: 9 });
  expect(rowGeometry(box(ROW / 2 + 1), 1000, ROW).shown.from).toBe(1);
  expect(rowGeometry(box(0), 3, ROW).shown).toEqual({ from: 0, to: 2 });
});

test('nothing is drawn of nothing, and one row of one', () => {
  expect(rowGeometry(box(0), 0, ROW)).toMatchObject({ height: 0, count: 0, first: 0 });
  expect(rowGeometry(box(0), 1, ROW)).toMatchObject({ height: ROW, count: 1, shown: { from: 0, to: 0 } });
  expect(rowGeometry(box(0, { height: 20 }), 5, ROW).shown.from).toBe(0);
});

test('a row that is asked for stands whole between head and foot, whatever the size', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 20_000_000 }),
      fc.nat(),
      fc.nat(),
      fc.integer({ min: 250, max: 2000 }),
      (total, wish, at, height) => {
        const row = wish % total;
        const scrolled = (scrollTop: number) => rowGeometry(box(scrollTop, { height }), total, ROW);
        const start = at % Math.max(1, scrolled(0).height - (height - 70) + 1);
        const next = scrolled(start).scrollTopFor(row);
        const now = next ?? start;
        expect(now).toBeGreaterThanOrEqual(0);
        expect(now).toBeLessThanOrEqual(Math.max(0, scrolled(0).height - (height - 70)) + 1e-6);
        const view = scrolled(now);
        // Where it stands below the head, in pixels.
        const stands = view.top + (row - view.first) * ROW - now;
        expect(stands).toBeGreaterThanOrEqual(-0.5);
        expect(stands + ROW).toBeLessThanOrEqual(height - 70 + 0.5);
        expect(row).toBeGreaterThanOrEqual(view.first);
        expect(row).toBeLessThan(view.first + view.count);
        expect(view.shown.from).toBeLessThanOrEqual(row);
        expect(view.shown.to).toBeGreaterThanOrEqual(row);
        expect(scrolled(now).scrollTopFor(row) ?? now).toBeCloseTo(now, 3);
      },
    ),
  );
});

test('every row can be reached by scrolling, the last one whole at the end', () => {
  for (const total of [10, 1000, 400_000, 1_000_000, 10_000_000]) {
    const { height } = rowGeometry(box(0), total, ROW);
    expect(height).toBe(Math.min(total * ROW, TALLEST));
    const end = Math.max(0, height - VIEW);
    const last = rowGeometry(box(end), total, ROW);
    expect(last.shown.to).toBe(total - 1);
    expect(last.scrollTopFor(total - 1) ?? end).toBeCloseTo(end, 3);
    // What is drawn fills the view.
    expect(last.count).toBeGreaterThanOrEqual(Math.min(total, Math.ceil(VIEW / ROW)));
  }
});

test('names take half of the room that is left over, unless their width was chosen', () => {
  const columns = [
    { id: 'name', width: 200 },
    { id: 'web', width: 100 },
  ];
  expect(columnWidths(columns, {}, 300)).toEqual([200, 100]);
  expect(columnWidths(columns, {}, 500)).toEqual([300, 100]);
  expect(columnWidths(columns, {}, 3000)).toEqual([420, 100]);
  expect(columnWidths(columns, {}, 100)).toEqual([200, 100]);
  expect(columnWidths(columns, { name: 150 }, 900)).toEqual([150, 100]);
  expect(columnWidths(columns, { web: 180 }, 400)).toEqual([210, 180]);
});
