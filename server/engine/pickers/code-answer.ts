import type { CodeAnswer } from '../../../contract/responses.ts';
import { filedTogether } from '../../../core/codes/together.ts';
import type { Scheme } from '../../../core/codes/tree.ts';
import type { CodesColumn, Universe } from '../../../core/tally/columns.ts';
import type { ReferenceData } from '../universe-lookup.ts';

const MOST_TOGETHER = 8;

/** A code with its note, its kin in other schemes and what is often filed together with it; null where there is none. */
export function codeAnswer(
  reference: ReferenceData,
  universe: Universe,
  scheme: Scheme,
  code: string,
): CodeAnswer | null {
  const tree = reference.trees.get(scheme)!;
  const node = tree.nodeOf(code);
  if (node < 0) return null;
  const column = (universe.columns.get('industry') as Map<Scheme, CodesColumn>).get(scheme);
  const kin = reference
    .crosswalk()
    .kinOf(scheme, code)
    .map((one) => {
      const other = reference.trees.get(one.scheme)!;
      return { ...one, title: other.titles[other.nodeOf(one.code)]! };
    });
  return {
    scheme,
    code,
    title: tree.titles[node]!,
    note: reference.note(scheme, code),
    kin,
    together: column ? filedTogether(column, tree, node, MOST_TOGETHER) : [],
  };
}
