import { hashOf } from '../../../core/text/hash.ts';

/** How the stand-in for the world's mail hosts and mailboxes behaves: by a seed and the address alone, so that it does the same again. */

/** Hosts that say which of their mailboxes are there, that take anything, and that put off who comes for the first time. */
export const HOST_KINDS = ['honest', 'takes-all', 'puts-off'] as const;
export type HostKind = (typeof HOST_KINDS)[number];

export const ANSWERS = ['yes', 'question', 'no', 'away', 'comes-back', 'none'] as const;
export type Answer = (typeof ANSWERS)[number];

const SHARES: readonly (readonly [Answer, number])[] = [
  ['yes', 0.1],
  ['question', 0.06],
  ['no', 0.06],
  ['away', 0.08],
  ['comes-back', 0.02],
];

/** From 0 up to below 1, by a seed and words. */
export function chanceOf(seed: number, ...words: readonly string[]): number {
  let hash = hashOf(`${seed} ${words.join(' ')}`);
  // What FNV leaves alike in the high bits of like texts is mixed in (the finaliser of MurmurHash3).
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35);
  return ((hash ^ (hash >>> 16)) >>> 0) / 4294967296;
}

export function hostKindOf(seed: number, domain: string): HostKind {
  const chance = chanceOf(seed, 'host', domain);
  return chance < 0.72 ? 'honest' : chance < 0.95 ? 'takes-all' : 'puts-off';
}

/** How sure an address is, in percent, that the universe knows nothing of. */
export const UNKNOWN_CERTAINTY = 3;

/** Whether there is such a mailbox: as often as the address is sure, `certainty` in percent. */
export function mailboxExists(seed: number, mail: string, certainty: number): boolean {
  return chanceOf(seed, 'mailbox', mail) < certainty / 100;
}

/** What a mailbox answers to its first message; to any further one nothing more. */
export function answerOf(seed: number, mail: string): Answer {
  let chance = chanceOf(seed, 'answer', mail);
  for (const [answer, share] of SHARES) {
    if (chance < share) return answer;
    chance -= share;
  }
  return 'none';
}

/** After how long it answers, in ms: within seconds where time is hastened, else within two days. */
export function answerDelay(seed: number, mail: string, hastened: boolean): number {
  const chance = chanceOf(seed, 'delay', mail);
  return hastened ? 500 + 3000 * chance : 3_600_000 * (0.5 + 47.5 * chance);
}
