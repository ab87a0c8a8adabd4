/** Setting chances right by what came of them. */

/** Points of a rising line: chances as they were told, and the share that came true of those told about so. */
export interface Curve {
  told: readonly number[];
  right: readonly number[];
}

/** Fewer trials than this say nothing of how far chances can be trusted. */
const LEAST_TRIALS = 300;
const POINTS = 40;
const LEAST_A_POINT = 60;

/**
 * The curve that sets chances right: trials are put in order and cut into parts of about equal number, and the shares of those
 * that came true are made to rise by pooling neighbours that do not (isotonic regression by pool adjacent violators, Ayer et al.
 * 1955, Ann. Math. Stat. 26:641). Null where there are too few trials.
 */
export function curveOf(trials: readonly { told: number; right: boolean }[]): Curve | null {
  if (trials.length < LEAST_TRIALS) return null;
  const sorted = [...trials].sort((a, b) => a.told - b.told);
  const size = Math.max(LEAST_A_POINT, Math.ceil(sorted.length / POINTS));
  const pools: { told: number; right: number; n: number }[] = [];
  for (let from = 0; from < sorted.length; from += size) {
    // A short rest belongs to the part before it.
    const to = sorted.length - from < 2 * size ? sorted.length : from + size;
    const part = sorted.slice(from, to);
    let pool = {
      told: part.reduce((sum, { told }) => sum + told, 0),
      right: part.filter(({ right }) => right).length,
      n: part.length,
    };
    for (let last = pools.at(-1); last && last.right / last.n >= pool.right / pool.n; last = pools.at(-1)) {
      pools.pop();
      pool = { told: pool.told + last.told, right: pool.right + last.right, n: pool.n + last.n };
    }
    pools.push(pool);
    if (to === sorted.length) break;
  }
  return { told: pools.map(({ told, n }) => told / n), right: pools.map(({ right, n }) => right / n) };
}

/** What a chance told comes to, between the points of the curve by a straight line; beyond its ends as at them. */
export function onCurve({ told, right }: Curve, chance: number): number {
  if (chance <= told[0]!) return right[0]!;
  for (let i = 1; i < told.length; i++)
    if (chance <= told[i]!) {
      const share = (chance - told[i - 1]!) / (told[i]! - told[i - 1]!);
      return right[i - 1]! + share * (right[i]! - right[i - 1]!);
    }
  return right.at(-1)!;
}
