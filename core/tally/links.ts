import { countBits, isEmpty, noBits, notBits, popcount, recordsOf, setBit, type Bits } from './bits.ts';
import type { Verdict } from './verdict.ts';

/**
 * The companies that each related record hangs on: those of record r are `companies[starts[r] … starts[r + 1]]`, each once;
 * where `starts` is null each record has exactly one place, which is NOBODY where its company is not known.
 */
export interface Links {
  starts: Uint32Array | null;
  companies: Int32Array;
}

/** Below zero, so that the numbers stay small ones in the loops below. */
export const NOBODY = -1;

/** Related records that pass for sure and those that may, by the record they hang on. */
export interface RelatedCounts {
  sure: Uint32Array;
  /** Sure ones included. */
  possible: Uint32Array;
}

/**
 * The same the other way round: the records of company c are `records[starts[c] … starts[c + 1]]`, or, where `records` is
 * null because records stand in the order of their companies, those numbers themselves; then `firsts` has the first
 * record of each company.
 */
export type Hanging =
  | { starts: Uint32Array; records: Int32Array; firsts: null }
  | { starts: Uint32Array; records: null; firsts: Bits };

/** Turns links round, over `size` companies. */
export function hangingOn({ starts: own, companies }: Links, count: number, size: number): Hanging {
  const starts = new Uint32Array(size + 1);
  let inOrder = own === null;
  for (let i = 0; i < companies.length; i++) {
    const company = companies[i]!;
    if (company === NOBODY || (i > 0 && company < companies[i - 1]!)) inOrder = false;
    if (company !== NOBODY) starts[company + 1]!++;
  }
  for (let c = 0; c < size; c++) starts[c + 1]! += starts[c]!;
  if (inOrder) {
    const firsts = noBits(count);
    for (let c = 0; c < size; c++) if (starts[c + 1]! > starts[c]!) setBit(firsts, starts[c]!);
    return { starts, records: null, firsts };
  }
  const records = new Int32Array(starts[size]!);
  const next = starts.slice();
  for (let r = 0; r < count; r++) {
    const end = own ? own[r + 1]! : r + 1;
    for (let i = own ? own[r]! : r; i < end; i++) {
      const company = companies[i]!;
      if (company !== NOBODY) records[next[company]!++] = r;
    }
  }
  return { starts, records, firsts: null };
}

/** One company in so many: sets with fewer records are walked by their records, others company by company. */
const SPARSE = 8;

/** Adds 1 at every company that a record of the set hangs on. */
function countUp(set: Bits, { starts, companies }: Links, counts: Uint32Array): void {
  for (const r of recordsOf(set)) {
    if (starts) for (let i = starts[r]!; i < starts[r + 1]!; i++) counts[companies[i]!]!++;
    else if (companies[r] !== NOBODY) counts[companies[r]!]!++;
  }
}

/** How many records of a set hang on each company, added to `counts`. */
function countHanging(set: Bits, { starts, records }: Hanging, counts: Uint32Array): void {
  if (!records) {
    countInOrder(set, starts, counts);
    return;
  }
  for (let c = 0; c < counts.length; c++) {
    const end = starts[c + 1]!;
    let count = 0;
    for (let i = starts[c]!; i < end; i++) count += (set[records[i]! >> 5]! >>> (records[i]! & 31)) & 1;
    counts[c]! += count;
  }
}

/** How many records of a set stand in the words before each word. */
function runningCounts(set: Bits): Uint32Array {
  const before = new Uint32Array(set.length + 1);
  for (let w = 0; w < set.length; w++) before[w + 1] = before[w]! + popcount(set[w]!);
  return before;
}

/** How many records of a set stand before a number. */
function countBefore(set: Bits, before: Uint32Array, to: number): number {
  const w = to >> 5;
  const low = to & 31;
  return low === 0 ? before[w]! : before[w]! + popcount(set[w]! & ~(-1 << low));
}

/** Where records stand in the order of their companies, a company has as many of a set as stand before its last, less those before its first. */
function countInOrder(set: Bits, starts: Uint32Array, counts: Uint32Array): void {
  const before = runningCounts(set);
  let passed = 0;
  for (let c = 0; c < counts.length; c++) {
    const now = countBefore(set, before, starts[c + 1]!);
    counts[c]! += now - passed;
    passed = now;
  }
}

/**
 * Of a set of records in the order of their companies, the first of each company's within each word. A mark is carried
 * up from each record of the set to the next first record of a company, in five doublings:
 *
 *     set      . x . x x . x .        bit 0 at the left
 *     firsts   x . . . x . . x
 *     marks    . x x x x x x .        carried up until the next first
 *     answer   . x . . x . . .        those of the set with no mark before them in their company
 */
function firstOfEach(word: number, firsts: number): number {
  let carries = ~firsts;
  let marks = word;
  marks |= (marks << 1) & carries;
  carries &= carries << 1;
  marks |= (marks << 2) & carries;
  carries &= carries << 2;
  marks |= (marks << 4) & carries;
  carries &= carries << 4;
  marks |= (marks << 8) & carries;
  carries &= carries << 8;
  marks |= (marks << 16) & carries;
  return word & ~((marks << 1) & ~firsts);
}

/** A set of records in the order of their companies without the first of each company. */
function withoutFirst(set: Bits, firsts: Bits): Bits {
  const rest = new Uint32Array(set.length);
  // Whether the company of the last record before the word has had one of the set already.
  let had = 0;
  for (let w = 0; w < set.length; w++) {
    const word = set[w]!;
    const first = firsts[w]!;
    // The records of that company at the beginning of the word.
    const begun = (first & -first) - 1;
    const taken = firstOfEach(word, first);
    rest[w] = word & ~(had ? taken & ~begun : taken);
    had = first === 0 ? had | (word === 0 ? 0 : 1) : word >>> (31 - Math.clz32(first)) === 0 ? 0 : 1;
  }
  return rest;
}

/** Companies that any record of a set in the order of companies hangs on. */
function companiesInOrder(set: Bits, firsts: Bits, companies: Int32Array, size: number): Bits {
  const found = noBits(size);
  for (let w = 0; w < set.length; w++) {
    if (set[w] === 0) continue;
    let word = firstOfEach(set[w]!, firsts[w]!);
    while (word !== 0) {
      const low = word & -word;
      const company = companies[(w << 5) + 31 - Math.clz32(low)]!;
      found[company >> 5]! |= 1 << (company & 31);
      word ^= low;
    }
  }
  return found;
}

/** Passes over a set up to which the companies with at least so many are found by taking the first of each away. */
const MOST_PASSES = 4;

/** The companies that at least `least` records of a set hang on, from 1. */
export function companiesWith(
  least: number,
  set: Bits,
  links: Links,
  size: number,
  hanging: Hanging | undefined,
): Bits {
  if (hanging?.firsts && least <= MOST_PASSES) {
    let left = set;
    for (let i = 1; i < least; i++) left = withoutFirst(left, hanging.firsts);
    return companiesInOrder(left, hanging.firsts, links.companies, size);
  }
  if (least === 1) return companiesOf(set, links, size, hanging);
  return recordsWith(least, countsOf(set, links, size, hanging));
}

/** The records that at least `least` companies of a set hang on, from 1. */
export function recordsWithCompanies(least: number, set: Bits, links: Links, size: number): Bits {
  if (least === 1) return recordsAt(set, links, size);
  return recordsWith(least, countByRecord(set, set, links, size).sure);
}

function recordsWith(least: number, counts: Uint32Array): Bits {
  const found = noBits(counts.length);
  for (let r = 0; r < counts.length; r++) if (counts[r]! >= least) setBit(found, r);
  return found;
}

/** The companies that any record of a set hangs on. */
export function companiesOf(set: Bits, links: Links, size: number, hanging?: Hanging): Bits {
  if (hanging?.firsts) return companiesInOrder(set, hanging.firsts, links.companies, size);
  const found = noBits(size);
  if (hanging && countBits(set) * SPARSE > size) {
    const counts = new Uint32Array(size);
    countHanging(set, hanging, counts);
    for (let c = 0; c < size; c++) if (counts[c] !== 0) setBit(found, c);
    return found;
  }
  const { starts, companies } = links;
  for (const r of recordsOf(set)) {
    if (starts) for (let i = starts[r]!; i < starts[r + 1]!; i++) setBit(found, companies[i]!);
    else if (companies[r] !== NOBODY) setBit(found, companies[r]!);
  }
  return found;
}

/** The records that hang on any company of a set. */
export function recordsAt(set: Bits, { starts, companies }: Links, size: number): Bits {
  const found = noBits(size);
  if (!starts) {
    // Without asking whether the company is in the set, which would be guessed wrong every other time.
    for (let r = 0; r < size; r++) {
      const company = companies[r]!;
      if (company !== NOBODY) found[r >> 5]! |= ((set[company >> 5]! >>> (company & 31)) & 1) << (r & 31);
    }
    return found;
  }
  for (let r = 0; r < size; r++)
    for (let i = starts[r]!; i < starts[r + 1]!; i++)
      if ((set[companies[i]! >> 5]! >>> (companies[i]! & 31)) & 1) {
        setBit(found, r);
        break;
      }
  return found;
}

/** How many records of a set hang on each company. */
function countsOf(set: Bits, links: Links, size: number, hanging: Hanging | undefined): Uint32Array {
  const counts = new Uint32Array(size);
  if (hanging && countBits(set) * SPARSE > size) countHanging(set, hanging, counts);
  else countUp(set, links, counts);
  return counts;
}

/** How many records of two sets hang on each company. */
export function countByCompany(
  sure: Bits,
  unknown: Bits,
  links: Links,
  size: number,
  hanging?: Hanging,
): RelatedCounts {
  const counts = { sure: countsOf(sure, links, size, hanging), possible: new Uint32Array(size) };
  counts.possible.set(counts.sure);
  if (isEmpty(unknown)) return counts;
  const more = countsOf(unknown, links, size, hanging);
  for (let c = 0; c < size; c++) counts.possible[c]! += more[c]!;
  return counts;
}

/** How many companies of two sets each record hangs on. */
export function countByRecord(
  sure: Bits,
  unknown: Bits,
  { starts, companies }: Links,
  size: number,
): RelatedCounts {
  const counts = { sure: new Uint32Array(size), possible: new Uint32Array(size) };
  for (let r = 0; r < size; r++) {
    const end = starts ? starts[r + 1]! : r + 1;
    for (let i = starts ? starts[r]! : r; i < end; i++) {
      const company = companies[i]!;
      if (company === NOBODY) continue;
      if ((sure[company >> 5]! >>> (company & 31)) & 1) {
        counts.sure[r]!++;
        counts.possible[r]!++;
      } else if ((unknown[company >> 5]! >>> (company & 31)) & 1) counts.possible[r]!++;
    }
  }
  return counts;
}

/** Records that hang on any company at all, and how many they are; found once for each links. */
export function linkedRecords(links: Links, size: number): { records: Bits; count: number } {
  let linked = linkedOf.get(links);
  if (!linked) {
    const records = noBits(size);
    const { starts, companies } = links;
    for (let r = 0; r < size; r++)
      if (starts ? starts[r + 1]! > starts[r]! : companies[r] !== NOBODY) setBit(records, r);
    linked = { records, count: countBits(records) };
    linkedOf.set(links, linked);
  }
  return linked;
}

const linkedOf = new WeakMap<Links, { records: Bits; count: number }>();

/**
 * From so many to so many, of what is known: yes where all that may be lies within, no where nothing of it does, else unknown.
 * Given are the records with so many that are sure and that may be, and those with more than the most on either count; null
 * where there is no most.
 */
export function countVerdict(
  enough: { sure: Bits; possible: Bits },
  over: { sure: Bits; possible: Bits } | null,
  known: Bits,
  size: number,
): Verdict {
  const yes = noBits(size);
  const unknown = notBits(known, size);
  for (let w = 0; w < yes.length; w++) {
    const sure = over ? enough.sure[w]! & ~over.possible[w]! : enough.sure[w]!;
    const may = over ? enough.possible[w]! & ~over.sure[w]! : enough.possible[w]!;
    yes[w] = sure & known[w]!;
    unknown[w]! |= may & ~sure & known[w]!;
  }
  return { yes, unknown };
}
