import type { CodeCount, ValueCount } from '../../contract/responses.ts';
import { isScheme, SCHEMES, type CodeTree, type Scheme } from '../../core/codes/tree.ts';
import { countBits, type Bits } from '../../core/tally/bits.ts';
import type { CodesColumn, PlaceColumn } from '../../core/tally/columns.ts';
import { countCategory, countCodes, countNear } from '../../core/tally/counts.ts';
import type { Lookup } from '../../core/tape/lookup.ts';
import { fold } from '../../core/text/fold.ts';

/** What a picker asks counts of. */
export interface CountsRequest {
  tape: unknown;
  at?: string;
  field: string;
  scheme?: string;
  rank?: string;
  /** Codes: words to search, or the parent whose children are wanted. */
  search?: string;
  level?: 'countries' | 'regions' | 'towns';
  within?: string;
  near?: { lat: number; lon: number };
  currency?: string;
}

const MOST_TOWNS = 200;
const RADII = [5, 10, 20, 30, 40, 60, 80, 100, 150, 200, 300];

/** A code tree with the companies of a context at every level; where words are searched, only what they find. */
export function codeCounts(
  lookup: Lookup,
  columns: Map<Scheme, CodesColumn>,
  request: CountsRequest,
  context: Bits,
) {
  const scheme = isScheme(request.scheme) ? request.scheme : 'nace-2.1';
  const tree = lookup.codes(scheme);
  const column = columns.get(scheme);
  const found = column
    ? countCodes(column, tree, context, request.rank === 'main')
    : { counts: new Uint32Array(tree.size), unknown: countBits(context) };
  const hits = request.search ? lookup.findCodes(scheme, request.search, 60) : null;
  const nodes = hits
    ? withAncestors(
        tree,
        hits.map((hit) => tree.nodeOf(hit.code)),
      )
    : [...tree.codes.keys()];
  const by = new Map(hits?.map((hit) => [hit.code, hit]));
  return {
    scheme,
    schemes: Object.entries(SCHEMES).map(([key, label]) => ({
      key,
      label,
      used: columns.has(key as Scheme),
    })),
    codes: nodes.map((node): CodeCount => {
      const code = tree.codes[node]!;
      const hit = by.get(code);
      return {
        code,
        title: tree.titles[node]!,
        level: tree.levels[node]!,
        parent: tree.parents[node]! < 0 ? null : tree.codes[tree.parents[node]!]!,
        count: found.counts[node]!,
        below: !tree.isLeaf(node),
        ...(hit ? { by: hit.by ?? '' } : {}),
      };
    }),
    unknown: found.unknown,
  };
}

/** Countries, regions or towns with the companies of a context; or, around a point, how many several distances would hold. */
export function placeCounts(lookup: Lookup, column: PlaceColumn, request: CountsRequest, context: Bits) {
  const { places } = lookup;
  if (request.near) {
    const { within, unknown } = countNear(column, context, request.near.lat, request.near.lon, RADII);
    return { radii: RADII.map((km, i) => ({ km, count: within[i]! })), unknown };
  }
  if (request.level === 'towns') {
    const found = countCategory(column.town, context);
    const text = fold(request.search ?? '');
    const values = [...found.counts]
      .filter(
        ([key, count]) =>
          count > 0 && (!request.within || key.endsWith(`, ${request.within}`)) && fold(key).startsWith(text),
      )
      .sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))
      .slice(0, MOST_TOWNS)
      .map(([key, count]): ValueCount => ({
        key,
        label: key.slice(0, key.lastIndexOf(', ')),
        count,
        group: key.slice(key.lastIndexOf(', ') + 2),
      }));
    return { values, unknown: found.unknown };
  }
  const countries = countCategory(column.country, context);
  const regions = countCategory(column.region, context);
  return {
    countries: [...countries.counts]
      .map(([key, count]): ValueCount => ({ key, label: places.country(key)?.name ?? key, count }))
      .sort(byCount),
    regions: [...regions.counts]
      .map(([key, count]): ValueCount => ({
        key,
        label: places.region(key)?.english ?? key,
        count,
        group: places.region(key)?.country ?? key.slice(0, 2),
      }))
      .sort(byCount),
    unknown: countries.unknown,
  };
}

function byCount(a: ValueCount, b: ValueCount): number {
  return b.count - a.count || (a.label < b.label ? -1 : 1);
}

/** Nodes and all above them, in tree order. */
function withAncestors(tree: CodeTree, nodes: readonly number[]): number[] {
  const all = new Set<number>();
  for (let node of nodes) for (; node >= 0; node = tree.parents[node]!) all.add(node);
  return [...all].sort((a, b) => a - b);
}

/** 0, then 1, 2, 3, 5, 7 in each decade from 10^first to 10^last. */
export function logEdges(first: number, last: number): number[] {
  const edges = [0];
  for (let decade = first; decade <= last; decade++)
    for (const step of [1, 2, 3, 5, 7]) edges.push(step * 10 ** decade);
  return edges;
}

/** Decades up to 1950, then every five years. */
export function yearEdges(now: number): number[] {
  const edges = [0];
  for (let year = 1900; year < now; year += year < 1950 ? 10 : 5) edges.push(year);
  return edges;
}
