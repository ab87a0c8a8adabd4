import { wantedCount, type HasLine } from '../tape/nodes.ts';
import { addBits, allBits, countBits, countBoth, isEmpty, keepBits, noBits, type Bits } from './bits.ts';
import type { Relation } from './columns.ts';
import {
  companiesOf,
  companiesWith,
  countByCompany,
  countByRecord,
  countVerdict,
  linkedRecords,
  recordsAt,
  recordsWithCompanies,
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
  return relation.known ?? linkedRecords(links, size).records;
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
  const hanging = relation.hanging.get(line.as ?? '');
  const having = (least: number, set: Bits) =>
    relation.down
      ? companiesWith(least, set, links, size, hanging)
      : recordsWithCompanies(least, set, links, size);
  const possible = isEmpty(inner.unknown) ? null : inner.yes.slice();
  if (possible) addBits(possible, inner.unknown);
  const atLeast = (least: number) => {
    if (least <= 0) return { sure: allBits(size), possible: allBits(size) };
    const sure = having(least, inner.yes);
    return { sure, possible: possible ? having(least, possible) : sure };
  };
  const over = to === Infinity ? null : atLeast(to + 1);
  return countVerdict(atLeast(from), over, knownTo(relation, links, size), size);
}

/** Figures of the related records themselves; from below only companies that something hangs on are counted. */
export function relatedFigures(line: HasLine, relation: Relation, inner: Verdict): RelatedFigures {
  const links = linksOf(relation, line);
  if (!relation.down)
    return { all: relation.related.size, sure: countBits(inner.yes), possible: countBits(inner.unknown) };
  const { records, count } = linkedRecords(links, relation.related.size);
  return {
    all: count,
    sure: countBoth(records, inner.yes),
    possible: isEmpty(inner.unknown) ? 0 : countBoth(records, inner.unknown),
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
  // Most subjects know all that is asked of them.
  if (verdicts.every((one) => isEmpty(one.unknown))) {
    for (const one of others) keepBits(yes, one.yes);
    return { yes, unknown: first!.unknown };
  }
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
