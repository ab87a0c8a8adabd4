import { countBits, keepBits, noBits, notBits, popcount, recordsOf, setBit, type Bits } from './bits.ts';
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
 * null because records stand in the order of their companies, those numbers themselves.
 */
export interface Hanging {
  starts: Uint32Array;
  records: Int32Array | null;
}

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
  if (inOrder) return { starts, records: null };
  const records = new Int32Array(starts[size]!);
  const next = starts.slice();
  for (let r = 0; r < count; r++) {
    const end = own ? own[r + 1]! : r + 1;
    for (let i = own ? own[r]! : r; i < end; i++) {
      const company = companies[i]!;
      if (company !== NOBODY) records[next[company]!++] = r;
    }
  }
  return { starts, records };
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

/** The same where it only matters whether there is any. */
function companiesInOrder(set: Bits, starts: Uint32Array, found: Bits, size: number): Bits {
  const before = runningCounts(set);
  let passed = 0;
  for (let w = 0; w < found.length; w++) {
    const end = Math.min(size, (w << 5) + 32);
    let word = 0;
    for (let c = w << 5; c < end; c++) {
      const now = countBefore(set, before, starts[c + 1]!);
      word |= (now === passed ? 0 : 1) << (c & 31);
      passed = now;
    }
    found[w] = word;
  }
  return found;
}

/** The companies that any record of a set hangs on. */
export function companiesOf(set: Bits, links: Links, size: number, hanging?: Hanging): Bits {
  const found = noBits(size);
  if (hanging && countBits(set) * SPARSE > size) {
    if (!hanging.records) return companiesInOrder(set, hanging.starts, found, size);
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

/** How many records of two sets hang on each company. */
export function countByCompany(
  sure: Bits,
  unknown: Bits,
  links: Links,
  size: number,
  hanging?: Hanging,
): RelatedCounts {
  const counts = { sure: new Uint32Array(size), possible: new Uint32Array(size) };
  const count = (set: Bits, into: Uint32Array) =>
    hanging && countBits(set) * SPARSE > size ? countHanging(set, hanging, into) : countUp(set, links, into);
  count(sure, counts.sure);
  counts.possible.set(counts.sure);
  count(unknown, counts.possible);
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

/** Records that hang on any company at all, found once for each links. */
export function linkedRecords(links: Links, size: number): Bits {
  let linked = linkedBits.get(links);
  if (!linked) {
    linked = noBits(size);
    const { starts, companies } = links;
    for (let r = 0; r < size; r++)
      if (starts ? starts[r + 1]! > starts[r]! : companies[r] !== NOBODY) setBit(linked, r);
    linkedBits.set(links, linked);
  }
  return linked;
}

const linkedBits = new WeakMap<Links, Bits>();

/**
 * At least one: yes where a sure one is, unknown where only possible ones are or where no source covers the subject. `sure` and
 * `possible` are the records that have any.
 */
export function anyVerdict(sure: Bits, possible: Bits, known: Bits, size: number): Verdict {
  const yes = sure.slice();
  keepBits(yes, known);
  const unknown = notBits(known, size);
  for (let w = 0; w < unknown.length; w++) unknown[w]! |= possible[w]! & ~sure[w]! & known[w]!;
  return { yes, unknown };
}

/** From so many to so many: yes where all that may be lies within, no where nothing of it does, else unknown. */
export function countVerdict(
  { sure, possible }: RelatedCounts,
  from: number,
  to: number,
  known: Bits,
  size: number,
): Verdict {
  const yes = noBits(size);
  const unknown = noBits(size);
  for (let r = 0; r < size; r++) {
    const most = possible[r]!;
    // Most have none, or fewer than are asked for.
    if (most < from || sure[r]! > to) continue;
    if (sure[r]! >= from && most <= to) yes[r >> 5]! |= 1 << (r & 31);
    else unknown[r >> 5]! |= 1 << (r & 31);
  }
  keepBits(yes, known);
  const unasked = notBits(known, size);
  for (let w = 0; w < unknown.length; w++) unknown[w] = (unknown[w]! & known[w]!) | unasked[w]!;
  return { yes, unknown };
}
