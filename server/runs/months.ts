import { isoOf } from '../../core/dates.ts';
import type { Db } from '../db/open.ts';
import { sourceByKey } from '../tables/source.ts';

/** The months of the demo's scenario. */

/** The source that the scenario's next versions are of. */
export const MONTHLY_SOURCE = 'register-extract';
/** Licence that marks sources of the demo. */
const MADE_UP = 'made up for the demo';

/** The month that the scenario comes to next, such as 2026-10; null where the universe is not the demo's. */
export function nextMonthOf(universe: Db): string | null {
  const source = sourceByKey(universe, MONTHLY_SOURCE);
  if (source?.licence !== MADE_UP) return null;
  const [year, month] = isoOf(source.as_of).split('-').map(Number) as [number, number];
  return month === 12 ? `${year + 1}-01` : `${year}-${String(month + 1).padStart(2, '0')}`;
}
