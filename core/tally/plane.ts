import { recordsOf, type Bits } from './bits.ts';
import { Basis, type RangeColumn } from './columns.ts';
import { firstAbove } from './sorted.ts';

/** Records by two figures at once: `counts[y * (xEdges.length) + x]`, the last bar of either open. */
export interface Plane {
  xEdges: number[];
  yEdges: number[];
  counts: number[];
  /** Records of the context with a single figure in both; the others are unknown or banded in one. */
  placed: number;
  total: number;
}

/**
 * Two figures of the records of a context as a grid, by their points where they are estimates. Figures below the
 * first edge count with it. `rates` turn a figure of `y` in the column's unit into the wanted one by its year.
 */
export function plane(
  x: RangeColumn,
  y: RangeColumn,
  context: Bits,
  xEdges: number[],
  yEdges: number[],
  rateOf: (year: number) => number,
): Plane {
  const counts = new Uint32Array(xEdges.length * yEdges.length);
  let placed = 0;
  let total = 0;
  const barOf = (edges: readonly number[], value: number) =>
    Math.max(0, firstAbove(edges, value, 0, edges.length) - 1);
  const rates = new Map<number, number>();
  for (const r of recordsOf(context)) {
    total++;
    if (!isSingle(x, r) || !isSingle(y, r)) continue;
    const year = y.year[r]!;
    let rate = rates.get(year);
    if (rate === undefined) rates.set(year, (rate = rateOf(year)));
    if (Number.isNaN(rate)) continue;
    placed++;
    counts[barOf(yEdges, y.low[r]! * rate) * xEdges.length + barOf(xEdges, x.low[r]!)]!++;
  }
  return { xEdges, yEdges, counts: [...counts], placed, total };
}

function isSingle(column: RangeColumn, r: number): boolean {
  return column.basis[r] === Basis.Reported || column.basis[r] === Basis.Estimate;
}
