import { countBits, countBoth, type Bits } from './bits.ts';
import type { Histogram } from './counts.ts';
import type { KeyedColumn, ListColumn } from './columns.ts';
import { countRecords, firstAtLeast } from './sorted.ts';

/** Records of a context that have a figure above 0 under each key, in the order of the column's keys. */
export function countKeys(
  { keys, starts, records, values }: KeyedColumn,
  context: Bits,
): Map<string, number> {
  return new Map(
    keys.map((key, k) => {
      const end = starts[k + 1]!;
      const first = firstAtLeast(values, Number.MIN_VALUE, starts[k]!, end);
      return [key, countRecords(context, records, first, end)];
    }),
  );
}

/** The figures under one key as a histogram; the first bar holds all below the second edge, the last is open. */
export function keyedHistogram(
  column: KeyedColumn,
  key: string,
  absent: 0 | null,
  context: Bits,
  edges: number[],
): Histogram {
  const { keys, starts, records, values, known } = column;
  const counts = new Uint32Array(edges.length);
  const k = keys.indexOf(key);
  const [start, end] = k < 0 ? [0, 0] : [starts[k]!, starts[k + 1]!];
  let from = start;
  for (let bar = 0; bar < edges.length; bar++) {
    const to = bar + 1 < edges.length ? firstAtLeast(values, edges[bar + 1]!, from, end) : end;
    counts[bar] = countRecords(context, records, from, to);
    from = to;
  }
  const members = countRecords(context, records, start, end);
  const total = countBits(context);
  if (absent === null) return histogram(edges, counts, total - members);
  const recorded = countBoth(known, context);
  counts[
    Math.max(
      0,
      edges.findLastIndex((edge) => edge <= absent),
    )
  ]! += recorded - members;
  return histogram(edges, counts, total - recorded);
}

function histogram(edges: number[], counts: Uint32Array, unknown: number): Histogram {
  return { edges, counts, estimated: new Uint32Array(edges.length), banded: 0, unknown, reasons: {} };
}

/** Members of each list, with verdict in, among the records of a context. */
export function countLists({ lists }: ListColumn, context: Bits): Map<string, number> {
  return new Map([...lists].map(([key, members]) => [key, countBoth(members.in, context)]));
}
