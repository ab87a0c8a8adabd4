import { FEATURE_NAMES, type Comparison } from './compare.ts';

/** What becomes of a row of a file that is matched. */
export type Outcome = 'sure' | 'doubtful' | 'none';
/** What a sure row is sure by. */
export type SureBy = 'number' | 'domain' | 'name';

/** From which chance on a candidate is sure, and down to which it is worth a look. */
export interface Limits {
  sure: number;
  doubtful: number;
}

/** What is asked of the sure ones unless somebody says otherwise: of a hundred, 99 are right. */
export const PRECISION = 0.99;
const LEAST_DOUBTFUL = 0.1;

const at = (comparison: Comparison, feature: (typeof FEATURE_NAMES)[number]): number =>
  comparison.levels[FEATURE_NAMES.indexOf(feature)]!;

/**
 * What a pair may be sure by, however high its chance: an equal number, an equal domain, or an alike name with a place or phone
 * that agrees. Null where nothing but the name, or nothing at all, speaks for it, and where two numbers of one register differ.
 */
export function sureBy(comparison: Comparison): SureBy | null {
  const number = at(comparison, 'number');
  if (number === 1) return 'number';
  if (number === 3) return null;
  if (at(comparison, 'domain') === 1) return 'domain';
  const name = at(comparison, 'name');
  const place = at(comparison, 'place');
  const phone = at(comparison, 'phone');
  const placed = place >= 1 && place <= 4;
  const called = phone === 1 || phone === 2;
  return name >= 1 && name <= 3 && (placed || called) ? 'name' : null;
}

/**
 * The lowest chance at which those from it on are right in the share asked, by their own chances; but never under a half, where
 * another could be the better.
 */
export function limitsFor(precision: number, chancesOfBest: readonly number[]): Limits {
  const sorted = [...chancesOfBest].sort((a, b) => b - a);
  let sure = 1;
  let sum = 0;
  for (let i = 0; i < sorted.length; i++) {
    sum += sorted[i]!;
    if (sorted[i]! < 0.5 || sum / (i + 1) < precision) break;
    sure = sorted[i]!;
  }
  // With few rows chance alone would set the limit.
  return { sure: Math.min(sure, Math.max(precision, 0.9)), doubtful: LEAST_DOUBTFUL };
}

/** The outcome of a row by its best candidate. */
export function outcomeOf(best: { chance: number; by: SureBy | null } | null, limits: Limits): Outcome {
  if (!best || best.chance < limits.doubtful) return 'none';
  return best.chance >= limits.sure && best.by !== null ? 'sure' : 'doubtful';
}
