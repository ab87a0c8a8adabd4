import type { Plan } from '../tables/runs/plans.ts';
import type { Carrier, RunRow } from '../tables/runs/runs.ts';

/** What carrying out a run is given. */
export interface Errand {
  plan: Plan;
  run: RunRow;
  /** Notes what happens, in words. */
  say(text: string): void;
  /** Notes what does the work elsewhere. */
  carriedBy(carrier: Carrier): void;
  /** Whether somebody has asked that it be left. */
  left(): boolean;
}

/** Thrown where somebody asked that a run be left. */
export class Left extends Error {}

/** @throws Left where somebody asked for it */
export function stopIfLeft({ left }: Pick<Errand, 'left'>): void {
  if (left()) throw new Left();
}
