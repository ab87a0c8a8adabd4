import { dayOf } from '../core/dates.ts';
import type { Chance } from './random.ts';

/** The day the demo's data speaks of. */
export const DEMO_AS_OF = '2026-09-30';
const AS_OF = dayOf(DEMO_AS_OF)!;

/** A day the record was last checked: mostly of the past two years, some long stale. */
export function checkedDay(chance: Chance, meanDays: number): number {
  return AS_OF - Math.min(2600, Math.floor(-meanDays * Math.log(1 - chance.next())));
}
