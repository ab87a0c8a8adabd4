import { wantedCount, type HasLine } from '../tape/nodes.ts';
import { allBits, countBits, countBoth, noBits, type Bits } from './bits.ts';
import type { Relation } from './columns.ts';
import {
  anyVerdict,
  companiesOf,
  countByCompany,
  countByRecord,
  countVerdict,
  linkedRecords,
  recordsAt,
  type Links,
  type RelatedCounts,
} from './links.ts';
import type { Verdict } from './verdict.ts';

/** Related records at a has-line: how many hang on anything in its role, and of those how many surely pass and how many may. */
export interface RelatedFigures {
  all: number;
  sure: number;
  possible: number;
}

export function linksOf(relation: Relation, line: Pick<HasLine, 'as'>): Links {
  return relation.links.get(line.as ?? '')!;
}

/** The records of which it is known what hangs on them. */
function knownTo(relation: Relation, links: Links, size: number): Bits {
  return relation.known ?? linkedRecords(links, size);
}

/** How many related records hang on each record, of those that surely pass the inner lines and those that may. */
export function relatedCounts(
  line: HasLine,
  relation: Relation,
  inner: Verdict,
  size: number,
): RelatedCounts & { known: Bits } {
  const links = linksOf(relation, line);
  const counts = relation.down
    ? countByCompany(inner.yes, inner.unknown, links, size, relation.hanging.get(line.as ?? ''))
    : countByRecord(inner.yes, inner.unknown, links, size);
  return { ...counts, known: knownTo(relation, links, size) };
}

/** What a has-line says of every record, given what its inner lines say of every related one. */
export function hasVerdict(line: HasLine, relation: Relation, inner: Verdict, size: number): Verdict {
  const links = linksOf(relation, line);
  const { from, to } = wantedCount(line);
  if (from === 1 && to === Infinity) {
    const known = knownTo(relation, links, size);
    const at = (set: Bits) =>
      relation.down
        ? companiesOf(set, links, size, relation.hanging.get(line.as ?? ''))
        : recordsAt(set, links, size);
    return anyVerdict(at(inner.yes), at(inner.unknown), known, size);
  }
  const { known, ...counts } = relatedCounts(line, relation, inner, size);
  return countVerdict(counts, from, to, known, size);
}

/** Figures of the related records themselves; from below only companies that something hangs on are counted. */
export function relatedFigures(line: HasLine, relation: Relation, inner: Verdict): RelatedFigures {
  const links = linksOf(relation, line);
  if (!relation.down)
    return { all: relation.related.size, sure: countBits(inner.yes), possible: countBits(inner.unknown) };
  const hanging = linkedRecords(links, relation.related.size);
  return {
    all: countBits(hanging),
    sure: countBoth(hanging, inner.yes),
    possible: countBoth(hanging, inner.unknown),
  };
}

/** The related records that hang on any record of a set, in the role of a line. */
export function relatedTo(set: Bits, line: HasLine, relation: Relation): Bits {
  const links = linksOf(relation, line);
  return relation.down
    ? recordsAt(set, links, relation.related.size)
    : companiesOf(set, links, relation.related.size);
}

/** Verdicts of several lines as one: yes where all say yes, no where any says no. */
export function together(verdicts: readonly Verdict[], size: number): Verdict {
  if (verdicts.length === 0) return { yes: allBits(size), unknown: noBits(size) };
  const [first, ...others] = verdicts;
  if (others.length === 0) return first!;
  const yes = first!.yes.slice();
  const unknown = first!.unknown.slice();
  for (const one of others)
    for (let w = 0; w < yes.length; w++) {
      const oneYes = one.yes[w]!;
      const oneUnknown = one.unknown[w]!;
      unknown[w] = (unknown[w]! & (oneYes | oneUnknown)) | (yes[w]! & oneUnknown);
      yes[w]! &= oneYes;
    }
  return { yes, unknown };
}
