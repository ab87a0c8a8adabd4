import type { Crosswalk } from '../codes/crosswalk.ts';
import type { CodeTree, Scheme } from '../codes/tree.ts';
import { hasBit } from '../tally/bits.ts';
import type { CodesColumn } from '../tally/columns.ts';

/** What a code that is not the main one weighs beside it. */
const OTHER_CODE = 0.75;
/** What a possible link between schemes weighs beside a sure one. */
const POSSIBLE_LINK = 0.8;

/**
 * How alike the codes of each record are to those of the seeds, from 0 to 1; NaN where a record has none. Two codes are
 * alike by what they share: the information of the lowest code over both, in relation to that of the two (Lin 1998, "An
 * information-theoretic definition of similarity"), where a code's information is how rare it is. Null where no seed is coded.
 */
export function codesPart(
  columns: ReadonlyMap<Scheme, CodesColumn>,
  trees: (scheme: Scheme) => CodeTree,
  crosswalk: () => Crosswalk,
  seeds: readonly number[],
  size: number,
): Float32Array | null {
  const own = new Map<Scheme, Float32Array>();
  for (const column of columns.values()) {
    const wanted = seedCodes(column, seeds);
    if (wanted.size)
      own.set(
        column.scheme,
        alikeNodes(trees(column.scheme), informationOf(column, trees(column.scheme), size), wanted),
      );
  }
  if (own.size === 0) return null;
  const scores = new Float32Array(size).fill(NaN);
  for (const column of columns.values()) {
    const alike = own.get(column.scheme) ?? throughCrosswalk(trees(column.scheme), own, trees, crosswalk());
    const { offsets, nodes, hasMain } = column;
    let end = 0;
    for (let r = 0; r < size; r++) {
      const start = end;
      end = offsets[r + 1]!;
      if (start === end) continue;
      const first = alike[nodes[start]!]!;
      let best = hasBit(hasMain, r) ? first : OTHER_CODE * first;
      for (let i = start + 1; i < end; i++) best = Math.max(best, OTHER_CODE * alike[nodes[i]!]!);
      scores[r] = scores[r]! > best ? scores[r]! : best;
    }
  }
  return scores;
}

/** The seeds' codes, each weighed by how many seeds have it and whether as their main one. */
function seedCodes({ offsets, nodes, hasMain }: CodesColumn, seeds: readonly number[]): Map<number, number> {
  const found = new Map<number, number>();
  for (const r of seeds)
    for (let i = offsets[r]!; i < offsets[r + 1]!; i++) {
      const weight = hasBit(hasMain, r) && i === offsets[r]! ? 1 : OTHER_CODE;
      found.set(nodes[i]!, (found.get(nodes[i]!) ?? 0) + weight);
    }
  const most = Math.max(...found.values());
  for (const [node, weight] of found) found.set(node, seeds.length === 1 ? weight : Math.sqrt(weight / most));
  return found;
}

/** How rare each code is with all below it, as the negative logarithm of its share. */
function informationOf({ postings }: CodesColumn, tree: CodeTree, size: number): Float64Array {
  return Float64Array.from(tree.codes, (_, node) => {
    const records = postings.starts[tree.ends[node]!]! - postings.starts[node]!;
    return -Math.log((records + 1) / (size + tree.size));
  });
}

/** By node, its likeness to the most alike of some wanted codes. */
function alikeNodes(
  tree: CodeTree,
  information: Float64Array,
  wanted: ReadonlyMap<number, number>,
): Float32Array {
  const alike = new Float32Array(tree.size);
  for (const [want, weight] of wanted)
    for (let node = 0; node < tree.size; node++) {
      let over = node;
      while (over >= 0 && !(over <= want && want < tree.ends[over]!)) over = tree.parents[over]!;
      if (over < 0) continue;
      const score =
        (weight * 2 * Math.max(0, information[over]!)) / (information[want]! + information[node]!);
      if (score > alike[node]!) alike[node] = Math.min(1, score);
    }
  return alike;
}

/** Likeness of the codes of a scheme that no seed is coded in, by what they are linked with. */
function throughCrosswalk(
  tree: CodeTree,
  own: ReadonlyMap<Scheme, Float32Array>,
  trees: (scheme: Scheme) => CodeTree,
  crosswalk: Crosswalk,
): Float32Array {
  const alike = new Float32Array(tree.size);
  for (const [scheme, scores] of own) {
    const { targets, chained } = crosswalk.leafTargets(tree.scheme, scheme);
    const aim = trees(scheme);
    for (let node = tree.size - 1; node >= 0; node--) {
      let best = alike[node]!;
      if (tree.isLeaf(node)) {
        const sure = !chained && targets[node]!.length === 1;
        for (const target of targets[node]!)
          if (target >= 0 && target < aim.size)
            best = Math.max(best, scores[target]! * (sure ? 1 : POSSIBLE_LINK));
      } else
        for (let child = node + 1; child < tree.ends[node]!; child = tree.ends[child]!)
          best = Math.max(best, alike[child]! * POSSIBLE_LINK);
      alike[node] = best;
    }
  }
  return alike;
}
