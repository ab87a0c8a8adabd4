import type { CodeTree } from '../codes/tree.ts';
import { ratePerEuro, RATE_YEARS } from '../money/rates.ts';
import { distanceKm } from '../geo/distance.ts';
import { eachNear } from '../geo/grid.ts';
import { countBits, countBoth, recordsOf, type Bits } from './bits.ts';
import { countRecords, firstAbove } from './sorted.ts';
import {
  Basis,
  REASONS,
  type CategoryColumn,
  type CodesColumn,
  type ManyColumn,
  type PlaceColumn,
  type RangeColumn,
  type Reason,
} from './columns.ts';

/** Records by value within a context; `unknown` have no value recorded. */
export interface ValueCounts {
  counts: Map<string, number>;
  unknown: number;
}

/** Records of each value of a single-valued field. */
export function countCategory(column: CategoryColumn, context: Bits): ValueCounts {
  const tallies = new Uint32Array(column.dictionary.length + 1);
  const { values } = column;
  for (const r of recordsOf(context)) tallies[values[r]!]!++;
  return { counts: named(column.dictionary, tallies.subarray(1)), unknown: tallies[0]! };
}

/** Records of each value of a many-valued field, and of each group: those with any member. */
export function countMany(
  column: ManyColumn,
  context: Bits,
  groups: ReadonlyMap<string, readonly string[]>,
): ValueCounts {
  const tallies = new Uint32Array(column.dictionary.length);
  const groupKeys = [...groups.keys()];
  const groupOf = new Map<string, number>();
  groupKeys.forEach((key, g) => groups.get(key)!.forEach((member) => groupOf.set(member, g)));
  const groupOfValue = Int32Array.from(column.dictionary, (key) => groupOf.get(key) ?? -1);
  const groupTallies = new Uint32Array(groupKeys.length);
  const lastOfGroup = new Int32Array(groupKeys.length).fill(-1);
  let unknown = 0;
  for (const r of recordsOf(context)) {
    if (!((column.known[r >> 5]! >>> (r & 31)) & 1)) unknown++;
    for (let i = column.offsets[r]!; i < column.offsets[r + 1]!; i++) {
      const value = column.values[i]!;
      tallies[value]!++;
      const group = groupOfValue[value]!;
      if (group >= 0 && lastOfGroup[group] !== r) {
        lastOfGroup[group] = r;
        groupTallies[group]!++;
      }
    }
  }
  const counts = named(column.dictionary, tallies);
  groupKeys.forEach((key, g) => counts.set(key, groupTallies[g]!));
  return { counts, unknown };
}

/**
 * Records of each code with all that lies below it; a record counts once for a code however many of
 * its codes are there. Records with one code, which are most, are counted at their own node first
 * and carried up the tree together.
 */
export function countCodes(
  column: CodesColumn,
  tree: CodeTree,
  context: Bits,
  mainOnly: boolean,
): { counts: Uint32Array; unknown: number } {
  const { offsets, nodes, hasMain } = column;
  const { parents } = tree;
  const counts = new Uint32Array(tree.size);
  const several = new Uint32Array(tree.size);
  const lastAt = new Int32Array(tree.size).fill(-1);
  let unknown = 0;
  for (const r of recordsOf(context)) {
    const start = offsets[r]!;
    let end = offsets[r + 1]!;
    if (mainOnly) end = (hasMain[r >> 5]! >>> (r & 31)) & 1 ? start + 1 : start;
    if (start === end) unknown++;
    else if (end === start + 1) counts[nodes[start]!]!++;
    else
      for (let i = start; i < end; i++)
        for (let node = nodes[i]!; node >= 0 && lastAt[node] !== r; node = parents[node]!) {
          lastAt[node] = r;
          several[node]!++;
        }
  }
  for (let node = tree.size - 1; node >= 0; node--) {
    if (parents[node]! >= 0) counts[parents[node]!]! += counts[node]!;
    counts[node]! += several[node]!;
  }
  return { counts, unknown };
}

/** A histogram: records whose whole value lies from `edges[i]` up to below `edges[i + 1]`. */
export interface Histogram {
  edges: number[];
  counts: Uint32Array;
  /** Of the counts, those that rest on an estimate. */
  estimated: Uint32Array;
  /** Bands that no single bar holds. */
  banded: number;
  unknown: number;
  reasons: Partial<Record<Reason, number>>;
}

/**
 * The values of a range column as a histogram; the last bar is open. Money, which columns keep in euros, is
 * in `currency` at the rate of each value's year.
 */
export function histogram(column: RangeColumn, context: Bits, edges: number[], currency = 'EUR'): Histogram {
  const rates = Float64Array.from(
    { length: RATE_YEARS.to - RATE_YEARS.from + 1 },
    (_, i) => ratePerEuro(currency, RATE_YEARS.from + i) ?? NaN,
  );
  const { index } = column;
  const rateOf = (year: number) => (currency === 'EUR' ? 1 : (rates[year - RATE_YEARS.from] ?? NaN));
  const counts = new Uint32Array(edges.length);
  const estimated = new Uint32Array(edges.length);
  for (const { basis, year, start, end } of index.runs) {
    const rate = rateOf(year);
    let from = start;
    for (let bar = 0; bar < edges.length; bar++) {
      const to = bar + 1 < edges.length ? firstScaled(index.values, rate, edges[bar + 1]!, from, end) : end;
      const count = countRecords(context, index.records, from, to);
      counts[bar]! += count;
      if (basis === Basis.Estimate) estimated[bar]! += count;
      from = to;
    }
  }
  let banded = 0;
  for (const { year, low, high, start, end } of index.bands) {
    const rate = rateOf(year);
    const bar = barOf(edges, low * rate);
    const count = countRecords(context, index.bandRecords, start, end);
    if (bar === barOf(edges, high * rate)) counts[bar]! += count;
    else banded += count;
  }
  const reasons: Histogram['reasons'] = {};
  index.reasons.forEach((records, i) => {
    const count = records ? countBoth(records, context) : 0;
    if (count) reasons[REASONS[i]!] = count;
  });
  return { edges, counts, estimated, banded, unknown: countBoth(index.unknown, context), reasons };
}

/** The first position whose value in the wanted currency is not under an edge. */
function firstScaled(values: Float64Array, rate: number, edge: number, start: number, end: number): number {
  while (start < end) {
    const middle = (start + end) >>> 1;
    if (values[middle]! * rate < edge) start = middle + 1;
    else end = middle;
  }
  return start;
}

function barOf(edges: readonly number[], value: number): number {
  return Math.max(0, firstAbove(edges, value, 0, edges.length) - 1);
}

/** Records within each of several distances in kilometres, and those whose place is unknown. */
export function countNear(
  { lat: lats, lon: lons, grid, located }: PlaceColumn,
  context: Bits,
  lat: number,
  lon: number,
  radii: readonly number[],
): { within: number[]; unknown: number } {
  const within = radii.map(() => 0);
  eachNear(grid, lat, lon, Math.max(...radii), (start, end) => {
    for (let i = start; i < end; i++) {
      const r = grid.records[i]!;
      if (!((context[r >> 5]! >>> (r & 31)) & 1)) continue;
      const km = distanceKm(lat, lon, lats[r]!, lons[r]!);
      for (let n = 0; n < radii.length; n++) if (km <= radii[n]!) within[n]!++;
    }
  });
  return { within, unknown: countBits(context) - countBoth(context, located) };
}

function named(dictionary: readonly string[], tallies: Uint32Array): Map<string, number> {
  const counts = new Map<string, number>();
  dictionary.forEach((key, i) => counts.set(key, tallies[i]!));
  return counts;
}
