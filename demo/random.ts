import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';

/** A seeded stream of chances. The same seed gives the same stream, byte for byte. */
export class Chance {
  private readonly generator;

  constructor(seed: number) {
    this.generator = xoroshiro128plus(seed);
    this.generator.next();
  }

  /** From 0 up to below 1. */
  next(): number {
    return (this.generator.next() >>> 0) / 4294967296;
  }

  /** True in `share` of all cases. */
  in(share: number): boolean {
    return this.next() < share;
  }

  /** A whole number from `from` to `to`, both included. */
  whole(from: number, to: number): number {
    return from + Math.floor(this.next() * (to - from + 1));
  }

  pick<T>(list: readonly T[]): T {
    return list[Math.floor(this.next() * list.length)]!;
  }

  /** An index drawn by running sums of weights. */
  draw(sums: Float64Array): number {
    const at = this.next() * sums[sums.length - 1]!;
    let low = 0;
    let high = sums.length - 1;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (sums[middle]! > at) high = middle;
      else low = middle + 1;
    }
    return low;
  }

  /** Standard normal (Box-Muller). */
  normal(): number {
    return Math.sqrt(-2 * Math.log(1 - this.next())) * Math.cos(2 * Math.PI * this.next());
  }

  figures(count: number): string {
    let text = '';
    for (let i = 0; i < count; i++) text += this.whole(0, 9);
    return text;
  }
}

/** Running sums of weights, for `draw`. */
export function runningSums(weights: readonly number[]): Float64Array {
  const sums = new Float64Array(weights.length);
  let sum = 0;
  weights.forEach((weight, i) => (sums[i] = sum += weight));
  return sums;
}
