import type { Bits } from './bits.ts';
import type { Postings, SmallNumbers } from './columns.ts';

/** Turns values by record round into records by value: a counting sort, so records of a value stay ascending. */
export function postingsOf(
  offsets: Uint32Array,
  values: SmallNumbers,
  valueCount: number,
  newArray: (length: number) => Uint32Array,
): Postings {
  const starts = newArray(valueCount + 1);
  const size = offsets.length - 1;
  const end = offsets[size]!;
  for (let i = 0; i < end; i++) starts[values[i]! + 1]!++;
  for (let v = 0; v < valueCount; v++) starts[v + 1]! += starts[v]!;
  const next = starts.slice();
  const records = newArray(end);
  for (let r = 0; r < size; r++)
    for (let i = offsets[r]!; i < offsets[r + 1]!; i++) records[next[values[i]!]!++] = r;
  return { starts, records };
}

/** Adds the records of one value to a set. */
export function addPostings(bits: Bits, { starts, records }: Postings, value: number): void {
  const end = starts[value + 1]!;
  for (let i = starts[value]!; i < end; i++) {
    const r = records[i]!;
    bits[r >> 5]! |= 1 << (r & 31);
  }
}
