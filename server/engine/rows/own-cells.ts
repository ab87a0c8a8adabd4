import type { Cell } from '../../../core/cells.ts';

/** Values of columns that no table has, beside some ids: from how much to how much, NaN where unknown; or texts, or several of them. */
export type OwnColumns = Record<
  string,
  { low: Float64Array; high: Float64Array } | { texts: (string | null)[] } | { lists: string[][] }
>;

export const KNOWN = 'whom-we-know';

/** The cell of a column that no table has. */
export function ownCell(column: string, values: OwnColumns[string], i: number): Cell {
  if ('texts' in values) return values.texts[i] ?? null;
  if ('lists' in values) return values.lists[i] ?? [];
  const { low, high } = values;
  if (Number.isNaN(low[i]!)) return null;
  if (column === KNOWN) return low[i] === 1 ? 'yes' : 'no';
  if (low[i] === high[i]) return low[i]!;
  return { basis: 'band', low: low[i]!, high: high[i]!, amount: null, year: null };
}
