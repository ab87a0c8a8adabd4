import type { Bits } from './bits.ts';

/** The first position from `start` up to below `end` whose value is not under `limit`; `end` where there is none. */
export function firstAtLeast(values: ArrayLike<number>, limit: number, start: number, end: number): number {
  while (start < end) {
    const middle = (start + end) >>> 1;
    if (values[middle]! < limit) start = middle + 1;
    else end = middle;
  }
  return start;
}

/** The first position from `start` up to below `end` whose value is above `limit`; `end` where there is none. */
export function firstAbove(values: ArrayLike<number>, limit: number, start: number, end: number): number {
  while (start < end) {
    const middle = (start + end) >>> 1;
    if (values[middle]! > limit) end = middle;
    else start = middle + 1;
  }
  return start;
}

/** Adds a stretch of records to a set. */
export function addRecords(bits: Bits, records: Uint32Array, start: number, end: number): void {
  for (let i = start; i < end; i++) {
    const r = records[i]!;
    bits[r >> 5]! |= 1 << (r & 31);
  }
}

/** Takes a stretch of records out of a set. */
export function dropRecords(bits: Bits, records: Uint32Array, start: number, end: number): void {
  for (let i = start; i < end; i++) {
    const r = records[i]!;
    bits[r >> 5]! &= ~(1 << (r & 31));
  }
}

/** How many of a stretch of records are in a set. */
export function countRecords(bits: Bits, records: Uint32Array, start: number, end: number): number {
  let count = 0;
  for (let i = start; i < end; i++) {
    const r = records[i]!;
    count += (bits[r >> 5]! >>> (r & 31)) & 1;
  }
  return count;
}
