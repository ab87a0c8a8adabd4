import { scaleTo } from './amounts.ts';
import { hasBit, type Bits } from './bits.ts';
import {
  Basis,
  NO_DAY,
  type CategoryColumn,
  type CodesColumn,
  type Column,
  type ManyColumn,
} from './columns.ts';
import type { Scheme } from '../codes/tree.ts';

/** Sort keys of one field: a number per record, NaN where unknown. */
export type Keys = Float64Array;

/** The sort keys that a column gives by itself. Money orders by what it is in euros, bands by their lower end, codes by the main one of the first scheme that has one. */
export function keysOf(column: Column, size: number): Keys {
  const keys = new Float64Array(size).fill(NaN);
  if (column instanceof Map) {
    codesKeys(column, keys);
    return keys;
  }
  switch (column.kind) {
    case 'category':
      categoryKeys(column, keys);
      break;
    case 'place':
      categoryKeys(column.town, keys);
      break;
    case 'range': {
      const scale = scaleTo(column, 'EUR');
      for (let r = 0; r < size; r++)
        if (column.basis[r] !== Basis.Unknown) keys[r] = scale(column.low[r]!, r);
      break;
    }
    case 'date':
      for (let r = 0; r < size; r++) if (column.days[r] !== NO_DAY) keys[r] = column.days[r]!;
      break;
    case 'many':
      firstOfManyKeys(column, keys);
      break;
    case 'keyed':
    case 'list':
    case 'known':
    case 'text':
    case 'key':
      break;
  }
  return keys;
}

/** Of several values the first by the alphabet decides. */
function firstOfManyKeys({ dictionary, offsets, values }: ManyColumn, keys: Keys): void {
  const rank = alphabetRanks(dictionary);
  for (let r = 0; r < keys.length; r++)
    for (let i = offsets[r]!; i < offsets[r + 1]!; i++) {
      const own = rank[values[i]!]!;
      if (!(own >= keys[r]!)) keys[r] = own;
    }
}

function alphabetRanks(dictionary: readonly string[]): Float64Array {
  const ranks = new Float64Array(dictionary.length);
  dictionary
    .map((text, i) => ({ text, i }))
    .sort((a, b) => (a.text < b.text ? -1 : a.text > b.text ? 1 : 0))
    .forEach(({ i }, at) => (ranks[i] = at));
  return ranks;
}

function categoryKeys({ dictionary, values }: CategoryColumn, keys: Keys): void {
  const rank = alphabetRanks(dictionary);
  for (let r = 0; r < keys.length; r++) if (values[r] !== 0) keys[r] = rank[values[r]! - 1]!;
}

function codesKeys(schemes: Map<Scheme, CodesColumn>, keys: Keys): void {
  let base = 0;
  for (const column of schemes.values()) {
    for (let r = 0; r < keys.length; r++)
      if (Number.isNaN(keys[r]!) && hasBit(column.hasMain, r))
        keys[r] = base + column.nodes[column.offsets[r]!]!;
    base += 0x10000;
  }
}

/** Characters of a text that are packed into a number; 7 bits each, they fill the 53 that a double holds exactly. */
const PACKED = 7;

/**
 * Sort keys of ASCII texts, as `fold` makes them: records of equal texts have equal keys. The first
 * characters are packed into a number and sorted as numbers; only texts alike in those are compared.
 */
export function textKeys(texts: readonly (string | null)[]): Keys {
  const prefixes = new Float64Array(texts.length).fill(NaN);
  for (let r = 0; r < texts.length; r++) {
    const text = texts[r];
    if (text === null || text === undefined) continue;
    let packed = 0;
    for (let i = 0; i < PACKED; i++)
      packed = packed * 128 + (i < text.length ? Math.min(127, text.charCodeAt(i)) : 0);
    prefixes[r] = packed;
  }
  const order = orderBy([{ keys: prefixes, descending: false }], texts.length);
  const keys = new Float64Array(texts.length).fill(NaN);
  for (let start = 0, end; start < order.length; start = end) {
    const prefix = prefixes[order[start]!]!;
    if (Number.isNaN(prefix)) break;
    end = start + 1;
    while (end < order.length && prefixes[order[end]!] === prefix) end++;
    const alike = end - start > 1 ? order.subarray(start, end) : null;
    alike?.sort((a, b) => (texts[a]! < texts[b]! ? -1 : texts[a]! > texts[b]! ? 1 : a - b));
    for (let i = start; i < end; i++)
      keys[order[i]!] = i > start && texts[order[i]!] === texts[order[i - 1]!] ? keys[order[i - 1]!]! : i;
  }
  return keys;
}

/**
 * All records in the order of some keys, the first key weighing most. Unknown comes last in either
 * direction, ties keep the order of the records.
 */
export function orderBy(sorts: readonly { keys: Keys; descending: boolean }[], size: number): Uint32Array {
  let order: Uint32Array = new Uint32Array(size);
  for (let r = 0; r < size; r++) order[r] = r;
  for (const { keys, descending } of sorts.toReversed()) order = sortedBy(order, keys, descending);
  return order;
}

/** Bits of a key that one pass sorts by. */
const DIGIT_BITS = 16;
const DIGITS = 1 << DIGIT_BITS;

/**
 * A stable radix sort, least digit first. The bits of a double order like the number itself once
 * negative ones are turned over; passes in which all keys share one digit are left out.
 */
function sortedBy(order: Uint32Array, keys: Keys, descending: boolean): Uint32Array {
  const size = order.length;
  const known = order.filter((r) => !Number.isNaN(keys[r]!));
  const flipped = new Uint32Array(2);
  const double = new Float64Array(flipped.buffer);
  const low = new Uint32Array(known.length);
  const high = new Uint32Array(known.length);
  for (let i = 0; i < known.length; i++) {
    // Adding 0 turns -0 into 0.
    double[0] = keys[known[i]!]! + 0;
    const turn = flipped[1]! >>> 31 === 1 ? 0xffffffff : 0;
    low[i] = flipped[0]! ^ turn ^ (descending ? 0xffffffff : 0);
    high[i] = flipped[1]! ^ (turn | 0x80000000) ^ (descending ? 0xffffffff : 0);
  }
  let from = Uint32Array.from(known.keys());
  let to = new Uint32Array(known.length);
  const starts = new Uint32Array(DIGITS + 1);
  for (const [half, shift] of [
    [low, 0],
    [low, DIGIT_BITS],
    [high, 0],
    [high, DIGIT_BITS],
  ] as const) {
    starts.fill(0);
    for (let i = 0; i < half.length; i++) starts[((half[i]! >>> shift) & (DIGITS - 1)) + 1]!++;
    if (known.length > 0 && starts[((half[0]! >>> shift) & (DIGITS - 1)) + 1] === known.length) continue;
    for (let d = 0; d < DIGITS; d++) starts[d + 1]! += starts[d]!;
    for (let i = 0; i < from.length; i++) {
      const at = from[i]!;
      to[starts[(half[at]! >>> shift) & (DIGITS - 1)]!++] = at;
    }
    [from, to] = [to, from];
  }
  const sorted = new Uint32Array(size);
  for (let i = 0; i < from.length; i++) sorted[i] = known[from[i]!]!;
  let at = known.length;
  if (at < size) for (let i = 0; i < size; i++) if (Number.isNaN(keys[order[i]!]!)) sorted[at++] = order[i]!;
  return sorted;
}

/** The kept records in an order. */
export function keptInOrder(order: Uint32Array, kept: Bits, count: number): Uint32Array {
  const records = new Uint32Array(count);
  let at = 0;
  for (let i = 0; i < order.length; i++) {
    const r = order[i]!;
    if ((kept[r >> 5]! >>> (r & 31)) & 1) records[at++] = r;
  }
  return records;
}
