import type { CodeTree, Scheme } from '../codes/tree.ts';
import { hasBit } from '../tally/bits.ts';
import { Basis, NO_DAY, type CodesColumn, type Column } from '../tally/columns.ts';

/** What a field says of a record, as numbers of its own: calls `take` with each of its values; with none where it is unknown. */
export type Traits = (record: number, take: (trait: number) => void) => void;

/** Figures are told apart by so many parts, each with as many of the judged. */
const PARTS = 5;
/** Levels of a scheme of codes that are traits beside the code itself. */
const COARSE_LEVEL = 2;

/** The traits of a column; figures and days are parted by those of some records. Null for columns that have none. */
export function traitsOf(
  column: Column,
  among: ArrayLike<number>,
  tree: (scheme: Scheme) => CodeTree,
): Traits | null {
  if (column instanceof Map) return traitsOfCodes(column, among, tree);
  switch (column.kind) {
    case 'category':
      return (r, take) => {
        if (column.values[r] !== 0) take(column.values[r]!);
      };
    case 'many':
      return (r, take) => {
        for (let i = column.offsets[r]!; i < column.offsets[r + 1]!; i++) take(column.values[i]!);
      };
    case 'place':
      return traitsOf(column.country, among, tree);
    case 'range':
      return parted(among, (r) => {
        if (column.basis[r] === Basis.Unknown) return NaN;
        // A band open to one side is told by its other end.
        return Number.isFinite(column.low[r]!) ? column.low[r]! : column.high[r]!;
      });
    case 'date':
      return parted(among, (r) => (column.days[r] === NO_DAY ? NaN : column.days[r]!));
    default:
      return null;
  }
}

/** Main codes of the scheme that most of some records have: the code itself, and the coarser one above it. */
function traitsOfCodes(
  columns: ReadonlyMap<Scheme, CodesColumn>,
  among: ArrayLike<number>,
  tree: (scheme: Scheme) => CodeTree,
): Traits | null {
  const coded = (column: CodesColumn) => Array.from(among).filter((r) => hasBit(column.hasMain, r)).length;
  const [own] = [...columns.values()].sort((a, b) => coded(b) - coded(a));
  if (!own) return null;
  const { parents, levels, size } = tree(own.scheme);
  return (r, take) => {
    if (!hasBit(own.hasMain, r)) return;
    const node = own.nodes[own.offsets[r]!]!;
    let coarse = node;
    while (levels[coarse]! > COARSE_LEVEL && parents[coarse]! >= 0) coarse = parents[coarse]!;
    take(coarse);
    if (coarse !== node) take(size + node);
  };
}

/** Parts of a figure, each with an even share of some records. */
function parted(among: ArrayLike<number>, figure: (record: number) => number): Traits {
  const known = Array.from(among, figure)
    .filter((value) => !Number.isNaN(value))
    .sort((a, b) => a - b);
  const edges = [
    ...new Set(
      Array.from({ length: PARTS - 1 }, (_, i) => known[Math.floor(((i + 1) * known.length) / PARTS)]!),
    ),
  ];
  return (r, take) => {
    const value = figure(r);
    if (Number.isNaN(value) || known.length === 0) return;
    let part = 0;
    while (part < edges.length && value >= edges[part]!) part++;
    take(part);
  };
}
