import type { CodeCount, ValueCount } from '../../contract/responses.ts';
import { isScheme, SCHEMES, type CodeTree, type Scheme } from '../../core/codes/tree.ts';
import { AGES, edgesOf, GROWTH_EDGES } from '../../core/charts/edges.ts';
import { yearOf } from '../../core/dates.ts';
import type { Field, Store } from '../../core/fields/field.ts';
import { countBits, countBoth, type Bits } from '../../core/tally/bits.ts';
import type {
  CategoryColumn,
  CodesColumn,
  KeyedColumn,
  ListColumn,
  ManyColumn,
  PlaceColumn,
  RangeColumn,
  Universe,
} from '../../core/tally/columns.ts';
import { countCategory, countCodes, countMany, histogram, type Histogram } from '../../core/tally/counts.ts';
import { columnOf, groupsOf } from '../../core/tally/evaluate.ts';
import { countKeys, countLists, keyedHistogram } from '../../core/tally/keyed-counts.ts';
import { FLAG_WORDS } from '../../core/tally/test-category.ts';
import type { Lookup } from '../../core/tape/lookup.ts';
import type { CountsRequest } from './counts-request.ts';
import { placeCounts } from './place-counts.ts';

/** The choices that a picker offers, each with its companies within a context. */
export function countsOf(
  universe: Universe,
  lookup: Lookup,
  field: Field,
  request: CountsRequest,
  context: Bits,
): Record<string, unknown> {
  const total = countBits(context);
  if (field.kind === 'rank') return { total };
  const column = columnOf(universe, field);
  const named = (counts: ReadonlyMap<string, number>) =>
    lookup.choices(field).map((choice): ValueCount => ({ ...choice, count: counts.get(choice.key) ?? 0 }));
  switch (field.kind) {
    case 'codes':
      return { total, ...codeCounts(lookup, column as Map<Scheme, CodesColumn>, request, context) };
    case 'place':
      return { total, ...placeCounts(lookup, column as PlaceColumn, request, context) };
    case 'number':
    case 'money': {
      const currency = field.kind === 'money' ? (request.currency ?? 'EUR') : undefined;
      const found = histogram(column as RangeColumn, context, edgesOf(field, yearOf(lookup.asOf)), currency);
      return {
        total,
        ...plainHistogram(field.yearsSince ? backwards(found) : found),
        currency,
      };
    }
    case 'category': {
      const found =
        (column as ManyColumn | CategoryColumn).kind === 'many'
          ? countMany(column as ManyColumn, context, groupsOf(lookup, field))
          : countCategory(column as CategoryColumn, context);
      return { total, values: named(found.counts), unknown: found.unknown };
    }
    case 'flag': {
      const { counts, unknown } =
        (column as ListColumn).kind === 'list'
          ? countContacts(column as ListColumn, context, total)
          : countCategory(column as CategoryColumn, context);
      const values = Object.values(FLAG_WORDS).map((key) => ({
        key,
        label: key,
        count: counts.get(key) ?? 0,
      }));
      return { total, values, unknown };
    }
    case 'keyed': {
      const counts = countKeys(column as KeyedColumn, context);
      const values = field.values!.map((value) => ({ ...value, count: counts.get(value.key) ?? 0 }));
      const key = request.key ?? field.values![0]!.key;
      return {
        total,
        values,
        ...keyedCounts(field, column as KeyedColumn, key, context, edgesOf(field, yearOf(lookup.asOf))),
      };
    }
    case 'growth':
      return {
        total,
        ...keyedCounts(field, column as KeyedColumn, request.key ?? 'headcount 1y', context, [
          ...GROWTH_EDGES,
        ]),
      };
    case 'list':
      return { total, values: named(countLists(column as ListColumn, context)), unknown: 0 };
    case 'date':
    case 'text':
    case 'record':
    case 'peers':
    case 'label':
      return { total };
  }
}

function countContacts({ lists }: ListColumn, context: Bits, total: number) {
  const known = countBoth(lists.get('')!.in, context);
  return {
    counts: new Map([
      [FLAG_WORDS.yes, known],
      [FLAG_WORDS.no, total - known],
    ]),
    unknown: 0,
  };
}

function keyedCounts(field: Field, column: KeyedColumn, key: string, context: Bits, edges: number[]) {
  const { absent } = field.store as Extract<Store, { at: 'keyed' }>;
  return plainHistogram(keyedHistogram(column, key, absent, context, edges));
}

function plainHistogram({ counts, estimated, ...rest }: Histogram) {
  return { ...rest, counts: [...counts], estimated: [...estimated] };
}

/** A histogram of the calendar years that `edgesOf` made of AGES, as one of years passed. */
function backwards(found: Histogram): Histogram {
  return {
    ...found,
    edges: [...AGES],
    counts: found.counts.toReversed(),
    estimated: found.estimated.toReversed(),
  };
}

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

/** Nodes and all above them, in tree order. */
function withAncestors(tree: CodeTree, nodes: readonly number[]): number[] {
  const all = new Set<number>();
  for (let node of nodes) for (; node >= 0; node = tree.parents[node]!) all.add(node);
  return [...all].sort((a, b) => a - b);
}
