import { scaleTo } from '../tally/amounts.ts';
import { hasBit } from '../tally/bits.ts';
import {
  Basis,
  type KeyedColumn,
  type ManyColumn,
  type PlaceColumn,
  type RangeColumn,
} from '../tally/columns.ts';

/** Technologies of the seeds beside those of each record: the cosine of the two, rare ones weighing more. NaN where never surveyed; null where the seeds show none. */
export function technologiesPart(
  { dictionary, offsets, values, known, postings }: ManyColumn,
  seeds: readonly number[],
  size: number,
): Float32Array | null {
  const rarity = Float64Array.from(dictionary, (_, v) =>
    Math.log(1 + size / (1 + postings.starts[v + 1]! - postings.starts[v]!)),
  );
  const wanted = new Float64Array(dictionary.length);
  for (const r of seeds)
    for (let i = offsets[r]!; i < offsets[r + 1]!; i++) wanted[values[i]!]! += 1 / seeds.length;
  let length = 0;
  for (let v = 0; v < wanted.length; v++) length += (wanted[v]! * rarity[v]!) ** 2;
  if (length === 0) return null;
  const scores = new Float32Array(size);
  for (let r = 0; r < size; r++) {
    if (!hasBit(known, r)) {
      scores[r] = NaN;
      continue;
    }
    let shared = 0;
    let own = 0;
    for (let i = offsets[r]!; i < offsets[r + 1]!; i++) {
      const v = values[i]!;
      shared += wanted[v]! * rarity[v]! ** 2;
      own += rarity[v]! ** 2;
    }
    scores[r] = shared === 0 ? 0 : Math.min(1, shared / Math.sqrt(length * own));
  }
  return scores;
}

/** The logarithm of a figure by record, of a band that of its middle by proportion; NaN where unknown or open. Kept as long as the column. */
const logs = new WeakMap<RangeColumn, Float32Array>();

function logsOf(column: RangeColumn): Float32Array {
  let own = logs.get(column);
  if (!own) {
    const { low, high, basis } = column;
    const scale = scaleTo(column, 'EUR');
    own = new Float32Array(low.length);
    for (let r = 0; r < own.length; r++) {
      const open = low[r] !== high[r] && !(low[r]! >= 0 && high[r]! < Infinity);
      own[r] =
        basis[r] === Basis.Unknown || open ? NaN : (logOf(scale(low[r]!, r)) + logOf(scale(high[r]!, r))) / 2;
    }
    logs.set(column, own);
  }
  return own;
}

/** Nothing and less than nothing stand with one, the least that a size is told by. */
function logOf(value: number): number {
  return Math.log(Math.max(1, value));
}

/** Ten times as large or as small is as unlike as size can be. */
const WIDEST = Math.log(10);
/** Likeness under this is none: logarithms are kept to six digits. */
const LEAST_ALIKE = 1e-5;

/** How near each record's headcount and revenue are to the middle of the seeds'. NaN where neither is known; null where none of the seeds' is. */
export function sizePart(
  headcount: RangeColumn,
  revenue: RangeColumn,
  seeds: readonly number[],
  size: number,
): Float32Array | null {
  const [first, second] = [logsOf(headcount), logsOf(revenue)];
  const middle = (own: Float32Array) => {
    const known = seeds
      .map((r) => own[r]!)
      .filter((log) => !Number.isNaN(log))
      .sort((a, b) => a - b);
    return known.length ? known[known.length >> 1]! : NaN;
  };
  const [a, b] = [middle(first), middle(second)];
  if (Number.isNaN(a) && Number.isNaN(b)) return null;
  const scores = new Float32Array(size);
  for (let r = 0; r < size; r++) {
    const x = 1 - Math.abs(first[r]! - a) / WIDEST;
    const y = 1 - Math.abs(second[r]! - b) / WIDEST;
    const one = x === x ? (x > LEAST_ALIKE ? x : 0) : NaN;
    const other = y === y ? (y > LEAST_ALIKE ? y : 0) : NaN;
    scores[r] = one === one ? (other === other ? (one + other) / 2 : one) : other;
  }
  return scores;
}

const KM_A_DEGREE = 111.2;
/** Kilometres at which nearness has fallen to a third. */
const REACH_KM = 120;
/** Beyond it, where nearness is under two in a hundred, it is nothing. */
const FAR_KM = 480;
const SAME_REGION = 0.5;
const SAME_COUNTRY = 0.25;

/** How near a record is to the one seed, or how many of the seeds its region has. NaN where its place is unknown; null where all seeds' are. */
export function placePart(
  { country, region, lat, lon }: PlaceColumn,
  seeds: readonly number[],
  size: number,
): Float32Array | null {
  const regions = shares(region.values, region.dictionary.length, seeds);
  const countries = shares(country.values, country.dictionary.length, seeds);
  if (countries.every((share) => share === 0)) return null;
  const [seed] = seeds;
  const alone = seeds.length === 1 && !Number.isNaN(lat[seed!]!);
  const inCountry = countries.map((share) => SAME_COUNTRY * share);
  const inRegion = regions.map((share) => SAME_REGION * share * (alone ? 1 : 2));
  const scores = new Float32Array(size);
  for (let r = 0; r < size; r++) {
    const at = country.values[r]!;
    scores[r] = at === 0 ? NaN : Math.min(1, Math.max(inCountry[at]!, inRegion[region.values[r]!]!));
  }
  if (!alone) return scores;
  const [far, narrow] = [FAR_KM / KM_A_DEGREE, Math.cos((lat[seed!]! * Math.PI) / 180)];
  for (let r = 0; r < size; r++) {
    const y = lat[r]! - lat[seed!]!;
    const x = (lon[r]! - lon[seed!]!) * narrow;
    const square = x * x + y * y;
    // Not where the place is unknown, which is near nothing.
    if (!(square < far * far)) continue;
    const near = Math.exp((-KM_A_DEGREE * Math.sqrt(square)) / REACH_KM);
    if (near > scores[r]!) scores[r] = near;
  }
  return scores;
}

/** How many of the seeds have each value, in relation to the one that most have. */
function shares(values: ArrayLike<number>, count: number, seeds: readonly number[]): Float64Array {
  const found = new Float64Array(count + 1);
  for (const r of seeds) found[values[r]!]!++;
  found[0] = 0;
  const most = Math.max(1, ...found);
  return found.map((n) => n / most);
}

/** How much of the sales of each record goes the seeds' ways, from 0 to 1. NaN where unknown; null where all seeds' are. */
export function channelsPart(
  column: KeyedColumn,
  seeds: readonly number[],
  size: number,
): Float32Array | null {
  const known = seeds.filter((r) => hasBit(column.known, r));
  if (known.length === 0) return null;
  const scores = new Float32Array(size);
  for (let r = 0; r < size; r++) if (!hasBit(column.known, r)) scores[r] = NaN;
  const seeded = new Set(known);
  column.keys.forEach((_, k) => {
    let own = 0;
    for (let i = column.starts[k]!; i < column.starts[k + 1]!; i++)
      if (seeded.has(column.records[i]!)) own += column.values[i]! / known.length;
    for (let i = column.starts[k]!; i < column.starts[k + 1]!; i++)
      scores[column.records[i]!]! += Math.min(own, column.values[i]!) / 100;
  });
  return scores;
}
