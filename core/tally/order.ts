import { hasBit, type Bits } from './bits.ts';
import { Basis, NO_DAY, type CategoryColumn, type CodesColumn, type Column } from './columns.ts';
import type { Scheme } from '../codes/tree.ts';

/** Sort keys of one field: a number per record, NaN where unknown. */
export type Keys = Float64Array;

/** The sort keys that a column gives by itself. Bands order by their lower end, codes by the main one of the first scheme that has one. */
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
    case 'range':
      for (let r = 0; r < size; r++) if (column.basis[r] !== Basis.Unknown) keys[r] = column.low[r]!;
      break;
    case 'date':
      for (let r = 0; r < size; r++) if (column.days[r] !== NO_DAY) keys[r] = column.days[r]!;
      break;
    case 'many':
    case 'text':
      break;
  }
  return keys;
}

function categoryKeys(column: CategoryColumn, keys: Keys): void {
  const sorted = column.dictionary
    .map((text, i) => ({ text, i }))
    .sort((a, b) => (a.text < b.text ? -1 : a.text > b.text ? 1 : 0));
  const rank = new Float64Array(column.dictionary.length + 1);
  rank[0] = NaN;
  sorted.forEach(({ i }, at) => (rank[i + 1] = at));
  for (let r = 0; r < keys.length; r++) keys[r] = rank[column.values[r]!]!;
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

/**
 * All records in the order of some keys, the first key weighing most. Unknown comes last in either
 * direction, ties keep the order of the records.
 */
export function orderBy(sorts: readonly { keys: Keys; descending: boolean }[], size: number): Uint32Array {
  const order = new Uint32Array(size);
  for (let r = 0; r < size; r++) order[r] = r;
  if (sorts.length === 0) return order;
  return order.sort((a, b) => {
    for (const { keys, descending } of sorts) {
      const one = keys[a]!;
      const other = keys[b]!;
      if (one === other) continue;
      const unknownOne = Number.isNaN(one);
      const unknownOther = Number.isNaN(other);
      if (unknownOne && unknownOther) continue;
      if (unknownOne || unknownOther) return unknownOne ? 1 : -1;
      return one < other === descending ? 1 : -1;
    }
    return a - b;
  });
}

/** The kept records from position `offset` of an order, at most `limit`. */
export function orderWindow(order: Uint32Array, kept: Bits, offset: number, limit: number): number[] {
  const window: number[] = [];
  let at = 0;
  for (let i = 0; i < order.length && window.length < limit; i++) {
    const r = order[i]!;
    if (hasBit(kept, r) && at++ >= offset) window.push(r);
  }
  return window;
}
