import { EXTENSION_FIGURES } from './compare.ts';
import { domainLabel } from './identifiers.ts';
import type { ReadyFirm } from './firm.ts';

/**
 * The keys under which records that may be one company meet. Two records are compared where they share one; each kind of key
 * outlives another kind of mistake. Keys are numbers of 32 bits: two texts seldom have one key, and then are compared in vain.
 *
 * number, domain, phone      the identifiers themselves
 * label                      a domain's own part, to its first hyphen: other endings, longer names
 * word                       a word of the name, anywhere, where few have it
 * word and place             the beginning, and the end, of each word with the town or the postcode: mistyped names
 * bones and country          a word's consonants, doubled ones once: other vowels, accents, z for s
 * letters and country        the first letters of the whole name: words run together
 * house                      street, number and town: whatever it is called
 */

/** How much a shared key of each kind is worth when there are too many candidates to compare. */
export const WORTH = {
  number: 50,
  domain: 40,
  phone: 30,
  label: 12,
  rare: 14,
  house: 12,
  placed: 8,
  bones: 5,
  letters: 4,
} as const;

/** Whether a key is an identifier, however many have it: the lowest bit of a key says so. */
export const isIdentifier = (key: number): boolean => (key & 1) === 1;
const identifier = (hash: number): number => (hash | 1) >>> 0;
const common = (hash: number): number => (hash & ~1) >>> 0;

/** FNV-1a (Fowler, Noll and Vo, 1991), 32 bits, in steps: a kind, then texts or parts of them. */
const begin = (kind: number): number => 0x811c9dc5 ^ kind;
const step = (hash: number, code: number): number => Math.imul(hash ^ code, 0x01000193);

/** The hash of what came before and of the letters of a text from one place to another. */
function over(hash: number, text: string, from = 0, to = text.length): number {
  for (let i = Math.max(0, from); i < to && i < text.length; i++) hash = step(hash, text.charCodeAt(i));
  return step(hash, 0x1f);
}

const PHONE_FIGURES = 7;

export const domainKey = (domain: string): number => identifier(over(begin(2), domain));
export const switchboardKey = (phone: string): number =>
  common(over(begin(12), phone, 0, phone.length - EXTENSION_FIGURES));
export const phoneKey = (phone: string): number =>
  identifier(over(begin(4), phone, phone.length - PHONE_FIGURES));
/** A word of a name, anywhere. */
export const wordKey = (word: string): number => common(over(begin(5), word));

/** A house by its street's first letters, its number and its town, or postcode; null where one of them is not known. */
export function houseKey({ street, house, town, postcode }: ReadyFirm): number | null {
  const where = town ?? postcode;
  return street === null || house === null || where === null
    ? null
    : common(over(over(over(begin(11), street, 0, 5), house), where));
}

/**
 * The keys of a record; `put` is called with each.
 * @param anywhere whether the keys within a country are put without it, too
 */
export function eachKey(
  ready: ReadyFirm,
  anywhere: boolean,
  put: (key: number, worth: number) => void,
): void {
  const { words, number, domains, phone, postcode, town } = ready;
  if (number !== null) put(identifier(over(begin(1), number)), WORTH.number);
  for (const domain of domains) {
    put(domainKey(domain), WORTH.domain);
    const label = domainLabel(domain);
    const hyphen = label.indexOf('-');
    const end = Math.min(LABEL_LETTERS, hyphen < 0 ? label.length : hyphen);
    if (end >= 5) put(common(over(begin(3), label, 0, end)), WORTH.label);
  }
  if (phone !== null) put(phoneKey(phone), WORTH.phone);
  const country = ready.country ?? '';
  const everywhere = anywhere && country !== '';
  for (const word of words) {
    if (word.length < LEAST_WORD) continue;
    put(wordKey(word), WORTH.rare);
    if (town !== null) {
      put(common(over(over(begin(6), word, 0, 4), town)), WORTH.placed);
      put(common(over(over(begin(7), word, word.length - 4), town)), WORTH.placed);
    }
    if (postcode !== null) put(common(over(over(begin(8), word, 0, 4), postcode)), WORTH.placed);
    const bones = overBones(begin(9), word);
    if (bones !== 0) {
      put(common(over(bones, country)), WORTH.bones);
      if (everywhere) put(common(over(bones, '')), WORTH.bones);
    }
  }
  const letters = overLetters(begin(10), words);
  if (letters !== 0) {
    put(common(over(letters, country)), WORTH.letters);
    if (everywhere) put(common(over(letters, '')), WORTH.letters);
  }
  const at = houseKey(ready);
  if (at !== null) put(at, WORTH.house);
}

/** The keys that a company is found or counted by: those of any row it may be, its short words, and its switchboard. */
export function indexedKeys(ready: ReadyFirm, put: (key: number) => void): void {
  eachKey(ready, true, put);
  for (const word of ready.words) if (word.length < LEAST_WORD) put(wordKey(word));
  if (ready.phone !== null) put(switchboardKey(ready.phone));
}

/** Of what of a record it is counted how many companies have it. */
export function sharedKeys(ready: ReadyFirm): number[] {
  const { domains, phone } = ready;
  const keys = domains.map(domainKey);
  const house = houseKey(ready);
  if (house !== null) keys.push(house);
  if (phone !== null) keys.push(phoneKey(phone), switchboardKey(phone));
  return keys;
}

const LEAST_WORD = 3;
const LABEL_LETTERS = 12;
/** Letters of a whole name that are looked at, and how many it needs. */
const NAME_LETTERS = 8;
const LEAST_LETTERS = 5;
const LEAST_BONES = 3;

/** The hash of the first letters of a name, its words run together; 0 where it is too short. */
function overLetters(hash: number, words: readonly string[]): number {
  let letters = 0;
  for (const word of words)
    for (let i = 0; i < word.length && letters < NAME_LETTERS; i++, letters++)
      hash = step(hash, word.charCodeAt(i));
  return letters < LEAST_LETTERS ? 0 : hash;
}

/**
 * The hash of a word's bones: its consonants, doubled ones once and those written for one another as one, so that "zermysko" and
 * "zarmissko" have the same; 0 where it has too few.
 */
export function overBones(hash: number, word: string): number {
  let bones = 0;
  let last = 0;
  for (let i = 0; i < word.length; i++) {
    const code = word.charCodeAt(i);
    const bone = code < 128 ? BONE[code]! : code;
    if (bone !== 0 && bone !== last) {
      hash = step(hash, bone);
      bones++;
    }
    last = bone;
  }
  return bones < LEAST_BONES ? 0 : hash;
}

/** For each letter the one that it counts as; 0 for those that are left out. */
const BONE = Uint8Array.from({ length: 128 }, (_, code) => {
  const letter = String.fromCharCode(code);
  if ('aeiouyhj'.includes(letter)) return 0;
  const same = { z: 's', c: 'k', q: 'k', w: 'v', f: 'v', d: 't', b: 'p', g: 'k' }[letter];
  return same ? same.charCodeAt(0) : code;
});
