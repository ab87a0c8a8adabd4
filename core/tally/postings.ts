import type { Bits } from './bits.ts';
import type { Postings, SmallNumbers } from './columns.ts';
import { addRecords } from './sorted.ts';

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

/** The same for records with one value each. */
export function postingsOfOne(
  values: SmallNumbers,
  valueCount: number,
  newArray: (length: number) => Uint32Array,
): Postings {
  const starts = newArray(valueCount + 1);
  for (let r = 0; r < values.length; r++) starts[values[r]! + 1]!++;
  for (let v = 0; v < valueCount; v++) starts[v + 1]! += starts[v]!;
  const next = starts.slice();
  const records = newArray(values.length);
  for (let r = 0; r < values.length; r++) records[next[values[r]!]!++] = r;
  return { starts, records };
}

/** Adds the records of one value to a set. */
export function addPostings(bits: Bits, { starts, records }: Postings, value: number): void {
  addRecords(bits, records, starts[value]!, starts[value + 1]!);
}
