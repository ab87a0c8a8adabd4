import { noBits, setBit, type Bits } from './bits.ts';
import { Basis, NO_DAY, REASONS, type DateColumn, type RangeColumn, type RangeIndex } from './columns.ts';
import { orderBy } from './order.ts';
import { addRecords } from './sorted.ts';

/** Arrays that the index is made of. */
export interface NewArrays {
  uint32(length: number): Uint32Array;
  float64(length: number): Float64Array;
}

export type UnindexedRange = Omit<RangeColumn, 'index'>;

/** One record in so many makes a run worth a set of its members. */
const FEW = 16;

/** Builds the index. The currencies and years of money are kept apart. */
export function rangeIndex(column: UnindexedRange, make: NewArrays): RangeIndex {
  const { low, high, rangeLow, rangeHigh, basis, why } = column;
  const currencyOf = (r: number) => column.currency?.[r] ?? 0;
  const yearOf = (r: number) => (column.currency ? column.year[r]! : 0);
  const size = basis.length;
  const words = noBits(size).length;
  const unknown = make.uint32(words);
  const estimated = make.uint32(words);
  const reasons: (Bits | null)[] = REASONS.map(() => null);
  const single = new Float64Array(size).fill(NaN);
  let singles = 0;
  const bandOf = new Map<
    string,
    Omit<RangeIndex['bands'][number], 'start' | 'end'> & { records: number[] }
  >();
  for (let r = 0; r < size; r++) {
    if (basis[r] === Basis.Unknown) {
      setBit(unknown, r);
      setBit((reasons[why[r]!] ??= make.uint32(words)), r);
      continue;
    }
    if (basis[r] === Basis.Estimate) setBit(estimated, r);
    if (low[r] === high[r]) {
      single[r] = low[r]!;
      singles++;
      continue;
    }
    const [currency, year] = [currencyOf(r), yearOf(r)];
    const key = `${currency} ${year} ${low[r]} ${high[r]}`;
    const band = bandOf.get(key);
    if (band) band.records.push(r);
    else bandOf.set(key, { currency, year, low: low[r]!, high: high[r]!, records: [r] });
  }

  const order = orderBy([{ keys: single, descending: false }], size).subarray(0, singles);
  // The basis first, so that estimates come last.
  const runOf = (r: number) => (basis[r]! << 24) | (currencyOf(r) << 16) | yearOf(r);
  const counts = new Map<number, number>();
  for (const r of order) counts.set(runOf(r), (counts.get(runOf(r)) ?? 0) + 1);
  const runs: RangeIndex['runs'] = [];
  const next = new Map<number, number>();
  let start = 0;
  for (const [run, count] of [...counts].sort((a, b) => a[0] - b[0])) {
    runs.push({
      basis: run >> 24,
      currency: (run >> 16) & 0xff,
      year: run & 0xffff,
      start,
      end: start + count,
      members: count * FEW < size ? null : make.uint32(words),
    });
    next.set(run, start);
    start += count;
  }
  const values = make.float64(singles);
  const records = make.uint32(singles);
  for (const r of order) {
    const at = next.get(runOf(r))!;
    next.set(runOf(r), at + 1);
    values[at] = single[r]!;
    records[at] = r;
  }

  for (const { start, end, members } of runs) if (members) addRecords(members, records, start, end);
  const firstEstimate = runs.find((run) => run.basis === Basis.Estimate)?.start ?? singles;
  const lows = make.float64(singles - firstEstimate);
  const highs = make.float64(singles - firstEstimate);
  for (let i = firstEstimate; i < singles; i++) {
    lows[i - firstEstimate] = rangeLow[records[i]!]!;
    highs[i - firstEstimate] = rangeHigh[records[i]!]!;
  }

  const bands: RangeIndex['bands'] = [];
  let banded = 0;
  for (const band of bandOf.values()) banded += band.records.length;
  const bandRecords = make.uint32(banded);
  let at = 0;
  for (const { records: members, ...band } of bandOf.values()) {
    bandRecords.set(members, at);
    bands.push({ ...band, start: at, end: (at += members.length) });
  }
  return {
    runs,
    values,
    records,
    firstEstimate,
    rangeLow: lows,
    rangeHigh: highs,
    bands,
    bandRecords,
    unknown,
    reasons,
    estimated,
  };
}

/** The days of a date column in order. */
export function dateIndex(days: Int32Array, make: NewArrays): Omit<DateColumn, 'kind' | 'days'> {
  const keys = new Float64Array(days.length).fill(NaN);
  const undated = make.uint32(noBits(days.length).length);
  let dated = 0;
  for (let r = 0; r < days.length; r++)
    if (days[r] === NO_DAY) setBit(undated, r);
    else {
      keys[r] = days[r]!;
      dated++;
    }
  const records = make.uint32(dated);
  records.set(orderBy([{ keys, descending: false }], days.length).subarray(0, dated));
  return { records, undated };
}
