import { FEATURE_NAMES, type Comparison, type Feature } from './compare.ts';
import type { ReadyFirm } from './firm.ts';

/**
 * The model by which pairs of records are scored, after Fellegi and Sunter, "A Theory for Record Linkage" (1969): for each
 * feature, how often its levels come up among pairs that are one company (m) and among pairs drawn at random (u). The
 * evidence of a level is log2(m / u), and the evidence of the features adds up. Where a level says that both have the same
 * rare thing, u is how often that very thing comes up (Winkler's adjustment by frequency).
 */
export interface Model {
  /** For each feature and level, the first (nothing known) left out of account: shares that sum to 1 over the others. */
  m: Record<Feature, number[]>;
  u: Record<Feature, number[]>;
  /** Share of the rows of a file that are in the universe. */
  found: number;
}

/** How often what a pair has in common comes up. */
export interface Frequencies {
  /** Companies of the universe. */
  companies: number;
  ofDomain(domain: string): number;
  ofPhone(phone: string): number;
  /** With all figures but those of an extension. */
  ofSwitchboard(phone: string): number;
  /** At the house of a row. */
  ofHouse(row: ReadyFirm): number;
  ofWord(word: string): number;
}

/**
 * Where learning begins, and where it stays when there is little to learn from: m as it was on copies of the demo corrupted
 * under seeds, u from random pairs of the same universe; both by bench/matching.ts.
 */
export const FIRST_MODEL: Model = {
  m: {
    number: [0, 0.95, 0.04, 0.01],
    domain: [0, 0.86, 0.08, 0.06],
    phone: [0, 0.8, 0.08, 0.12],
    name: [0, 0.66, 0.22, 0.08, 0.02, 0.012, 0.008],
    form: [0, 0.93, 0.07],
    place: [0, 0.68, 0.1, 0.07, 0.06, 0.04, 0.048, 0.002],
    headcount: [0, 0.92, 0.08],
  },
  u: {
    number: [0, 1e-6, 1e-5, 1],
    domain: [0, 1e-5, 1e-3, 1],
    phone: [0, 1e-5, 1e-3, 1],
    name: [0, 1e-5, 1e-4, 1e-3, 1e-3, 0.01, 0.98],
    form: [0, 0.45, 0.55],
    place: [0, 1e-7, 1e-6, 2e-5, 5e-4, 5e-3, 0.07, 0.92],
    headcount: [0, 0.45, 0.55],
  },
  found: 0.7,
};

/** What a further shared word makes rarer, since the words of a name hang together. */
const FURTHER_WORD = 0.4;
/** How many times more names are this alike by chance than have the same words, by level. */
const LOOSER = [0, 1, 2, 2, 4, 2];
/** How many companies of a universe have a stranger's very number, domain or phone by mistake, or its house. */
const COINCIDENCE = { number: 0.002, domain: 0.02, phone: 0.05, house: 0.25 } as const;
/** u of what says little beyond what another feature has said. */
const SAID_ALREADY = 0.04;
/** Evidence of one feature lies within this many bits; none is proof. */
const MOST_BITS = 24;

/** log2 of how often the level of each feature comes up by chance (u), for this very pair; 0 where nothing is known. */
export function byChance(
  comparison: Comparison,
  u: Model['u'],
  row: ReadyFirm,
  frequencies: Frequencies,
): Float64Array {
  const bits = new Float64Array(FEATURE_NAMES.length);
  for (let f = 0; f < bits.length; f++) {
    const level = comparison.levels[f]!;
    if (level === 0) continue;
    const feature = FEATURE_NAMES[f]!;
    bits[f] = Math.log2(rarity(feature, level, comparison, row, frequencies) ?? u[feature][level]!);
  }
  return bits;
}

/** What is kept of a comparison while learning. */
export interface ComparedPair {
  levels: Uint8Array;
  /** As `byChance` gives it. */
  chance: Float64Array;
}

/** log2 of each share of a model. */
const logs = (m: Model['m']): number[][] =>
  FEATURE_NAMES.map((feature) => m[feature].map((share) => Math.log2(share)));

const within = (bits: number): number => Math.max(-MOST_BITS, Math.min(MOST_BITS, bits));

/** The evidence of each feature of a pair in bits, log2(m / u): above 0 where it speaks for one company; 0 where nothing is known. */
export function evidence({ levels, chance }: ComparedPair, m: Model['m']): Float64Array {
  const own = logs(m);
  return Float64Array.from(levels, (level, f) => (level === 0 ? 0 : within(own[f]![level]! - chance[f]!)));
}

function sumOf({ levels, chance }: ComparedPair, own: readonly (readonly number[])[]): number {
  let sum = 0;
  for (let f = 0; f < levels.length; f++) {
    const level = levels[f]!;
    if (level !== 0) sum += within(own[f]![level]! - chance[f]!);
  }
  return sum;
}

/** How often what both have comes up by chance; null where its level says enough. */
function rarity(
  feature: Feature,
  level: number,
  { shared, domain }: Comparison,
  row: ReadyFirm,
  { companies, ofDomain, ofPhone, ofSwitchboard, ofHouse, ofWord }: Frequencies,
): number | null {
  // Of those that have it the one in question is one: what is left are the others, and strangers of the universe.
  const others = (count: number, coincidence: number) =>
    (Math.max(0, count - 1) + coincidence) / Math.max(2, companies);
  if (feature === 'number') return level === 1 ? others(1, COINCIDENCE.number) : null;
  if (feature === 'domain') {
    if (level === 1) return others(ofDomain(domain!), COINCIDENCE.domain);
    // That domains begin alike, their names have said already.
    return level === 2 ? SAID_ALREADY : null;
  }
  if (feature === 'phone') {
    if (level === 1) return others(ofPhone(row.phone!), COINCIDENCE.phone);
    return level === 2 ? others(ofSwitchboard(row.phone!), 1) : null;
  }
  if (feature === 'place' && level === 1) return others(ofHouse(row), COINCIDENCE.house);
  const least = 1 / Math.max(2, companies);
  if (feature === 'name' && level < 6 && shared.length > 0) {
    const rarest = Math.max(1, ofWord(shared[0]!)) / companies;
    // Looser likeness takes in more names than those with the very words.
    return Math.min(0.5, Math.max(least, rarest * FURTHER_WORD ** (shared.length - 1)) * LOOSER[level]!);
  }
  return null;
}

/**
 * What each candidate of one row has for its chance of being that company, when at most one of them is: by Bayes' rule with the
 * share of rows that are in the universe spread evenly over its companies before anything is compared.
 * @param bits of each candidate, all features together
 */
export function chances(
  bits: readonly number[],
  { found }: Pick<Model, 'found'>,
  companies: number,
): number[] {
  const odds = bits.map((sum) => (found / Math.max(1, companies)) * 2 ** sum);
  const none = 1 - found;
  const all = odds.reduce((sum, one) => sum + one, none);
  return odds.map((one) => one / all);
}

/** What gives the chances of the candidates of a row under a model. */
export function scorer(model: Model, companies: number): (pairs: readonly ComparedPair[]) => number[] {
  const own = logs(model.m);
  return (pairs) =>
    chances(
      pairs.map((pair) => sumOf(pair, own)),
      model,
      companies,
    );
}

/** What was learned from, and how it went. */
export interface Learning {
  rows: number;
  pairs: number;
  rounds: number;
}

const MOST_ROUNDS = 25;
/** Pairs that the first model counts for beside those learned from. */
const FIRST_COUNTS = 40;
const SETTLED = 1e-4;

/**
 * Learns m and the share of rows that are found by expectation and maximisation (Dempster, Laird and Rubin, 1977) from rows that
 * nobody judged; u is given, and the first model weighs like a few pairs of its own, so that a file of three rows teaches nothing.
 */
export function learn(
  rows: readonly (readonly ComparedPair[])[],
  u: Model['u'],
  companies: number,
): { model: Model; learning: Learning } {
  let model: Model = { m: FIRST_MODEL.m, u, found: FIRST_MODEL.found };
  let rounds = 0;
  for (; rounds < MOST_ROUNDS; rounds++) {
    const counts = Object.fromEntries(
      FEATURE_NAMES.map((feature) => [feature, FIRST_MODEL.m[feature].map((share) => share * FIRST_COUNTS)]),
    ) as Model['m'];
    let found = FIRST_MODEL.found * FIRST_COUNTS;
    const score = scorer(model, companies);
    for (const pairs of rows) {
      const weights = score(pairs);
      for (let c = 0; c < pairs.length; c++) {
        found += weights[c]!;
        const { levels } = pairs[c]!;
        for (let f = 0; f < FEATURE_NAMES.length; f++)
          if (levels[f]! > 0) counts[FEATURE_NAMES[f]!][levels[f]!]! += weights[c]!;
      }
    }
    const m = Object.fromEntries(
      FEATURE_NAMES.map((feature) => [feature, shares(counts[feature])]),
    ) as Model['m'];
    const next: Model = {
      m,
      u,
      found: Math.min(0.99, Math.max(0.01, found / (rows.length + FIRST_COUNTS))),
    };
    const moved = Math.max(
      Math.abs(next.found - model.found),
      ...FEATURE_NAMES.flatMap((feature) =>
        m[feature].map((share, i) => Math.abs(share - model.m[feature][i]!)),
      ),
    );
    model = next;
    if (moved < SETTLED) break;
  }
  return {
    model,
    learning: { rows: rows.length, pairs: rows.reduce((sum, pairs) => sum + pairs.length, 0), rounds },
  };
}

/** Counts by level as shares of those of which something is known. */
function shares(counts: readonly number[]): number[] {
  const all = counts.slice(1).reduce((sum, count) => sum + count, 0);
  return counts.map((count, level) => (level === 0 || all === 0 ? 0 : count / all));
}

/** u of each level from pairs drawn at random; the first model weighs like a few pairs, so that no level is impossible. */
export function randomShares(levels: readonly Uint8Array[]): Model['u'] {
  const counts = Object.fromEntries(
    FEATURE_NAMES.map((feature) => [feature, FIRST_MODEL.u[feature].map((share) => share * FIRST_COUNTS)]),
  ) as Model['u'];
  for (const one of levels)
    for (let f = 0; f < FEATURE_NAMES.length; f++) if (one[f]! > 0) counts[FEATURE_NAMES[f]!][one[f]!]! += 1;
  return Object.fromEntries(FEATURE_NAMES.map((feature) => [feature, shares(counts[feature])])) as Model['u'];
}
