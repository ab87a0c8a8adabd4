import { dropBits, keepBits, noBits, notBits, setBit, type Bits } from './bits.ts';
import type { Verdict } from './verdict.ts';

/**
 * The companies that each related record hangs on: those of record r are `companies[starts[r] … starts[r + 1]]`, each once;
 * where `starts` is null each record has exactly one place, which is NOBODY where its company is not known.
 */
export interface Links {
  starts: Uint32Array | null;
  companies: Uint32Array;
}

export const NOBODY = 0xffffffff;

/** Related records that pass for sure and those that may, by the record they hang on. */
export interface RelatedCounts {
  sure: Uint32Array;
  /** Sure ones included. */
  possible: Uint32Array;
}

/** Adds 1 at every company that a record of the set hangs on. */
function countUp(set: Bits, { starts, companies }: Links, counts: Uint32Array): void {
  for (let w = 0; w < set.length; w++) {
    let word = set[w]!;
    while (word !== 0) {
      const low = word & -word;
      word ^= low;
      const r = (w << 5) + 31 - Math.clz32(low);
      if (starts) for (let i = starts[r]!; i < starts[r + 1]!; i++) counts[companies[i]!]!++;
      else if (companies[r] !== NOBODY) counts[companies[r]!]!++;
    }
  }
}

/** The companies that any record of a set hangs on. */
export function companiesOf(set: Bits, { starts, companies }: Links, size: number): Bits {
  const found = noBits(size);
  for (let w = 0; w < set.length; w++) {
    let word = set[w]!;
    while (word !== 0) {
      const low = word & -word;
      word ^= low;
      const r = (w << 5) + 31 - Math.clz32(low);
      if (starts)
        for (let i = starts[r]!; i < starts[r + 1]!; i++)
          found[companies[i]! >> 5]! |= 1 << (companies[i]! & 31);
      else {
        const company = companies[r]!;
        if (company !== NOBODY) found[company >> 5]! |= 1 << (company & 31);
      }
    }
  }
  return found;
}

/** The records that hang on any company of a set. */
export function recordsAt(set: Bits, { starts, companies }: Links, size: number): Bits {
  const found = noBits(size);
  if (!starts) {
    // Word by word, so that a set that holds everything or nothing of a stretch costs no guessing.
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
export function countByCompany(sure: Bits, unknown: Bits, links: Links, size: number): RelatedCounts {
  const counts = { sure: new Uint32Array(size), possible: new Uint32Array(size) };
  countUp(sure, links, counts.sure);
  counts.possible.set(counts.sure);
  countUp(unknown, links, counts.possible);
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

/** Records that hang on any company at all. */
export function linkedRecords({ starts, companies }: Links, size: number): Bits {
  const linked = noBits(size);
  for (let r = 0; r < size; r++)
    if (starts ? starts[r + 1]! > starts[r]! : companies[r] !== NOBODY) setBit(linked, r);
  return linked;
}

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
  const unknown = notBits(known, size);
  for (let r = 0; r < size; r++) {
    if (!((known[r >> 5]! >>> (r & 31)) & 1)) continue;
    if (sure[r]! >= from && possible[r]! <= to) yes[r >> 5]! |= 1 << (r & 31);
    else if (possible[r]! >= from && sure[r]! <= to) unknown[r >> 5]! |= 1 << (r & 31);
  }
  dropBits(unknown, yes);
  return { yes, unknown };
}

/** How many related records hang on any company, in a role. */
export function linkedCount({ starts, companies }: Links): number {
  if (!starts) {
    let count = 0;
    for (let r = 0; r < companies.length; r++) if (companies[r] !== NOBODY) count++;
    return count;
  }
  let count = 0;
  for (let r = 0; r + 1 < starts.length; r++) if (starts[r + 1]! > starts[r]!) count++;
  return count;
}
