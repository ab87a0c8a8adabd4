/** The beta function and its tail, as statistics of shares need them. */

/** Logarithm of the gamma function for numbers above 0 (Lanczos 1964, SIAM J. Numer. Anal. B 1:86; g = 7, nine terms). */
export function logGamma(x: number): number {
  const terms = [
    0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059,
    12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
  ];
  if (x < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * x)) - logGamma(1 - x);
  const t = x + 6.5;
  let sum = terms[0]!;
  for (let i = 1; i < 9; i++) sum += terms[i]! / (x - 1 + i);
  return 0.5 * Math.log(2 * Math.PI) + (x - 0.5) * Math.log(t) - t + Math.log(sum);
}

export function logBeta(a: number, b: number): number {
  return logGamma(a) + logGamma(b) - logGamma(a + b);
}

/** The chance that a beta-distributed share lies above x: 1 less the regularised incomplete beta function (DLMF 8.17). */
export function betaAbove(x: number, a: number, b: number): number {
  if (x <= 0) return 1;
  if (x >= 1) return 0;
  const front = Math.exp(a * Math.log(x) + b * Math.log(1 - x) - logBeta(a, b));
  return x < (a + 1) / (a + b + 2)
    ? 1 - (front * fraction(x, a, b)) / a
    : (front * fraction(1 - x, b, a)) / b;
}

/** Its continued fraction (DLMF 8.17.22), by Lentz's method. */
function fraction(x: number, a: number, b: number): number {
  const tiny = 1e-300;
  let c = 1;
  let d = 1 / nonZero(1 - ((a + b) * x) / (a + 1), tiny);
  let value = d;
  for (let m = 1; m <= 500; m++) {
    for (const step of [
      (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m)),
      (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1)),
    ]) {
      d = 1 / nonZero(1 + step * d, tiny);
      c = nonZero(1 + step / c, tiny);
      value *= c * d;
    }
    if (Math.abs(c * d - 1) < 1e-14) break;
  }
  return value;
}

function nonZero(x: number, tiny: number): number {
  return Math.abs(x) < tiny ? tiny : x;
}

/**
 * Fisher's exact test of a table of two by two (Fisher 1934): the chance of a table as far from even or farther, with the same
 * sums, where rows and columns have nothing to do with each other.
 */
export function fisherExact(a: number, b: number, c: number, d: number): number {
  const [row, column, all] = [a + b, a + c, a + b + c + d];
  const choose = (n: number, k: number) => logGamma(n + 1) - logGamma(k + 1) - logGamma(n - k + 1);
  const whole = choose(all, column);
  const chance = (k: number) => Math.exp(choose(row, k) + choose(all - row, column - k) - whole);
  const seen = chance(a);
  let sum = 0;
  for (let k = Math.max(0, column - (all - row)); k <= Math.min(row, column); k++) {
    const one = chance(k);
    if (one <= seen * (1 + 1e-7)) sum += one;
  }
  return Math.min(1, sum);
}
