import { recordsOf, type Bits } from '../tally/bits.ts';
import { latitudeOf, type Mercator } from './clusters.ts';

/** A stretch of the world in degrees, and how many of the records it was made for lie outside it. */
export interface Extent {
  west: number;
  south: number;
  east: number;
  north: number;
  outside: number;
}

/** Steps in which each side of the stretch of all records is cut to leave the farthest out. */
const STEPS = 4096;
/** One record in so many may be left out on each side. */
const FARTHEST = 200;
/** Records from which the farthest are left out at all. */
const LEAST = 10;
/** Leaving them out must shrink the stretch to this share of it, or all are shown. */
const WORTH = 0.5;

/**
 * The stretch that holds the records of a context that have a place; without the few farthest where they would make it much
 * larger. Null where none has a place.
 */
export function extentOf({ x, y }: Mercator, context: Bits): Extent | null {
  const records = recordsOf(context).filter((r) => !Number.isNaN(x[r]!));
  let [left, right, top, bottom] = [Infinity, -Infinity, Infinity, -Infinity];
  for (let i = 0; i < records.length; i++) {
    const px = x[records[i]!]!;
    const py = y[records[i]!]!;
    if (px < left) left = px;
    if (px > right) right = px;
    if (py < top) top = py;
    if (py > bottom) bottom = py;
  }
  if (records.length === 0) return null;
  const cut = records.length < LEAST ? 0 : Math.ceil(records.length / FARTHEST);
  const [nearLeft, nearRight] = middle(x, records, left, right, cut);
  const [nearTop, nearBottom] = middle(y, records, top, bottom, cut);
  const side = (length: number) => Math.max(length, 1e-6);
  const shrunk = side(nearRight - nearLeft) * side(nearBottom - nearTop);
  if (shrunk < WORTH * side(right - left) * side(bottom - top))
    [left, right, top, bottom] = [nearLeft, nearRight, nearTop, nearBottom];
  let outside = 0;
  for (const r of records) if (x[r]! < left || x[r]! > right || y[r]! < top || y[r]! > bottom) outside++;
  return {
    west: left * 360 - 180,
    east: right * 360 - 180,
    north: latitudeOf(top),
    south: latitudeOf(bottom),
    outside,
  };
}

/** Between which figures lie all but the `cut` least and the `cut` largest, to a step of the whole stretch. */
function middle(
  values: Float32Array,
  records: Uint32Array,
  from: number,
  to: number,
  cut: number,
): [number, number] {
  if (cut === 0 || to <= from) return [from, to];
  const counts = new Uint32Array(STEPS);
  const step = (to - from) / STEPS;
  for (const r of records) counts[Math.min(STEPS - 1, Math.floor((values[r]! - from) / step))]!++;
  let first = 0;
  for (let passed = counts[0]!; passed <= cut; passed += counts[first]!) first++;
  let last = STEPS - 1;
  for (let passed = counts[last]!; passed <= cut; passed += counts[last]!) last--;
  return [from + first * step, from + (last + 1) * step];
}
