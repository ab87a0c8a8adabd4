import type { CarriedCounts } from '../../../contract/lists.ts';
import { countBits, countBoth, hasBit, type Bits } from '../../../core/tally/bits.ts';
import type { ListColumn } from '../../../core/tally/columns.ts';
import type { ListTest } from '../../../core/tape/nodes.ts';

/** Values of a heading that a picker offers; of more of them words are asked. */
const MOST_OFFERED = 300;

/**
 * What files say under a heading of the members that a test on lists asks for, whatever it asks of that heading: each value with the records
 * of a context that choosing it leaves, the commonest first, and the ends of the numbers.
 */
export function carriedCounts(
  column: ListColumn,
  { carried: _asked, ...test }: ListTest,
  heading: string,
  context: Bits,
): CarriedCounts & Record<string, unknown> {
  const values = new Map<string, { label: string; records: Set<number> }>();
  const known = new Set<number>();
  let [low, high] = [Infinity, -Infinity];
  for (const { record, text, folded, number } of column.said(test, heading)) {
    if (!hasBit(context, record)) continue;
    known.add(record);
    const value = values.get(folded);
    if (value) value.records.add(record);
    else values.set(folded, { label: text.trim(), records: new Set([record]) });
    if (number === null) continue;
    low = Math.min(low, number);
    high = Math.max(high, number);
  }
  const members = column.find(test).yes;
  return {
    total: countBits(context),
    values: [...values]
      .map(([key, { label, records }]) => ({ key, label, count: records.size }))
      .sort((a, b) => b.count - a.count || (a.key < b.key ? -1 : 1))
      .slice(0, MOST_OFFERED),
    known: known.size,
    unknown: countBoth(members, context) - known.size,
    low: Number.isFinite(low) ? low : null,
    high: Number.isFinite(high) ? high : null,
  };
}
