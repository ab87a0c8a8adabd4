import { FEATURE_NAMES, type Comparison } from './compare.ts';

/** What becomes of a row of a file that is matched. */
export type Outcome = 'sure' | 'doubtful' | 'none';
/** What a sure row is sure by. */
export type SureBy = 'key' | 'number' | 'domain' | 'name';

/** The same in words. */
export const SURE_BY_WORDS: Readonly<Record<SureBy, string>> = {
  key: 'company key',
  number: 'number',
  domain: 'domain',
  name: 'name, place and phone',
};

/** What a sure row may be sure by, the surest first. */
export const SURE_BY = Object.keys(SURE_BY_WORDS) as readonly SureBy[];

/** From which chance on a candidate is sure, and down to which it is worth a look. */
export interface Limits {
  sure: number;
  doubtful: number;
}

/** What is asked of the sure ones unless somebody says otherwise: of a hundred, 99 are right. */
export const PRECISION = 0.99;
const LEAST_DOUBTFUL = 0.05;
/** However good the others are, none is sure by less. */
const LEAST_SURE = 0.9;

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
  const sameName = name === 1 || name === 2;
  // Of a part of a name, the town alone says too little: it may be the name of half the street.
  const placed = sameName ? place >= 1 && place <= 4 : place === 1;
  return phone === 1 || placed ? (name >= 1 && name <= 4 ? 'name' : null) : null;
}

/**
 * What the model adds up of pairs that nothing but a name, or less, speaks for is too much: neighbours, namesakes and branches have
 * more in common than chance gives strangers. Their odds are o' = exp(OFFSET) · o ^ SLOPE (Platt, 1999), fitted to 3,519 such pairs of
 * careless copies of the demo's companies under seeds 601 to 603; bench/matching.ts shows on others how it holds.
 */
const OFFSET = -1.95;
const SLOPE = 0.305;

/** A chance as it turns out to be, from 0 to 1, for pairs that could be sure by something (`by`) and for those that could not. */
export function honestChance(chance: number, by: SureBy | null): number {
  if (by !== null || chance <= 0) return chance;
  const odds = Math.exp(OFFSET) * Math.min(MOST_ODDS, chance / (1 - chance)) ** SLOPE;
  return Math.min(chance, odds / (1 + odds));
}

/** Odds of what the model takes for certain. */
const MOST_ODDS = 1e6;

/**
 * The lowest chance at which those from it on are right in the share asked, by their own chances.
 */
export function limitsFor(precision: number, chancesOfBest: readonly number[]): Limits {
  const sorted = [...chancesOfBest].sort((a, b) => b - a);
  let sure = 1;
  let sum = 0;
  for (let i = 0; i < sorted.length; i++) {
    sum += sorted[i]!;
    if (sorted[i]! < LEAST_SURE || sum / (i + 1) < precision) break;
    sure = sorted[i]!;
  }
  // With few rows chance alone would set the limit.
  return { sure: Math.min(sure, Math.max(precision, LEAST_SURE)), doubtful: LEAST_DOUBTFUL };
}

/** The outcome of a row by its best candidate. */
export function outcomeOf(best: { chance: number; by: SureBy | null } | null, limits: Limits): Outcome {
  if (!best || best.chance < limits.doubtful) return 'none';
  return best.chance >= limits.sure && best.by !== null ? 'sure' : 'doubtful';
}
