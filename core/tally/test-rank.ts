import type { CodeTree, Scheme } from '../codes/tree.ts';
import type { RankTest } from '../tape/nodes.ts';
import { scaleTo } from './amounts.ts';
import { hasBit, noBits, setBit } from './bits.ts';
import { Basis, type CodesColumn, type PlaceColumn, type RangeColumn, type Universe } from './columns.ts';
import { orderBy } from './order.ts';
import type { Verdict } from './verdict.ts';

/** Ranks that were worked out, by what they are by and among: sorting a universe takes longer than all other tests. */
const known = new WeakMap<Universe, Map<string, Uint32Array>>();

/** Places between limits in the order by a figure, among the companies of the same group; unknown where it has no figure or no group. */
export function testRank(
  universe: Universe,
  test: RankTest,
  estimates: boolean,
  trees: (scheme: Scheme) => CodeTree,
): Verdict {
  const name = `${test.by} ${test.among} ${estimates}`;
  let ranks = known.get(universe);
  if (!ranks) known.set(universe, (ranks = new Map<string, Uint32Array>()));
  let places = ranks.get(name);
  if (!places) ranks.set(name, (places = placesOf(universe, test, estimates, trees)));
  const yes = noBits(universe.size);
  const unknown = noBits(universe.size);
  const from = test.from ?? 1;
  const to = test.to ?? Infinity;
  for (let r = 0; r < places.length; r++) {
    const place = places[r]!;
    if (place === 0) setBit(unknown, r);
    else if (place >= from && place <= to) setBit(yes, r);
  }
  return { yes, unknown };
}

/** The place of each record within its group, 0 where it has none. Equal figures share the first of their places. */
function placesOf(
  universe: Universe,
  { by, among }: RankTest,
  estimates: boolean,
  trees: (scheme: Scheme) => CodeTree,
): Uint32Array {
  const { size } = universe;
  const column = universe.columns.get(by) as RangeColumn;
  const groups = groupsOf(universe, among, trees);
  const scale = scaleTo(column, 'EUR');
  const keys = new Float64Array(size).fill(NaN);
  for (let r = 0; r < size; r++)
    if (
      groups[r] !== 0 &&
      (column.basis[r] === Basis.Reported || (estimates && column.basis[r] === Basis.Estimate))
    )
      keys[r] = scale(column.low[r]!, r);
  const places = new Uint32Array(size);
  const seen: number[] = [];
  const last: { value: number; place: number }[] = [];
  for (const r of orderBy([{ keys, descending: true }], size)) {
    const value = keys[r]!;
    if (Number.isNaN(value)) break;
    const group = groups[r]!;
    seen[group] = (seen[group] ?? 0) + 1;
    const before = last[group];
    const place = before?.value === value ? before.place : seen[group];
    last[group] = { value, place };
    places[r] = place;
  }
  return places;
}

/** The group of each record, 0 where it has none: its country, the division of its main code in NACE 2.1, or all as one. */
function groupsOf(
  universe: Universe,
  among: RankTest['among'],
  trees: (scheme: Scheme) => CodeTree,
): ArrayLike<number> {
  if (among === 'country') return (universe.columns.get('place') as PlaceColumn).country.values;
  const groups = new Uint32Array(universe.size);
  if (among === 'all') return groups.fill(1);
  const codes = (universe.columns.get('industry') as Map<Scheme, CodesColumn>).get('nace-2.1');
  if (!codes) return groups;
  const divisions = divisionsOf(trees('nace-2.1'));
  for (let r = 0; r < groups.length; r++)
    if (hasBit(codes.hasMain, r)) groups[r] = divisions[codes.nodes[codes.offsets[r]!]!]!;
  return groups;
}

/** The division (level 2) over each node as a number above 0; 0 for sections, which lie over divisions. */
function divisionsOf(tree: CodeTree): Uint32Array {
  const divisions = new Uint32Array(tree.size);
  for (let node = 0; node < tree.size; node++)
    if (tree.levels[node] === 2) divisions.fill(node + 1, node, tree.ends[node]);
  return divisions;
}
