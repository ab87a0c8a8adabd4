import { curveOf, onCurve, type Curve } from '../stats/calibration.ts';
import { DOUBLES, localPartsOf, PATTERNS, SPELLINGS, type LocalPart } from './local-parts.ts';
import type { NameParts } from './name-parts.ts';

/**
 * How likely an address made by pattern is right. Every mail domain has counts of the patterns that its known addresses follow;
 * they are read as draws from a Dirichlet distribution around what domains of the same country and size do, which in turn leans
 * on all domains (a Dirichlet-multinomial model with one strength for all, chosen by leave-one-out likelihood). Spelling of
 * accented letters is learned by country, the writing of double surnames from all. What comes of it is set right by a curve
 * from every known address foretold by all the others, so that of those said to be 90 % sure 90 % are right.
 */

/** An address that is known to be somebody's. */
export interface KnownAddress {
  name: NameParts;
  /** Before the @, lower case. */
  local: string;
  domain: string;
  /** ISO 3166-1 alpha-2 of the company, or null. */
  country: string | null;
  /** People working there, or null. */
  headcount: number | null;
  /** The domain of the company's web site, or null. */
  web: string | null;
}

/** What is known of a domain: how many of its addresses follow each pattern; where several may be meant, each in part. */
export interface House {
  counts: Float64Array;
  /** Addresses counted, those included that follow no pattern. */
  known: number;
  group: string;
}

export interface AddressModel {
  /** Share of domains by pattern. */
  world: Float64Array;
  /** The same by country and size. */
  groups: ReadonlyMap<string, Float64Array>;
  houses: ReadonlyMap<string, House>;
  /** How many addresses the patterns of like domains weigh. */
  strength: number;
  /** Share of addresses that some pattern makes, from 0 to 1. */
  regular: number;
  /** Share that spell accented letters out, by country; under "" for all. */
  speltOut: ReadonlyMap<string, number>;
  /** Shares of DOUBLES. */
  doubles: Float64Array;
  /** Share of addresses under the domain of the company's web site. */
  underWeb: number;
  /** Sets what the above gives right; null where too few addresses are known to tell. */
  curve: Curve | null;
  /** Addresses it was learned from. */
  learnedFrom: number;
}

/** An address made for somebody, and how sure it is. */
export interface MadeAddress {
  local: string;
  /** From 0 to 1. */
  certainty: number;
  pattern: (typeof PATTERNS)[number];
  /** Known addresses of the domain that follow it, of so many. */
  follow: number;
  known: number;
}

/** Domains that what is known of like ones counts for, where a group has few of its own. */
const GROUP_LEAN = 20;
const STRENGTHS = [0.02, 0.05, 0.1, 0.2, 0.4, 0.8, 1.6, 3.2];
const PASSES = 4;
/** Every pattern may be met anywhere. */
const FLOOR = 0.5;

interface Sample {
  known: KnownAddress;
  house: number;
  /** Ways to write the name that give just this address. */
  ways: LocalPart[];
  /** Share of each way, summing to 1. */
  shares: Float64Array;
}

/** Learns from all addresses that are known. Nothing that is known is needed: without it every pattern has its plain share. */
export function learnAddresses(known: readonly KnownAddress[]): AddressModel {
  const houses: (House & { domain: string })[] = [];
  const at = new Map<string, number>();
  const samples: Sample[] = known.map((one) => {
    let house = at.get(one.domain);
    if (house === undefined) {
      at.set(one.domain, (house = houses.length));
      const counts = new Float64Array(PATTERNS.length);
      houses.push({ domain: one.domain, counts, known: 0, group: groupOf(one.country, one.headcount) });
    }
    houses[house]!.known++;
    const ways = localPartsOf(one.name).filter(({ local }) => local === one.local);
    return { known: one, house, ways, shares: new Float64Array(ways.length).fill(1 / (ways.length || 1)) };
  });
  const regular = samples.filter(({ ways }) => ways.length > 0).length;
  const speltOut = new Map<string, number>();
  const doubles = new Float64Array(DOUBLES.length).fill(1 / DOUBLES.length);
  const model: AddressModel = {
    world: priorShares(),
    groups: new Map(),
    houses: new Map(houses.map((house) => [house.domain, house])),
    strength: 0.4,
    regular: (regular + 9) / (samples.length + 10),
    speltOut,
    doubles,
    underWeb: shareUnderWeb(known),
    curve: null,
    learnedFrom: known.length,
  };
  for (let pass = 0; pass < PASSES; pass++) {
    for (const house of houses) house.counts.fill(0);
    for (const { house, ways, shares } of samples)
      ways.forEach(({ pattern }, i) => (houses[house]!.counts[pattern]! += shares[i]!));
    learnGroups(model, houses);
    learnVariants(samples, speltOut, doubles);
    for (const sample of samples) shareOut(model, sample, houses[sample.house]!);
  }
  model.strength = STRENGTHS.reduce(
    (best, strength) => {
      const likelihood = likelihoodOf({ ...model, strength }, samples, houses);
      return likelihood > best.likelihood ? { strength, likelihood } : best;
    },
    { strength: model.strength, likelihood: -Infinity },
  ).strength;
  model.curve = curveOf(
    samples.flatMap((sample) => {
      const told = bestOf(model, sample.known, without(sample, houses[sample.house]!));
      return told ? [{ told: told.chance, right: told.way.local === sample.known.local }] : [];
    }),
  );
  return model;
}

/**
 * The likeliest address of somebody under a domain, and how sure it is. `taken` are addresses known to be another's or refuted,
 * without their domain. Null where the name has no letters to make one of.
 */
export function makeAddress(
  model: AddressModel,
  person: Omit<KnownAddress, 'local'>,
  taken: ReadonlySet<string> = new Set(),
): MadeAddress | null {
  const house = model.houses.get(person.domain);
  const best = bestOf(model, person, house ?? null, taken);
  if (!best) return null;
  // Under a domain where addresses are known it is one for mail; that of a web site mostly is.
  const raw = best.chance * (house ? 1 : model.underWeb);
  return {
    local: best.way.local,
    certainty: model.curve ? onCurve(model.curve, raw) : raw,
    pattern: PATTERNS[best.way.pattern]!,
    follow: Math.round(house?.counts[best.way.pattern] ?? 0),
    known: house?.known ?? 0,
  };
}

/** Country and size class, by which like domains are found. */
function groupOf(country: string | null, headcount: number | null): string {
  const band = headcount === null ? '?' : headcount < 10 ? 'S' : headcount < 100 ? 'M' : 'L';
  return `${country ?? '?'} ${band}`;
}

/** Before anything is known each pattern is half as likely as the one before it. */
function priorShares(): Float64Array {
  const shares = Float64Array.from(PATTERNS, (_, i) => 0.5 ** i);
  return normalised(shares);
}

function normalised(shares: Float64Array): Float64Array {
  const sum = shares.reduce((a, b) => a + b, 0);
  return shares.map((share) => share / sum);
}

function learnGroups(model: AddressModel, houses: readonly House[]): void {
  const prior = priorShares();
  const world = prior.map((share) => FLOOR * share);
  const groups = new Map<string, Float64Array>();
  for (const { counts, known, group } of houses) {
    const own = groups.get(group) ?? new Float64Array(PATTERNS.length);
    groups.set(group, own);
    // Each domain counts once, however many of its addresses are known.
    counts.forEach((count, i) => {
      world[i]! += count / known;
      own[i]! += count / known;
    });
  }
  model.world = normalised(world);
  model.groups = new Map(
    [...groups].map(([group, own]) => [
      group,
      normalised(own.map((count, i) => count + GROUP_LEAN * model.world[i]!)),
    ]),
  );
}

function learnVariants(
  samples: readonly Sample[],
  speltOut: Map<string, number>,
  doubles: Float64Array,
): void {
  const spelt = new Map<string, [plain: number, out: number]>([['', [1, 1]]]);
  const ways = new Float64Array(DOUBLES.length).fill(1);
  for (const { known, ways: own, shares } of samples)
    own.forEach(({ spelling, double }, i) => {
      if (spelling !== null)
        for (const key of ['', known.country ?? '?']) {
          const counts = spelt.get(key) ?? [0, 0];
          spelt.set(key, counts);
          counts[spelling as 0 | 1] += shares[i]!;
        }
      if (double !== null) ways[double]! += shares[i]!;
    });
  const [plain, out] = spelt.get('')!;
  const world = out / (plain + out);
  for (const [country, [a, b]] of spelt) speltOut.set(country, (b + 4 * world) / (a + b + 4));
  doubles.set(normalised(ways));
}

/** The counts of a domain without one of its addresses. */
function without({ ways, shares }: Sample, house: House): House {
  if (house.known === 1) return { ...house, counts: new Float64Array(PATTERNS.length), known: 0 };
  const counts = Float64Array.from(house.counts);
  ways.forEach(({ pattern }, i) => (counts[pattern]! -= shares[i]!));
  return { ...house, counts, known: house.known - 1 };
}

/** Shares out an address that several ways may have made, by how likely each is there. */
function shareOut(model: AddressModel, sample: Sample, house: House): void {
  const { ways, shares, known } = sample;
  if (ways.length < 2) return;
  const others = without(sample, house);
  const weights = ways.map((way) => chanceOf(model, way, others, known.country));
  const sum = weights.reduce((a, b) => a + b, 0);
  weights.forEach((weight, i) => (shares[i] = weight / sum));
}

/** How likely a way of writing is at a domain: pattern, spelling and double surname together. */
function chanceOf(
  model: AddressModel,
  { pattern, spelling, double }: LocalPart,
  house: House | null,
  country: string | null,
): number {
  const prior = (house && model.groups.get(house.group)) ?? model.world;
  const strength = model.strength;
  const regular = house ? house.counts.reduce((a, b) => a + b, 0) : 0;
  let chance = ((house?.counts[pattern] ?? 0) + strength * prior[pattern]!) / (regular + strength);
  if (spelling !== null) {
    const out = model.speltOut.get(country ?? '?') ?? model.speltOut.get('') ?? 1 / SPELLINGS.length;
    chance *= spelling === 1 ? out : 1 - out;
  }
  if (double !== null) chance *= model.doubles[double]!;
  return chance * model.regular;
}

function bestOf(
  model: AddressModel,
  { name, country, headcount }: Pick<KnownAddress, 'name' | 'country' | 'headcount'>,
  house: House | null,
  taken: ReadonlySet<string> = new Set(),
): { way: LocalPart; chance: number } | null {
  const at = house ?? {
    counts: new Float64Array(PATTERNS.length),
    known: 0,
    group: groupOf(country, headcount),
  };
  const byText = new Map<string, { way: LocalPart; chance: number; most: number }>();
  for (const way of localPartsOf(name)) {
    if (taken.has(way.local)) continue;
    const chance = chanceOf(model, way, at, country);
    const same = byText.get(way.local);
    if (!same) byText.set(way.local, { way, chance, most: chance });
    else {
      same.chance += chance;
      if (chance > same.most) Object.assign(same, { way, most: chance });
    }
  }
  let best: { way: LocalPart; chance: number } | null = null;
  for (const one of byText.values()) if (!best || one.chance > best.chance) best = one;
  return best;
}

function likelihoodOf(model: AddressModel, samples: readonly Sample[], houses: readonly House[]): number {
  let sum = 0;
  for (const sample of samples) {
    if (sample.ways.length === 0) continue;
    const others = without(sample, houses[sample.house]!);
    let chance = 0;
    for (const way of sample.ways) chance += chanceOf(model, way, others, sample.known.country);
    sum += Math.log(chance);
  }
  return sum;
}

function shareUnderWeb(known: readonly KnownAddress[]): number {
  const told = known.filter(({ web }) => web !== null);
  return (told.filter(({ web, domain }) => web === domain).length + 9) / (told.length + 10);
}
