import type { CodeCount, ValueCount } from '../../../contract/responses.ts';
import { isScheme, SCHEMES, type CodeTree, type Scheme } from '../../../core/codes/tree.ts';
import { barRanges } from '../../../core/charts/bars.ts';
import { edgesOf } from '../../../core/charts/edges.ts';
import { parseSpan, spanStart, yearOf } from '../../../core/dates.ts';
import type { Field, Store } from '../../../core/fields/field.ts';
import { countBits, countBoth, type Bits } from '../../../core/tally/bits.ts';
import type {
  CategoryColumn,
  CodesColumn,
  KeyedColumn,
  KnownColumn,
  ListColumn,
  ManyColumn,
  PlaceColumn,
  RangeColumn,
  Universe,
} from '../../../core/tally/columns.ts';
import { countCodes, countCodesWithKin, type CodeCounts } from '../../../core/tally/code-counts.ts';
import { countCategory, countMany, histogram } from '../../../core/tally/counts.ts';
import { barTest, columnOf, groupsOf } from '../../../core/tally/evaluate.ts';
import { countKeys, countLists, keyedHistogram } from '../../../core/tally/keyed-counts.ts';
import type { Placed } from '../../../core/tally/placed.ts';
import { FLAG_WORDS } from '../../../core/tally/test-category.ts';
import type { Lookup } from '../../../core/tape/lookup.ts';
import type { ListTest, NumberTest } from '../../../core/tape/nodes.ts';
import { checkTest } from '../../../core/tape/tests.ts';
import { carriedCounts } from './carried-counts.ts';
import { spanAt } from '../../../core/tape/span-at.ts';

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
  // Neither has a column of its own.
  if (field.kind === 'rank' || field.kind === 'peers') return { total };
  const column = columnOf(universe, field);
  const named = (counts: ReadonlyMap<string, number>) =>
    lookup.choices(field).map((choice): ValueCount => ({ ...choice, count: counts.get(choice.key) ?? 0 }));
  switch (field.kind) {
    case 'codes':
      return { total, ...codeCounts(lookup, column as Map<Scheme, CodesColumn>, request, context) };
    case 'place':
      return { total, ...placeCounts(lookup, placedIn(universe, request), request, context) };
    case 'number':
    case 'money': {
      const currency = field.kind === 'money' ? (request.currency ?? 'EUR') : undefined;
      const bars = barsOf(field, lookup);
      const tests = bars.map((bar) => barTest(field, bar, currency ?? '', lookup));
      return { total, bars, ...histogram(column as RangeColumn, context, tests), currency };
    }
    case 'category': {
      const found =
        (column as ManyColumn | CategoryColumn).kind === 'many'
          ? countMany(column as ManyColumn, context, groupsOf(lookup, field), sinceOf(request, lookup))
          : countCategory(column as CategoryColumn, context);
      return { total, values: named(found.counts), unknown: found.unknown };
    }
    case 'flag': {
      const { counts, unknown } =
        (column as KnownColumn).kind === 'known'
          ? countContacts(column as KnownColumn, context, total)
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
        ...keyedCounts(field, column as KeyedColumn, key, context, lookup),
      };
    }
    case 'growth':
      return {
        total,
        ...keyedCounts(field, column as KeyedColumn, request.key ?? 'headcount 1y', context, lookup),
      };
    case 'list':
      if (request.column !== undefined) {
        const members = checkTest(field, request.members, 'members', lookup) as ListTest;
        return carriedCounts(column as ListColumn, members, request.column, context);
      }
      return { total, values: named(countLists(column as ListColumn, context)), unknown: 0 };
    case 'date':
    case 'text':
    case 'record':
    case 'label':
      return { total };
  }
}

/** The day from which values must have been seen first; null where that was not asked. */
function sinceOf({ seen }: CountsRequest, { asOf }: Lookup): number | null {
  return seen === undefined ? null : spanStart(asOf, parseSpan(spanAt(seen, 'seen'))!);
}

function placedIn({ columns, relations }: Universe, { site }: CountsRequest): Placed {
  const own = columns.get('place') as PlaceColumn;
  const sites = relations?.get('sites');
  if (site !== 'any' || !sites) return { own, sites: null };
  const place = sites.related.columns.get('place') as PlaceColumn;
  return { own, sites: { place, hanging: sites.hanging.get('')! } };
}

function countContacts(column: KnownColumn, context: Bits, total: number) {
  const known = countBoth(column.known, context);
  return {
    counts: new Map([
      [FLAG_WORDS.yes, known],
      [FLAG_WORDS.no, total - known],
    ]),
    unknown: 0,
  };
}

function barsOf(field: Field, lookup: Lookup): NumberTest[] {
  return barRanges(field, edgesOf(field, yearOf(lookup.asOf)));
}

function keyedCounts(field: Field, column: KeyedColumn, key: string, context: Bits, lookup: Lookup) {
  const { absent } = field.store as Extract<Store, { at: 'keyed' }>;
  const bars = barsOf(field, lookup);
  return { bars, ...keyedHistogram(column, key, absent, context, bars) };
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
  const found = countedCodes(lookup, columns, scheme, request, context);
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

function countedCodes(
  lookup: Lookup,
  columns: Map<Scheme, CodesColumn>,
  scheme: Scheme,
  { rank, kin }: CountsRequest,
  context: Bits,
): CodeCounts {
  const tree = lookup.codes(scheme);
  const column = columns.get(scheme);
  if (kin) {
    const others = [...columns.values()]
      .filter((one) => one.scheme !== scheme)
      .map((one) => ({
        column: one,
        saying: lookup.crosswalk().sayingYes(one.scheme, scheme, kin === 'possible'),
      }));
    return countCodesWithKin(column ?? null, others, tree, context, rank === 'main');
  }
  return column
    ? countCodes(column, tree, context, rank === 'main')
    : { counts: new Uint32Array(tree.size), unknown: countBits(context) };
}

/** Nodes and all above them, in tree order. */
function withAncestors(tree: CodeTree, nodes: readonly number[]): number[] {
  const all = new Set<number>();
  for (let node of nodes) for (; node >= 0; node = tree.parents[node]!) all.add(node);
  return [...all].sort((a, b) => a - b);
}
