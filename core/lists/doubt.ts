/**
 * How much there is to doubt of a member of a list before anybody has looked at it: the mean, in percent, of those of four
 * shares that can be told. It orders what to look at first; it is no probability.
 */
export interface Doubts {
  /** Fields of which nothing is known, of how many that the universe knows of anybody. */
  blank: { unknown: number; of: number };
  /** Months since the record was last checked; null where that is not known, or not asked of the subject. */
  months: number | null;
  /** Lines of the tapes that put it on the list which cannot be sure of it, of how many there are. */
  unsure: { lines: readonly string[]; of: number };
  /** Judged members of its kind that are out, of how many. */
  misses: { out: number; of: number };
}

/** A record that was not checked for so long may as well never have been. */
const STALE_MONTHS = 36;
/** Judged members of a kind, below which nothing is said of it. */
export const FEW_JUDGED = 3;

/** From 0 to 100; null where nothing can be told. */
export function doubtOf({ blank, months, unsure, misses }: Doubts): number | null {
  const shares = [
    ...(blank.of > 0 ? [blank.unknown / blank.of] : []),
    ...(months === null ? [] : [Math.min(1, months / STALE_MONTHS)]),
    ...(unsure.of > 0 ? [unsure.lines.length / unsure.of] : []),
    ...(misses.of >= FEW_JUDGED ? [misses.out / misses.of] : []),
  ];
  if (shares.length === 0) return null;
  return Math.round((100 * shares.reduce((sum, one) => sum + one, 0)) / shares.length);
}

/** What there is to doubt, in words, the unsure lines first. */
export function wordDoubts({ blank, months, unsure, misses }: Doubts): string {
  return [
    ...unsure.lines.map((words) => `unsure: ${words}`),
    ...(misses.of >= FEW_JUDGED && misses.out > 0
      ? [`${misses.out} of ${misses.of} judged of its kind are out`]
      : []),
    ...(months !== null && months > 0 ? [`checked ${months} ${months === 1 ? 'month' : 'months'} ago`] : []),
    ...(blank.unknown > 0 ? [`${blank.unknown} of ${blank.of} fields not known`] : []),
  ].join('; ');
}
