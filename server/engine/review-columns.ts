import type { Keys } from '../../core/tally/order.ts';
import type { Tape } from '../../core/tape/nodes.ts';

/** What is reckoned of the members of a list, for going through them. */
export interface ReviewColumns {
  /** A figure by record: how alike it is to those judged in, as log-odds, or how much there is to doubt, from 0 to 100. NaN off the list and where nothing can be told. */
  figures(tape: Pick<Tape, 'lines' | 'subject'>, list: string, part: 'likeness' | 'doubt'): Keys;
  /** What there is to doubt of some records, in words; null off the list. */
  doubts(tape: Pick<Tape, 'lines' | 'subject'>, list: string, records: Uint32Array): (string | null)[];
}
