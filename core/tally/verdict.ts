import { notBits, noBits, type Bits } from './bits.ts';
import type { SmallNumbers } from './columns.ts';

/** What a test says of every record: yes, unknown, or (in neither) no. */
export interface Verdict {
  yes: Bits;
  unknown: Bits;
  /** Numbers: records decided by an estimate. */
  estimated?: Bits;
  /** Numbers: records decided by an estimate whose range reaches over a limit. */
  straddling?: Bits;
}

/** What a test says of one value. */
export const enum State {
  No = 0,
  Yes = 1,
  Unknown = 2,
}

/** The verdict of a test on records with one value each, from what it says of each value. */
export function verdictOfStates(values: SmallNumbers, states: Uint8Array, size: number): Verdict {
  const yes = noBits(size);
  const unknown = noBits(size);
  for (let w = 0, r = 0; r < size; w++) {
    const end = Math.min(size, r + 32);
    let yesWord = 0;
    let unknownWord = 0;
    for (let shift = 0; r < end; r++, shift++) {
      const state = states[values[r]!]!;
      yesWord |= (state & State.Yes) << shift;
      unknownWord |= (state >> 1) << shift;
    }
    yes[w] = yesWord;
    unknown[w] = unknownWord;
  }
  return { yes, unknown };
}

/** Kleene not. */
export function notVerdict(verdict: Verdict, size: number): Verdict {
  const yes = notBits(verdict.yes, size);
  for (let w = 0; w < yes.length; w++) yes[w]! &= ~verdict.unknown[w]!;
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

/** Kleene and: yes if all are yes, unknown if none is no and one is unknown. Only text is joined so, which has no estimates. */
export function andVerdict(verdicts: readonly Verdict[]): Verdict {
  const yes = verdicts[0]!.yes.slice();
  const possible = yes.slice();
  for (let w = 0; w < possible.length; w++) possible[w]! |= verdicts[0]!.unknown[w]!;
  for (const verdict of verdicts.slice(1))
    for (let w = 0; w < yes.length; w++) {
      yes[w]! &= verdict.yes[w]!;
      possible[w]! &= verdict.yes[w]! | verdict.unknown[w]!;
    }
  for (let w = 0; w < yes.length; w++) possible[w]! &= ~yes[w]!;
  return { yes, unknown: possible };
}

function union(verdicts: readonly Verdict[], part: 'estimated' | 'straddling'): Bits | undefined {
  const sets = verdicts.flatMap((verdict) => verdict[part] ?? []);
  if (sets.length === 0) return undefined;
  const all = new Uint32Array(sets[0]!.length);
  for (const set of sets) for (let w = 0; w < all.length; w++) all[w]! |= set[w]!;
  return all;
}
