import type { CodesColumn, ManyColumn, PlaceColumn, RangeColumn, Universe } from '../tally/columns.ts';
import { Basis } from '../tally/columns.ts';
import { distanceKm } from '../geo/distance.ts';
import type { CodeTree, Scheme } from '../codes/tree.ts';
import type { Likeness } from './likeness.ts';
import { PARTS, weightOf, type Part, type Weights } from './parts.ts';

/** Parts below this say nothing for a peer. */
const LEAST = 0.35;

/** Why a company is alike, the weightiest reason first, in words. */
export function reasonsOf(
  likeness: Likeness,
  r: number,
  weights: Weights | undefined,
  universe: Universe,
  trees: (scheme: Scheme) => CodeTree,
): string {
  const told = PARTS.flatMap((part) => {
    const score = likeness.parts.get(part)?.[r];
    if (score === undefined || !(score >= LEAST)) return [];
    const words = reason(part, likeness, r, score, universe, trees);
    return words ? [{ words, weight: score * weightOf(part, weights) }] : [];
  });
  return told
    .sort((a, b) => b.weight - a.weight)
    .map(({ words }) => words)
    .join('; ');
}

function reason(
  part: Part,
  { words, seeds }: Likeness,
  r: number,
  score: number,
  universe: Universe,
  trees: (scheme: Scheme) => CodeTree,
): string | null {
  const one = seeds.length === 1 ? seeds[0]! : null;
  switch (part) {
    case 'codes':
      return codesReason(
        universe.columns.get('industry') as Map<Scheme, CodesColumn>,
        seeds,
        r,
        score,
        trees,
      );
    case 'words': {
      const shared = words!.words.filter((_, n) => (words!.has[r]! >>> n) & 1);
      return shared.length ? `says ${shared.slice(0, 4).join(', ')}` : null;
    }
    case 'technologies': {
      const { dictionary, offsets, values } = universe.columns.get('technology') as ManyColumn;
      const wanted = new Set(seeds.flatMap((seed) => [...values.subarray(offsets[seed], offsets[seed + 1])]));
      const shared = [...values.subarray(offsets[r], offsets[r + 1])].filter((v) => wanted.has(v));
      return shared.length
        ? `uses ${shared
            .slice(0, 3)
            .map((v) => dictionary[v]!)
            .join(', ')}`
        : null;
    }
    case 'size': {
      const headcount = universe.columns.get('headcount') as RangeColumn;
      const figure = (at: number) =>
        headcount.basis[at] === Basis.Reported || headcount.basis[at] === Basis.Estimate
          ? headcount.low[at]!
          : null;
      const own = figure(r);
      const other = one === null ? null : figure(one);
      return own !== null && other !== null ? `headcount ${own} beside ${other}` : 'of like size';
    }
    case 'place': {
      const { lat, lon, region, country } = universe.columns.get('place') as PlaceColumn;
      if (one !== null && !Number.isNaN(lat[r]!) && !Number.isNaN(lat[one]!)) {
        const km = distanceKm(lat[one]!, lon[one]!, lat[r]!, lon[r]!);
        if (km < 150) return `${km < 10 ? km.toFixed(1) : Math.round(km)} km away`;
      }
      if (seeds.some((seed) => region.values[seed] !== 0 && region.values[seed] === region.values[r]))
        return 'same region';
      return seeds.some((seed) => country.values[seed] === country.values[r]) ? 'same country' : null;
    }
    case 'channels':
      return `sells ${Math.round(100 * score)} % the same ways`;
  }
}

function codesReason(
  columns: ReadonlyMap<Scheme, CodesColumn>,
  seeds: readonly number[],
  r: number,
  score: number,
  trees: (scheme: Scheme) => CodeTree,
): string {
  for (const { scheme, offsets, nodes } of columns.values()) {
    const wanted = new Set(seeds.flatMap((seed) => [...nodes.subarray(offsets[seed], offsets[seed + 1])]));
    const shared = [...nodes.subarray(offsets[r], offsets[r + 1])].filter((node) => wanted.has(node));
    if (shared.length)
      return `same code${shared.length > 1 ? 's' : ''} ${shared
        .slice(0, 3)
        .map((node) => trees(scheme).codes[node]!)
        .join(', ')}`;
  }
  for (const { scheme, offsets, nodes } of columns.values()) {
    const tree = trees(scheme);
    for (const node of nodes.subarray(offsets[r], offsets[r + 1]))
      for (const seed of seeds)
        for (const want of nodes.subarray(offsets[seed], offsets[seed + 1])) {
          let over = node;
          while (over >= 0 && !(over <= want && want < tree.ends[over]!)) over = tree.parents[over]!;
          if (over >= 0 && tree.levels[over]! >= 2)
            return `related code ${tree.codes[node]!} under ${tree.codes[over]!}`;
        }
  }
  return score > 0 ? 'code of another scheme that is linked' : 'like codes';
}
