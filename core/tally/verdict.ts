import { addBits, dropBits, keepBits, notBits, type Bits } from './bits.ts';

/** What a test says of every record: yes, unknown, or (in neither) no. */
export interface Verdict {
  yes: Bits;
  unknown: Bits;
  /** Numbers: records decided by an estimate. */
  estimated?: Bits;
  /** Numbers: records decided by an estimate whose range reaches over a limit. */
  straddling?: Bits;
  /** Codes: records unknown because theirs are coarser than what is asked, and those decided by codes of other schemes. */
  coarse?: Bits;
  kin?: Bits;
  /** Of the unknown, records whose value is known and older than what was asked for. */
  stale?: Bits;
  /** Of the unknown, records whose amount cannot be compared for want of a rate. */
  unrated?: Bits;
}

/** Kleene not. */
export function notVerdict(verdict: Verdict, size: number): Verdict {
  const yes = notBits(verdict.yes, size);
  dropBits(yes, verdict.unknown);
  return { ...verdict, yes };
}

/** Kleene or: yes if any is yes, unknown if none is yes and one is unknown. Estimates are those of any branch. */
export function orVerdict(verdicts: readonly Verdict[]): Verdict {
  const words = verdicts[0]!.yes.length;
  const yes = new Uint32Array(words);
  const unknown = new Uint32Array(words);
  for (const verdict of verdicts) {
    addBits(yes, verdict.yes);
    addBits(unknown, verdict.unknown);
  }
  dropBits(unknown, yes);
  return { yes, unknown, estimated: union(verdicts, 'estimated'), straddling: union(verdicts, 'straddling') };
}

/** Kleene and: yes if all are yes, unknown if none is no and one is unknown. Only text is joined so, which has no estimates. */
export function andVerdict(verdicts: readonly Verdict[]): Verdict {
  const yes = verdicts[0]!.yes.slice();
  const possible = yes.slice();
  addBits(possible, verdicts[0]!.unknown);
  for (const verdict of verdicts.slice(1)) {
    keepBits(yes, verdict.yes);
    for (let w = 0; w < possible.length; w++) possible[w]! &= verdict.yes[w]! | verdict.unknown[w]!;
  }
  dropBits(possible, yes);
  return { yes, unknown: possible };
}

function union(verdicts: readonly Verdict[], part: 'estimated' | 'straddling'): Bits | undefined {
  const sets = verdicts.flatMap((verdict) => verdict[part] ?? []);
  if (sets.length === 0) return undefined;
  const all = new Uint32Array(sets[0]!.length);
  for (const set of sets) addBits(all, set);
  return all;
}
