import type { CodesColumn } from '../tally/columns.ts';
import type { CodeTree } from './tree.ts';

/** A code that records with another code have too, and how many of them. */
export interface FiledTogether {
  code: string;
  title: string;
  count: number;
  /** Of the records with the code asked for, 0 to 1. */
  share: number;
}

/** The lowest codes most often filed together with a code or any below it, the most frequent first. */
export function filedTogether(
  column: CodesColumn,
  tree: CodeTree,
  node: number,
  limit: number,
): FiledTogether[] {
  const { postings, offsets, nodes } = column;
  const end = tree.ends[node]!;
  const tallies = new Uint32Array(tree.size);
  const seen = new Set<number>();
  for (let i = postings.starts[node]!; i < postings.starts[end]!; i++) {
    const r = postings.records[i]!;
    if (seen.has(r)) continue;
    seen.add(r);
    for (let at = offsets[r]!; at < offsets[r + 1]!; at++) {
      const other = nodes[at]!;
      if ((other < node || other >= end) && tree.isLeaf(other)) tallies[other]!++;
    }
  }
  return [...tallies.keys()]
    .filter((other) => tallies[other]! > 0)
    .sort((a, b) => tallies[b]! - tallies[a]! || a - b)
    .slice(0, limit)
    .map((other) => ({
      code: tree.codes[other]!,
      title: tree.titles[other]!,
      count: tallies[other]!,
      share: tallies[other]! / seen.size,
    }));
}
