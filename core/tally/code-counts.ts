import type { CodeTree } from '../codes/tree.ts';
import { hasBit, recordsOf, type Bits } from './bits.ts';
import type { CodesColumn } from './columns.ts';

/** Records by code of a scheme, as a line on that code alone would keep them. */
export interface CodeCounts {
  /** By node. */
  counts: Uint32Array;
  /** Records without a code that says anything. */
  unknown: number;
}

/** A scheme whose codes decide where those of the asked one cannot: the nodes that each of its codes says yes to. */
export interface KinColumn {
  column: CodesColumn;
  saying: readonly (readonly number[])[];
}

/**
 * Records of each code with all that lies below it; a record counts once for a code however many of
 * its codes are there. Records with one code, which are most, are counted at their own node first
 * and carried up the tree together.
 */
export function countCodes(
  column: CodesColumn,
  tree: CodeTree,
  context: Bits,
  mainOnly: boolean,
): CodeCounts {
  const { parents } = tree;
  const counts = new Uint32Array(tree.size);
  const several = new Uint32Array(tree.size);
  const lastAt = new Int32Array(tree.size).fill(-1);
  let unknown = 0;
  for (const r of recordsOf(context)) {
    const start = column.offsets[r]!;
    const end = endOf(column, r, mainOnly);
    if (start === end) unknown++;
    else if (end === start + 1) counts[column.nodes[start]!]!++;
    else
      for (let i = start; i < end; i++)
        for (let node = column.nodes[i]!; node >= 0 && lastAt[node] !== r; node = parents[node]!) {
          lastAt[node] = r;
          several[node]!++;
        }
  }
  for (let node = tree.size - 1; node >= 0; node--) {
    if (parents[node]! >= 0) counts[parents[node]!]! += counts[node]!;
    counts[node]! += several[node]!;
  }
  return { counts: withOnlyChildren(counts, tree), unknown };
}

/**
 * The same where codes of other schemes decide for records that have none of this scheme, or one too coarse to tell.
 * `column` is null where no record is coded in the scheme itself.
 */
export function countCodesWithKin(
  column: CodesColumn | null,
  kin: readonly KinColumn[],
  tree: CodeTree,
  context: Bits,
  mainOnly: boolean,
): CodeCounts {
  const { parents } = tree;
  const counts = new Uint32Array(tree.size);
  const lastAt = new Int32Array(tree.size).fill(-1);
  const ownAt = new Int32Array(tree.size).fill(-1);
  let unknown = 0;
  for (const r of recordsOf(context)) {
    let coded = false;
    if (column) {
      const end = endOf(column, r, mainOnly);
      for (let i = column.offsets[r]!; i < end; i++) {
        coded = true;
        ownAt[column.nodes[i]!] = r;
        for (let node = column.nodes[i]!; node >= 0 && lastAt[node] !== r; node = parents[node]!) {
          lastAt[node] = r;
          counts[node]!++;
        }
      }
    }
    let linked = coded;
    for (const { column: other, saying } of kin) {
      const end = endOf(other, r, mainOnly);
      for (let i = other.offsets[r]!; i < end; i++) {
        linked = true;
        for (const node of saying[other.nodes[i]!]!) {
          if (lastAt[node] === r || (coded && !isBelow(node, ownAt, r, parents))) continue;
          lastAt[node] = r;
          counts[node]!++;
        }
      }
    }
    if (!linked) unknown++;
  }
  return { counts: withOnlyChildren(counts, tree), unknown };
}

/** Whether a record has an own code over a node, which leaves it unknown whether it is meant. */
function isBelow(node: number, ownAt: Int32Array, r: number, parents: Int32Array): boolean {
  for (let over = parents[node]!; over >= 0; over = parents[over]!) if (ownAt[over] === r) return true;
  return false;
}

function endOf({ offsets, hasMain }: CodesColumn, r: number, mainOnly: boolean): number {
  if (!mainOnly) return offsets[r + 1]!;
  return hasBit(hasMain, r) ? offsets[r]! + 1 : offsets[r]!;
}

/** A code that stands alone below another says the same as that one. */
function withOnlyChildren(counts: Uint32Array, tree: CodeTree): Uint32Array {
  for (let node = 0; node < tree.size; node++) {
    const over = tree.onlyChildOf(node);
    if (over >= 0) counts[node] = counts[over]!;
  }
  return counts;
}
