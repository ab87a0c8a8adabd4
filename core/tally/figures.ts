import type { Field, Store } from '../fields/field.ts';
import { scaleTo, type Scale } from './amounts.ts';
import { Basis, type KeyedColumn, type RangeColumn, type Universe } from './columns.ts';
import { keyedValues } from './test-keyed.ts';

/** The figures of one field by record, in the unit they are shown in. */
export interface Figures {
  /** NaN where unknown, banded, or without a rate. Estimates stand by their point. */
  values: Float64Array;
  /** What the figures rest on and, for bands, from where to where they go; null where all that are known are exact. */
  column: RangeColumn | null;
  /** Turns a figure of a record into the shown unit. */
  scale: Scale;
}

/**
 * The figures of a number, money, keyed or growth field. Money is in `currency` at the rate of each value's year; years that a field counts from `now` are turned into years passed.
 */
export function figuresOf(
  universe: Universe,
  field: Field,
  key: string | undefined,
  currency: string,
  now: number,
): Figures {
  const column = universe.columns.get(field.yearsSince ?? field.id) as RangeColumn | KeyedColumn;
  if (column.kind === 'keyed') {
    const { absent } = field.store as Extract<Store, { at: 'keyed' }>;
    return {
      values: keyedValues(column, key!, absent, universe.size),
      column: null,
      scale: (value) => value,
    };
  }
  const scale: Scale = field.yearsSince ? (value) => now - value : scaleTo(column, currency);
  const values = new Float64Array(universe.size).fill(NaN);
  const { basis, low } = column;
  for (let r = 0; r < values.length; r++)
    if (basis[r] === Basis.Reported || basis[r] === Basis.Estimate) values[r] = scale(low[r]!, r);
  return { values, column, scale };
}
