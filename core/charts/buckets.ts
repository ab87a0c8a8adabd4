import type { CodeTree, Scheme } from '../codes/tree.ts';
import { isoOf } from '../dates.ts';
import { fieldOf } from '../fields/registry.ts';
import {
  NO_DAY,
  type Column,
  type CategoryColumn,
  type CodesColumn,
  type DateColumn,
  type KeyedColumn,
  type ManyColumn,
  type PlaceColumn,
  type RangeColumn,
  type SmallNumbers,
  type Universe,
} from '../tally/columns.ts';
import { barTest, columnOf, groupsOf } from '../tally/evaluate.ts';
import { barNumbers, keyedBarNumbers } from '../tally/in-bars.ts';
import { yearOf } from '../dates.ts';
import type { Lookup } from '../tape/lookup.ts';
import type { Axis } from './chart.ts';
import { barRanges } from './bars.ts';
import { coarse, edgesOf } from './edges.ts';

/** The records of a universe by the groups of an axis. */
export interface Buckets {
  /** In the axis's own order. */
  keys: readonly string[];
  /** Whether that order means something, so that all groups are shown in it. */
  ordered: boolean;
  /** Numbers: where each group begins; the last is open. */
  edges: readonly number[] | null;
  /** By record: 0 unknown, n is `keys[n - 1]`, and `keys.length + 1` a band that no group holds. Null where records have several. */
  single: SmallNumbers | null;
  /** Where records have any number of values: those of r are `values[offsets[r] … offsets[r + 1]]`, indexes of `keys`. */
  many: { offsets: Uint32Array; values: SmallNumbers; known: Uint32Array } | null;
}

/** The scheme in which an axis of industry codes groups. */
export const AXIS_SCHEME: Scheme = 'nace-2.1';

/** What is grouped, and by what. */
export interface Grouping {
  universe: Universe;
  subject: string;
  axis: Axis;
  lookup: Lookup;
  /** That of the bars money falls into. */
  currency: string;
  /** Whether bars of figures are wider. */
  wide: boolean;
}

/** Groups the records of a universe by an axis. */
export function bucketsOf(grouping: Grouping): Buckets {
  const { universe, subject, axis, lookup } = grouping;
  const field = fieldOf(subject, axis.field)!;
  const column = universe.columns.get(field.yearsSince ?? field.id);
  if (!column) return nothing(universe.size);
  switch (field.kind) {
    case 'codes':
      return byCode(column as Map<Scheme, CodesColumn>, lookup.codes(AXIS_SCHEME), axis.level, universe.size);
    case 'place': {
      const place = column as PlaceColumn;
      const of = axis.level === 'country' ? place.country : axis.level === 'town' ? place.town : place.region;
      return byCategory(of, false);
    }
    case 'date':
      return byDay((column as DateColumn).days, axis.level === 'month');
    case 'number':
    case 'money':
    case 'keyed':
    case 'growth':
      return byFigure(grouping);
    case 'category': {
      const own = column as CategoryColumn | ManyColumn;
      if (own.kind === 'category')
        return byCategory(
          own,
          field.ordered === true,
          field.values?.map(({ key }) => key),
        );
      return axis.level === 'category' ? byGroup(own, groupsOf(lookup, field)) : byMany(own);
    }
    case 'flag':
      return byCategory(column as CategoryColumn, false);
    default:
      return nothing(universe.size);
  }
}

/** An axis of which nothing is known. */
function nothing(size: number): Buckets {
  return { keys: [], ordered: false, edges: null, single: new Uint8Array(size), many: null };
}

function byCategory(
  { dictionary, values }: CategoryColumn,
  ordered: boolean,
  order?: readonly string[],
): Buckets {
  if (!ordered || !order)
    return { keys: dictionary, ordered: false, edges: null, single: values, many: null };
  const places = Uint8Array.from([0, ...dictionary.map((key) => order.indexOf(key) + 1)]);
  const single = new Uint8Array(values.length);
  for (let r = 0; r < values.length; r++) single[r] = places[values[r]!]!;
  return { keys: order, ordered: true, edges: null, single, many: null };
}

function byMany({ dictionary, offsets, values, known }: ManyColumn): Buckets {
  return { keys: dictionary, ordered: false, edges: null, single: null, many: { offsets, values, known } };
}

/** Groups of values: a record is in each group of which it has any value, once. */
function byGroup(
  { dictionary, offsets, values, known }: ManyColumn,
  groups: ReadonlyMap<string, readonly string[]>,
): Buckets {
  const keys = [...groups.keys()];
  const groupOf = new Map(keys.flatMap((key, g) => groups.get(key)!.map((member) => [member, g] as const)));
  const of = Int32Array.from(dictionary, (key) => groupOf.get(key) ?? -1);
  const starts = new Uint32Array(offsets.length);
  const found: number[] = [];
  const last = new Int32Array(keys.length).fill(-1);
  for (let r = 0; r + 1 < offsets.length; r++) {
    for (let i = offsets[r]!; i < offsets[r + 1]!; i++) {
      const group = of[values[i]!]!;
      if (group < 0 || last[group] === r) continue;
      last[group] = r;
      found.push(group);
    }
    starts[r + 1] = found.length;
  }
  return {
    keys,
    ordered: false,
    edges: null,
    single: null,
    many: { offsets: starts, values: Uint16Array.from(found), known },
  };
}

const CODE_LEVELS: Readonly<Record<string, number>> = { section: 1, division: 2, group: 3, class: 4 };

/** By the code of a level that lies over a record's main code; one coded coarser, or in another scheme alone, is unknown. */
function byCode(
  columns: ReadonlyMap<Scheme, CodesColumn>,
  tree: CodeTree,
  level: string | undefined,
  size: number,
): Buckets {
  const wanted = CODE_LEVELS[level ?? 'group']!;
  const keys: string[] = [];
  const of = new Uint16Array(tree.size);
  for (let node = 0; node < tree.size; node++)
    if (tree.levels[node] === wanted) {
      const key = keys.push(tree.codes[node]!);
      of.fill(key, node, tree.ends[node]);
      // A code that has no other below it says the same.
      for (let over = tree.onlyChildOf(node); over >= 0; over = tree.onlyChildOf(over)) of[over] = key;
    }
  const single = new Uint16Array(size);
  const column = columns.get(AXIS_SCHEME);
  if (column)
    for (let r = 0; r < size; r++)
      if ((column.hasMain[r >> 5]! >>> (r & 31)) & 1) single[r] = of[column.nodes[column.offsets[r]!]!]!;
  return { keys, ordered: false, edges: null, single, many: null };
}

/** Years or months that an axis of dates has at most; what is earlier stands together with the first. */
const MOST_TIMES = 18;
/** Before the key of a year or month that holds all earlier ones too. */
export const AND_BEFORE = '<=';

function byDay(days: Int32Array, monthly: boolean): Buckets {
  let first = Infinity;
  let last = -Infinity;
  for (let r = 0; r < days.length; r++)
    if (days[r] !== NO_DAY) {
      if (days[r]! < first) first = days[r]!;
      if (days[r]! > last) last = days[r]!;
    }
  if (first > last) return nothing(days.length);
  const width = monthly ? 7 : 4;
  const latest: string[] = [];
  let earlier = false;
  const numbers = new Uint8Array(last - first + 1);
  for (let day = last; day >= first; day--) {
    const key = isoOf(day).slice(0, width);
    if (latest.at(-1) !== key) {
      if (latest.length < MOST_TIMES) latest.push(key);
      else earlier = true;
    }
    numbers[day - first] = latest.length;
  }
  const keys = latest.toReversed();
  if (earlier) keys[0] = AND_BEFORE + keys[0]!;
  const single = new Uint8Array(days.length);
  for (let r = 0; r < days.length; r++)
    if (days[r] !== NO_DAY) single[r] = keys.length + 1 - numbers[days[r]! - first]!;
  return { keys, ordered: true, edges: null, single, many: null };
}

/** Bars of a figure, holding what a line on each would keep. A band that lies in one bar is counted there. */
function byFigure({ universe, subject, axis, lookup, currency, wide }: Grouping): Buckets {
  const field = fieldOf(subject, axis.field)!;
  const fine = edgesOf(field, yearOf(lookup.asOf));
  const edges = wide ? coarse(fine) : fine;
  const column = columnOf(universe, field) as RangeColumn | KeyedColumn;
  const bars = barRanges(field, edges);
  const { size } = universe;
  const single =
    column.kind === 'keyed'
      ? keyedBarNumbers(column, axis.key!, (field.store as { absent: 0 | null }).absent, bars, size)
      : barNumbers(
          column,
          bars.map((bar) => barTest(field, bar, currency, lookup)),
          size,
        );
  return { keys: edges.map(String), ordered: true, edges, single, many: null };
}

/** The columns that buckets are made of, so that they can be kept as long as those. */
export function sourceColumn(universe: Universe, subject: string, axis: Axis): Column | undefined {
  const field = fieldOf(subject, axis.field)!;
  return universe.columns.get(field.yearsSince ?? field.id);
}
