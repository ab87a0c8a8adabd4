import type { NumberTest } from '../tape/nodes.ts';
import { recordsOf, type Bits } from './bits.ts';

/** Records by two figures at once: `counts[y * xBars.length + x]`. Bars are ranges as lines ask them. */
export interface Plane {
  xBars: NumberTest[];
  yBars: NumberTest[];
  counts: number[];
  /** Records of the context that lie in a bar of both; the others are unknown, in a wider band or between bars in one. */
  placed: number;
  total: number;
}

/** The records of a context as a grid. `x` and `y` number the bar of each record from 1 on, as `barNumbers` does. */
export function plane(
  x: Uint8Array,
  y: Uint8Array,
  context: Bits,
  xBars: NumberTest[],
  yBars: NumberTest[],
): Plane {
  const counts = new Uint32Array(xBars.length * yBars.length);
  let placed = 0;
  let total = 0;
  for (const r of recordsOf(context)) {
    total++;
    const column = x[r]! - 1;
    const row = y[r]! - 1;
    if (column < 0 || row < 0 || column >= xBars.length || row >= yBars.length) continue;
    placed++;
    counts[row * xBars.length + column]!++;
  }
  return { xBars, yBars, counts: [...counts], placed, total };
}
