import type { Bits } from './bits.ts';

/** What a test says of every record: yes, unknown, or (in neither) no. */
export interface Verdict {
  yes: Bits;
  unknown: Bits;
  /** Numbers: records decided by an estimate. */
  estimated?: Bits;
  /** Numbers: records decided by an estimate whose range reaches over a limit. */
  straddling?: Bits;
}

/** Kleene not. */
export function notVerdict(verdict: Verdict): Verdict {
  const yes = new Uint32Array(verdict.yes.length);
  for (let w = 0; w < yes.length; w++) yes[w] = ~(verdict.yes[w]! | verdict.unknown[w]!);
  return { ...verdict, yes };
}

/** Kleene or: yes if any is yes, unknown if none is yes and one is unknown. Estimates are those of any branch. */
export function orVerdict(verdicts: readonly Verdict[]): Verdict {
  const words = verdicts[0]!.yes.length;
  const yes = new Uint32Array(words);
  const unknown = new Uint32Array(words);
  for (const verdict of verdicts)
    for (let w = 0; w < words; w++) {
      yes[w]! |= verdict.yes[w]!;
      unknown[w]! |= verdict.unknown[w]!;
    }
  for (let w = 0; w < words; w++) unknown[w]! &= ~yes[w]!;
  return { yes, unknown, estimated: union(verdicts, 'estimated'), straddling: union(verdicts, 'straddling') };
}

/** Kleene and. */
export function andVerdict(verdicts: readonly Verdict[]): Verdict {
  return notVerdict(orVerdict(verdicts.map(notVerdict)));
}

function union(verdicts: readonly Verdict[], part: 'estimated' | 'straddling'): Bits | undefined {
  const sets = verdicts.flatMap((verdict) => verdict[part] ?? []);
  if (sets.length === 0) return undefined;
  const all = new Uint32Array(sets[0]!.length);
  for (const set of sets) for (let w = 0; w < all.length; w++) all[w]! |= set[w]!;
  return all;
}
