import { domainLabel } from './identifiers.ts';
import type { ReadyFirm } from './firm.ts';
import type { WordCount } from './names.ts';

/**
 * The keys under which records that may be one company meet. Two records are compared where they share one; each kind of key
 * outlives another kind of mistake. Keys are numbers of 32 bits: two texts seldom have one key, and then are compared in vain.
 *
 * number, domain, phone      the identifiers themselves
 * label                      a domain's own part, to its first hyphen: other endings, longer names
 * rare word                  a word of the name that few have, anywhere
 * word and place             the beginning, and the end, of each word with the town or the postcode: mistyped names
 * bones and country          a word's consonants, doubled ones once: other vowels, accents, z for s
 * letters and country        the first letters of the whole name: words run together
 * house                      street, number and town: whatever it is called
 */

/** Words that more companies have are no key by themselves. */
const RARE_WORD = 400;
/** How much a shared key of each kind is worth when there are too many candidates to compare. */
export const WORTH = { number: 50, domain: 40, phone: 30, label: 12, rare: 14, house: 12, placed: 8, bones: 5, letters: 4 } as const;

export interface BlockKey {
  key: number;
  worth: number;
}

/** FNV-1a over a kind and texts (Fowler, Noll and Vo, 1991), 32 bits. */
export function hashKey(kind: number, a: string, b = ''): number {
  let hash = 0x811c9dc5 ^ kind;
  for (let i = 0; i < a.length; i++) hash = Math.imul(hash ^ a.charCodeAt(i), 0x01000193);
  hash = Math.imul(hash ^ 0x1f, 0x01000193);
  for (let i = 0; i < b.length; i++) hash = Math.imul(hash ^ b.charCodeAt(i), 0x01000193);
  return hash >>> 0;
}

const PHONE_FIGURES = 7;

/** The keys of a record. `put` is called with each. */
export function eachKey(ready: ReadyFirm, countOf: WordCount | null, put: (key: number, worth: number) => void): void {
  const { words, number, domains, phone, street, house, postcode, town, firm } = ready;
  if (number !== null) put(hashKey(1, number), WORTH.number);
  for (const domain of domains) {
    put(hashKey(2, domain), WORTH.domain);
    const label = domainLabel(domain).split('-')[0]!;
    if (label.length >= 5) put(hashKey(3, label.slice(0, 12)), WORTH.label);
  }
  if (phone !== null && phone.length > PHONE_FIGURES) put(hashKey(4, phone.slice(-PHONE_FIGURES)), WORTH.phone);
  const country = firm.country ?? '';
  for (const word of words) {
    if (word.length < 3) continue;
    // The universe gives every word as a key; the file asks for its rare ones.
    if (countOf === null || countOf(word) <= RARE_WORD) put(hashKey(5, word), WORTH.rare);
    const [begin, end] = [word.slice(0, 4), word.slice(-4)];
    if (town !== null) {
      put(hashKey(6, begin, town), WORTH.placed);
      put(hashKey(7, end, town), WORTH.placed);
    }
    if (postcode !== null) put(hashKey(8, begin, postcode), WORTH.placed);
    const bones = bonesOf(word);
    if (bones.length >= 3) put(hashKey(9, bones, country), WORTH.bones);
  }
  if (words.length > 0) {
    const letters = words.join('').slice(0, 8);
    if (letters.length >= 5) put(hashKey(10, letters, country), WORTH.letters);
  }
  if (street !== null && house !== null && (town !== null || postcode !== null))
    put(hashKey(11, street.slice(0, 5), `${house} ${town ?? postcode}`), WORTH.house);
}

/** The consonants of a word, doubled ones once and those written for one another as one: "zermysko" and "zarmissko" → "srmsk". */
export function bonesOf(word: string): string {
  let bones = '';
  let last = '';
  for (let i = 0; i < word.length; i++) {
    const letter = BONE[word[i]!] ?? word[i]!;
    if (letter !== '' && letter !== last) bones += letter;
    last = letter;
  }
  return bones;
}

const BONE: Readonly<Record<string, string>> = {
  ...Object.fromEntries([...'aeiouyhj'].map((vowel) => [vowel, ''])),
  z: 's',
  c: 'k',
  q: 'k',
  w: 'v',
  f: 'v',
  d: 't',
  b: 'p',
  g: 'k',
};
