import type { Services } from '../../services.ts';
import type { Plan } from '../../tables/runs/plans.ts';
import type { Carrier, RunRow } from '../../tables/runs/runs.ts';

/** How each kind of plan is carried out. */

/** What carrying out a run is given beside the plan. */
export interface Errand {
  services: Services;
  plan: Plan;
  run: RunRow;
  /** Notes what happens, in words. */
  say(text: string): void;
  /** Notes what does the work elsewhere. */
  carriedBy(carrier: Carrier): void;
  /** Whether somebody has asked that it be left. */
  left(): boolean;
}

/** What came of it, in a few words. @throws Error with what went wrong */
export type Carry = (errand: Errand) => Promise<string>;

/** Thrown where somebody asked that a run be left. */
export class Left extends Error {}

export function stopIfLeft({ left }: Pick<Errand, 'left'>): void {
  if (left()) throw new Left();
}
