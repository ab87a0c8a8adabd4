import type { Services } from '../../services.ts';
import type { Errand } from '../errand.ts';

/** An errand with all that it may need. */
export interface OwnErrand extends Errand {
  services: Services;
}

/** How a kind of plan is carried out: what came of it, in a few words. @throws Error with what went wrong, Left */
export type Carry = (errand: OwnErrand) => Promise<string>;
