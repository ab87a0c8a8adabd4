import { betaAbove, logBeta } from './beta.ts';

/** How many of a list fit, judged by a sample of it: estimates, intervals, sizes and a test that may be looked at all the time. */

/** 19 times in 20. */
const Z = 1.959963984540054;
/** Chance with which the sequential test may be wrong, whichever way. */
const WRONG = 0.05;

/** A part of the population that is sampled by itself: how many it has, how many were judged, and how many of those fit. */
export interface Stratum {
  size: number;
  judged: number;
  fit: number;
}

export interface Accuracy {
  /** Share that fits, from 0 to 1. */
  share: number;
  /** Interval that holds the true share 19 times in 20. */
  low: number;
  high: number;
}

/**
 * The share that fits, of a sample drawn without putting back. One stratum is a plain sample; of several, each weighs by its
 * size. The interval is Wilson's (1927, J. Am. Stat. Assoc. 22:209), with the number judged replaced by the number that a plain
 * sample of the same variance from an endless population would have, which takes in the strata and the share of the population
 * that was judged. Null where nothing is judged. Strata of which nothing is judged yet are left out.
 */
export function accuracyOf(strata: readonly Stratum[]): Accuracy | null {
  const known = strata.filter(({ judged }) => judged > 0);
  const population = known.reduce((sum, { size }) => sum + size, 0);
  const judged = known.reduce((sum, one) => sum + one.judged, 0);
  if (judged === 0) return null;
  const share = known.reduce((sum, { size, judged: n, fit }) => sum + (size / population) * (fit / n), 0);
  // Within a stratum where all fit, or none, the spread is guessed from the whole sample, or it would count as certain.
  const pooled = (known.reduce((sum, { fit }) => sum + fit, 0) + 1) / (judged + 2);
  let variance = 0;
  for (const { size, judged: n, fit } of known) {
    const own = (fit + 2 * pooled) / (n + 2);
    const left = size <= 1 ? 0 : Math.max(0, (size - n) / (size - 1));
    variance += ((size / population) ** 2 * left * own * (1 - own)) / n;
  }
  const spread = pooled * (1 - pooled);
  const effective = variance > 0 ? spread / variance : Infinity;
  return { share, ...wilson(share, effective) };
}

/** Wilson's interval of a share seen in so many, which need not be a whole number. */
export function wilson(share: number, n: number): { low: number; high: number } {
  if (n === Infinity) return { low: share, high: share };
  const middle = (share + (Z * Z) / (2 * n)) / (1 + (Z * Z) / n);
  const half = (Z / (1 + (Z * Z) / n)) * Math.sqrt((share * (1 - share)) / n + (Z * Z) / (4 * n * n));
  return { low: Math.max(0, middle - half), high: Math.min(1, middle + half) };
}

/** How many of a population must be judged for an interval of the given half width, where so large a share fits; never more than there are. */
export function sizeFor(margin: number, population: number, share = 0.5): number {
  const endless = (Z * Z * share * (1 - share)) / (margin * margin);
  return Math.min(population, Math.ceil(endless / (1 + (endless - 1) / Math.max(1, population))));
}

/** What is known of "at least so many percent fit". */
export type Holding = 'holds' | 'does not hold' | 'not decided';

/**
 * Whether at least a share fits, by a test that may be looked at after each judgement: it is wrong at most once in 20 however
 * often it is looked at. The likelihood of what was seen, averaged over all shares on one side of the limit, is held against the
 * greatest likelihood on the other; by Ville's inequality the ratio exceeds 40 with a chance below 1 in 40 where the other side is
 * true (Robbins 1970, Ann. Math. Stat. 41:1397; the greatest likelihood as in Wasserman, Ramdas and Balakrishnan 2020, PNAS 117:16880).
 */
export function holdsAtLeast(limit: number, fit: number, judged: number): Holding {
  const threshold = Math.log(2 / WRONG);
  if (evidence(limit, fit, judged, 'above') >= threshold) return 'holds';
  if (evidence(limit, fit, judged, 'below') >= threshold) return 'does not hold';
  return 'not decided';
}

/** The logarithm of that ratio for shares on one side of a limit. */
function evidence(limit: number, fit: number, judged: number, side: 'above' | 'below'): number {
  const [a, b] = [fit + 1, judged - fit + 1];
  const above = betaAbove(limit, a, b);
  const mass = side === 'above' ? above : 1 - above;
  const width = side === 'above' ? 1 - limit : limit;
  if (mass <= 0 || width <= 0) return -Infinity;
  const seen = judged === 0 ? limit : fit / judged;
  const other = side === 'above' ? Math.min(limit, seen) : Math.max(limit, seen);
  const best = termOf(fit, other) + termOf(judged - fit, 1 - other);
  return logBeta(a, b) + Math.log(mass) - Math.log(width) - best;
}

function termOf(count: number, share: number): number {
  return count === 0 ? 0 : count * Math.log(share);
}

/** About how many more must be judged until the test decides, if they fit as those before did; null where that would take more than the population. */
export function moreToDecide(limit: number, fit: number, judged: number, population: number): number | null {
  if (judged === 0) return null;
  const share = (fit + 0.5) / (judged + 1);
  for (let more = 1; judged + more <= population; more += Math.max(1, Math.floor(more / 20)))
    if (holdsAtLeast(limit, Math.round(fit + share * more), judged + more) !== 'not decided') return more;
  return null;
}

/** How many of a sample each stratum has, by its share of the population, each at least one where it has any; together exactly the size. */
export function allocation(sizes: readonly number[], size: number): number[] {
  const population = sizes.reduce((sum, one) => sum + one, 0);
  const wanted = Math.min(size, population);
  const shares = sizes.map((one) => (one * wanted) / Math.max(1, population));
  const taken = shares.map((share, i) =>
    Math.min(sizes[i]!, Math.max(sizes[i]! > 0 ? 1 : 0, Math.floor(share))),
  );
  let left = wanted - taken.reduce((sum, one) => sum + one, 0);
  const byRest = shares.map((share, i) => ({ i, rest: share - taken[i]! })).sort((a, b) => b.rest - a.rest);
  for (const { i } of byRest)
    if (left > 0 && taken[i]! < sizes[i]!) [taken[i], left] = [taken[i]! + 1, left - 1];
  // Where every part having one makes too many, the others give way first.
  for (const least of [1, 0])
    while (left < 0 && taken.some((one) => one > least)) {
      const from = taken.indexOf(Math.max(...taken));
      [taken[from], left] = [taken[from]! - 1, left + 1];
    }
  for (let i = 0; left > 0 && i < sizes.length; i++) {
    const more = Math.min(left, sizes[i]! - taken[i]!);
    [taken[i], left] = [taken[i]! + more, left - more];
  }
  return taken;
}
