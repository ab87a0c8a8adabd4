/** How much of a market its largest hold. */
export interface Concentration {
  /** Units that have a figure above 0: companies, or groups as one. */
  units: number;
  total: number;
  /** Share of the largest 1, 4, 8 and 20, in percent; of all where there are fewer. */
  largest: { units: number; share: number }[];
  /**
   * Herfindahl-Hirschman index: the sum of the squared shares in percent, from near 0 to 10,000 (a single holder).
   * US Department of Justice and FTC, Merger Guidelines 2023, 2.1.
   */
  hhi: number;
  /** The curve: after so many of the largest, so much of the total in percent; at most 101 points. */
  curve: [units: number, share: number][];
}

const LARGEST = [1, 4, 8, 20];
const POINTS = 100;

/** Concentration of some amounts; those of 0 and below hold nothing and are left out. Null where none is left. */
export function concentrationOf(amounts: ArrayLike<number>): Concentration | null {
  return concentrationOfSorted(Float64Array.from(amounts).sort().reverse());
}

/** The same of amounts that descend. */
export function concentrationOfSorted(sorted: Float64Array): Concentration | null {
  let units = sorted.length;
  while (units > 0 && !(sorted[units - 1]! > 0)) units--;
  if (units === 0) return null;
  let total = 0;
  for (let i = 0; i < units; i++) total += sorted[i]!;
  let hhi = 0;
  const upTo = new Float64Array(units + 1);
  for (let i = 0; i < units; i++) {
    const share = (100 * sorted[i]!) / total;
    hhi += share * share;
    upTo[i + 1] = upTo[i]! + share;
  }
  const curve: [number, number][] = [];
  const steps = Math.min(POINTS, units);
  for (let step = 0; step <= steps; step++) {
    const at = Math.round((step * units) / steps);
    curve.push([at, upTo[at]!]);
  }
  return {
    units,
    total,
    largest: LARGEST.filter((n, i) => n <= units || i === 0 || LARGEST[i - 1]! < units).map((n) => ({
      units: Math.min(n, units),
      share: upTo[Math.min(n, units)]!,
    })),
    hhi,
    curve,
  };
}
