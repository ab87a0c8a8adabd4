import type { MoneyTest, NumberTest } from '../tape/nodes.ts';
import { addBits, countBits, countBoth, noBits, recordsOf, setBit, type Bits } from './bits.ts';
import { eachInBar } from './in-bars.ts';
import { countRecords } from './sorted.ts';
import { limitsOf } from './test-range.ts';
import { REASONS, type CategoryColumn, type ManyColumn, type RangeColumn, type Reason } from './columns.ts';

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

/** Records of each value of a many-valued field, and of each group: those with any member. With `since`, values first seen on that day or later. */
export function countMany(
  column: ManyColumn,
  context: Bits,
  groups: ReadonlyMap<string, readonly string[]>,
  since: number | null = null,
): ValueCounts {
  if (since !== null && column.seen) return countSeen(column, column.seen, context, groups, since);
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

/** The same for values first seen on a day or later; one seen on a day nobody noted says nothing. */
function countSeen(
  { dictionary, postings, known }: ManyColumn,
  seen: Int32Array,
  context: Bits,
  groups: ReadonlyMap<string, readonly string[]>,
  since: number,
): ValueCounts {
  const having = dictionary.map((_, v) => {
    const bits = noBits(context.length * 32);
    for (let i = postings.starts[v]!; i < postings.starts[v + 1]!; i++)
      if (seen[i]! >= since) setBit(bits, postings.records[i]!);
    return bits;
  });
  const counts = new Map(dictionary.map((key, v) => [key, countBoth(having[v]!, context)]));
  for (const [group, members] of groups) {
    const any = noBits(context.length * 32);
    for (const key of members) {
      const v = dictionary.indexOf(key);
      if (v >= 0) addBits(any, having[v]!);
    }
    counts.set(group, countBoth(any, context));
  }
  return { counts, unknown: countBits(context) - countBoth(known, context) };
}

/** Records by bars, each of which is the range of a line. */
export interface Histogram {
  /** Records that wholly lie in each bar, estimates by their point. */
  counts: number[];
  /** Of the counts, those that rest on an estimate. */
  estimated: number[];
  /** Records whose value lies in no single bar: wider bands, and figures between the end of a bar and the next. */
  banded: number;
  unknown: number;
  reasons: Partial<Record<Reason, number>>;
}

/** The values of a range column as a histogram: what each of some disjoint ranges keeps of a context. */
export function histogram(
  column: RangeColumn,
  context: Bits,
  bars: readonly (NumberTest | MoneyTest)[],
): Histogram {
  const { index } = column;
  const counts = bars.map(() => 0);
  const estimated = bars.map(() => 0);
  eachInBar(column, bars, (bar, records, start, end, isEstimate) => {
    const count = countRecords(context, records, start, end);
    counts[bar]! += count;
    if (isEstimate) estimated[bar]! += count;
  });
  const reasons: Histogram['reasons'] = {};
  index.reasons.forEach((records, i) => {
    const count = records ? countBoth(records, context) : 0;
    if (count) reasons[REASONS[i]!] = count;
  });
  let unrated = 0;
  const limits = limitsOf(column, bars[0]!);
  for (const { currency, year, start, end } of index.runs)
    if (!limits(currency, year)) unrated += countRecords(context, index.records, start, end);
  for (const { currency, year, start, end } of index.bands)
    if (!limits(currency, year)) unrated += countRecords(context, index.bandRecords, start, end);
  if (unrated) reasons['no exchange rate'] = (reasons['no exchange rate'] ?? 0) + unrated;
  const unknown = countBoth(index.unknown, context) + unrated;
  const inBars = counts.reduce((sum, count) => sum + count, 0);
  return { counts, estimated, banded: countBits(context) - unknown - inBars, unknown, reasons };
}

function named(dictionary: readonly string[], tallies: Uint32Array): Map<string, number> {
  const counts = new Map<string, number>();
  dictionary.forEach((key, i) => counts.set(key, tallies[i]!));
  return counts;
}
