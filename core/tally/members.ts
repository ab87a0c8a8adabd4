import { VERDICTS, type ListVerdict } from '../tape/nodes.ts';
import { setBit, type Bits } from './bits.ts';
import type { Members } from './columns.ts';

/** Adds the members with some verdicts to a set. */
export function addMembers(into: Bits, { records, verdicts }: Members, wanted: readonly ListVerdict[]): void {
  if (wanted.length === VERDICTS.length) {
    for (let i = 0; i < records.length; i++) setBit(into, records[i]!);
    return;
  }
  const taken = VERDICTS.map((verdict) => wanted.includes(verdict));
  for (let i = 0; i < records.length; i++) if (taken[verdicts[i]!]) setBit(into, records[i]!);
}

/** The members that a list is taken for: those judged in, or all but those judged out where none is in yet. */
export function wantedMembers({ records, verdicts }: Members): Uint32Array {
  const [isIn, isOut] = [VERDICTS.indexOf('in'), VERDICTS.indexOf('out')];
  const judgedIn = records.filter((_, i) => verdicts[i] === isIn);
  return judgedIn.length ? judgedIn : records.filter((_, i) => verdicts[i] !== isOut);
}
