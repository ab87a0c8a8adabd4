import { recordsOf, type Bits } from '../tally/bits.ts';
import { allocation } from './accuracy.ts';

/** A part of what is sampled: records with the same value of a field, or all of them. */
export interface DrawnStratum {
  key: string;
  label: string;
  size: number;
}

export interface Drawn {
  /** Records of the sample in the order of the draw, each with its stratum by place. */
  records: { record: number; stratum: number }[];
  strata: DrawnStratum[];
}

/** A number of 32 bits for an id under a seed, as good as drawn (mixing steps of MurmurHash3, A. Appleby, public domain). */
export function lotOf(id: number, seed: number): number {
  let h = Math.imul(id ^ Math.imul(seed, 0x9e3779b1), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  return (h ^ (h >>> 15)) >>> 0;
}

/**
 * Draws a sample of some records without putting back, so many of each stratum as its share of all. The same seed draws the same
 * whatever the order of the records, and a larger sample goes on from a smaller one. `stratumOf` gives the place of a record's
 * stratum in `strata`; `ids` are numbers of the records that stay theirs.
 */
export function drawSample(
  kept: Bits,
  ids: Uint32Array,
  size: number,
  seed: number,
  stratumOf: (record: number) => number,
  strata: readonly { key: string; label: string }[],
): Drawn {
  const records = recordsOf(kept);
  const sizes = strata.map(() => 0);
  for (const record of records) sizes[stratumOf(record)]!++;
  const room = allocation(sizes, size);
  const best = strata.map((): Ticket[] => []);
  for (const record of records) {
    const stratum = stratumOf(record);
    const own = best[stratum]!;
    own.push({ record, stratum, lot: lotOf(ids[record]!, seed) });
    if (own.length >= 4 * room[stratum]! + SPARE) keepLeast(own, room[stratum]!);
  }
  best.forEach((own, stratum) => keepLeast(own, room[stratum]!));
  return { records: best.flat().sort(byLot), strata: strata.map((one, i) => ({ ...one, size: sizes[i]! })) };
}

interface Ticket {
  record: number;
  stratum: number;
  lot: number;
}

/** Tickets held beyond those needed, so that they need not be sorted at each. */
const SPARE = 64;

function byLot(a: Ticket, b: Ticket): number {
  return a.lot - b.lot || a.record - b.record;
}

function keepLeast(tickets: Ticket[], count: number): void {
  tickets.sort(byLot);
  tickets.length = Math.min(tickets.length, count);
}
