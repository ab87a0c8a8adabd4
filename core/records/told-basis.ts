import { REASONS, type Reason } from '../tally/columns.ts';
import { BASIS_WORDS } from '../values/category-words.ts';
import { oneOf } from '../values/cell.ts';
import { readQuantity } from '../values/figures.ts';
import type { Quantity } from './record.ts';

/** Columns that say how a figure beside them is known, or why it is not. */

/** What a column says of a figure: how it is known, or why it is not. */
export interface ToldBasis {
  basis?: Quantity['basis'];
  why?: Reason;
  /** Of an estimate: where it lies. */
  range?: Quantity;
}

/** A figure with what columns of its own say of it: the ends of its band or of its estimate's range, and whether it is one. */
export function withEnds(
  figure: Quantity | null,
  from: Quantity | null | undefined,
  to: Quantity | null | undefined,
  told: ToldBasis | null,
): Quantity | null {
  const low = from?.low ?? null;
  const high = to?.high ?? null;
  if (figure === null) {
    if (low === null && high === null) return null;
    const band: Quantity = { basis: 'band', low: low ?? 0, high: high ?? Infinity, point: null };
    if (band.low > band.high) return null;
    return band.low === band.high ? { ...band, basis: 'reported', point: band.low } : band;
  }
  if (told?.basis !== 'estimate' || figure.point === null) return figure;
  const point = figure.point;
  const ends = {
    low: Math.min(low ?? told.range?.low ?? figure.low, point),
    high: Math.max(high ?? told.range?.high ?? figure.high, point),
  };
  return { basis: 'estimate', ...ends, point };
}

/** "band", "estimate (70-110)" as exports write it, "unknown: withheld". @throws CellError */
export function readBasis(cell: string): ToldBasis {
  // Nothing more is said by that than by an empty cell.
  if (/^unknown:/i.test(cell)) {
    const why = readReason(cell.slice(cell.indexOf(':') + 1).trim());
    return why === 'not collected' ? {} : { why };
  }
  const at = cell.indexOf(' (');
  if (at > 0 && cell.endsWith(')')) {
    const range = readQuantity(cell.slice(at + 2, -1), { decimal: '.', belowZero: true });
    return { basis: oneOf(BASIS_WORDS(cell.slice(0, at)), 'estimate (70-110)'), range };
  }
  return { basis: oneOf(BASIS_WORDS(cell), 'reported, estimate or band') };
}

/** Why a figure is unknown, as its column says. @throws CellError */
export function readReason(cell: string): Reason {
  return oneOf(
    REASONS.find((one) => one === cell.toLowerCase()),
    `one of ${REASONS.join(', ')}`,
  );
}
