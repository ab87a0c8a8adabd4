import iconv from 'iconv-lite';
import { closeSync, openSync, readSync } from 'node:fs';

/** In which encoding a text file is, judged by all of it. */

export interface EncodingFound {
  encoding: string;
  /** Bytes that are no character in it. */
  undecodable: number;
}

const CHUNK = 1 << 20;
/** Words with letters beyond ASCII that are looked at. */
const MOST_WORDS = 5000;

/** Letters beyond ASCII of the languages that are written in an encoding. Its marks and signs count for none of them. */
const LETTERS: Readonly<Record<string, readonly string[]>> = {
  'windows-1252': [
    'àâæçéèêëîïôœùûüÿ',
    'äöüß',
    'áéíñóúü',
    'ãáâàçéêíóôõú',
    'åäöé',
    'æøåé',
    'àèéìòù',
    'ëïéèü',
    'áðéíóúýþæö',
  ],
  'windows-1250': ['áčďéěíňóřšťúůýž', 'áäčďéíĺľňóôŕšťúýž', 'ąćęłńóśźż', 'áéíóöőúüű', 'čćđšž', 'ăâîşţ'],
  'windows-1251': ['абвгдежзийклмнопрстуфхцчшщъыьэюяёіїєґђјљњћџѓќѕ'],
  'windows-1253': ['αβγδεζηθικλμνξοπρστυφχψωςάέήίόύώϊϋΐΰ'],
  'windows-1254': ['çğıöşüâîûİ'],
  'windows-1257': ['ąčęėįšųūž', 'āčēģīķļņšūž', 'äõöüšž'],
};

/** The older sheets of the same letters; they have nothing between 0x80 and 0x9f. */
const ISO_OF: Readonly<Record<string, string>> = {
  'windows-1252': 'iso-8859-1',
  'windows-1250': 'iso-8859-2',
};

/** @param path a text file, whose first bytes name no encoding */
export function encodingOf(path: string): EncodingFound {
  const seen = scan(path);
  if (seen.invalid === 0) return { encoding: 'utf-8', undecodable: 0 };
  // A few odd bytes in a text of many good ones are damage, and no other encoding.
  if (seen.sequences > seen.invalid * 10) return { encoding: 'utf-8', undecodable: seen.invalid };
  const eastern = easternOf(seen.words);
  if (eastern) return { encoding: eastern, undecodable: 0 };
  let best = 'windows-1252';
  let most = -Infinity;
  for (const [windows, alphabets] of Object.entries(LETTERS)) {
    const names = ISO_OF[windows] && !seen.controls ? [windows, ISO_OF[windows]] : [windows];
    for (const encoding of names) {
      const texts = seen.words.map((word) => iconv.decode(word, encoding));
      const score = Math.max(...alphabets.map((letters) => likeness(texts, letters)));
      if (score > most) [best, most] = [encoding, score];
    }
  }
  const texts = seen.words.map((word) => iconv.decode(word, best));
  return { encoding: best, undecodable: texts.join('').split('\ufffd').length - 1 };
}

interface Seen {
  /** Good sequences of several bytes in UTF-8, and bytes that are none. */
  sequences: number;
  invalid: number;
  /** Bytes between 0x80 and 0x9f. */
  controls: boolean;
  /** Words with bytes beyond ASCII. */
  words: Buffer[];
}

/** Bytes of a word on either side that are looked at. */
const LONGEST_WORD = 40;

const isLetter = (byte: number) => byte >= 128 || (byte >= 65 && byte <= 90) || (byte >= 97 && byte <= 122);

/** One pass over the file: is it UTF-8, and which words would tell what else it is. */
function scan(path: string): Seen {
  const seen: Seen = { sequences: 0, invalid: 0, controls: false, words: [] };
  const known = new Set<string>();
  const file = openSync(path, 'r');
  const buffer = Buffer.alloc(CHUNK);
  let carried = 0;
  try {
    for (;;) {
      const read = readSync(file, buffer, carried, CHUNK - carried, null);
      const length = carried + read;
      if (length === 0) break;
      if (read > 0 && length < CHUNK) {
        carried = length;
        continue;
      }
      // What is cut at the end of a chunk waits for the next one.
      const end = read === 0 ? length : Math.max(1, length - 64);
      const reached = scanChunk(buffer, length, end, seen, known);
      if (read === 0) break;
      buffer.copyWithin(0, reached, length);
      carried = length - reached;
    }
  } finally {
    closeSync(file);
  }
  return seen;
}

/** Returns where what is left of the bytes begins. */
function scanChunk(bytes: Buffer, length: number, end: number, seen: Seen, known: Set<string>): number {
  let wordEnd = 0;
  let i = 0;
  while (i < end) {
    const byte = bytes[i]!;
    if (byte < 128) {
      i++;
      continue;
    }
    const size = sequenceAt(bytes, i, length);
    if (size > 0) seen.sequences++;
    else {
      seen.invalid++;
      if (byte < 0xa0) seen.controls = true;
    }
    if (i >= wordEnd && seen.words.length < MOST_WORDS) {
      let [from, to] = [i, i + 1];
      while (from > 0 && i - from < LONGEST_WORD && isLetter(bytes[from - 1]!)) from--;
      while (to < length && to - i < LONGEST_WORD && isLetter(bytes[to]!)) to++;
      wordEnd = to;
      const word = Buffer.from(bytes.subarray(from, to));
      const key = word.toString('latin1');
      if (!known.has(key)) {
        known.add(key);
        seen.words.push(word);
      }
    }
    i += Math.max(1, size);
  }
  return i;
}

/** How many bytes the UTF-8 sequence at a place has; 0 where there is none. */
function sequenceAt(bytes: Buffer, at: number, length: number): number {
  const first = bytes[at]!;
  const size = first >= 0xf0 && first <= 0xf4 ? 4 : first >= 0xe0 ? 3 : first >= 0xc2 ? 2 : 0;
  if (size === 0 || first > 0xf4 || at + size > length) return 0;
  for (let i = 1; i < size; i++) if ((bytes[at + i]! & 0xc0) !== 0x80) return 0;
  return size;
}

/** How much texts look like words of a language with these letters: its letters within words of the same case count for it, all others against it. */
function likeness(texts: readonly string[], letters: string): number {
  const own = new Set([...letters, ...letters.toUpperCase()]);
  const latin = /[a-zà-ž]/.test(letters[0]!);
  let score = 0;
  for (const text of texts) {
    // Nobody mixes Greek or Cyrillic letters with Latin ones in a word.
    if (!latin && /[A-Za-z]/.test(text)) score -= 3;
    for (let i = 0; i < text.length; i++) {
      const letter = text[i]!;
      if (letter.charCodeAt(0) < 128) continue;
      if (!/\p{L}/u.test(letter))
        score -= /[\ufffd\u0080-\u009f]/.test(letter) ? 3 : insideWord(text, i) ? 2 : 0;
      else if (!own.has(letter)) score -= 2;
      else score += i > 0 && isUpper(letter) && isLower(text[i - 1]!) ? -2 : 1;
    }
  }
  return score;
}

const insideWord = (text: string, at: number) => at > 0 && at < text.length - 1;
const isUpper = (letter: string) => letter !== letter.toLowerCase();
const isLower = (letter: string) => letter !== letter.toUpperCase();

/** Japanese or Chinese, whose characters are pairs of bytes. */
function easternOf(words: readonly Buffer[]): string | null {
  const high = words.reduce((sum, word) => sum + word.filter((byte) => byte >= 128).length, 0);
  const all = words.reduce((sum, word) => sum + word.length, 0);
  if (high < all * 0.45) return null;
  for (const [encoding, pattern] of [
    ['shift_jis', /[\u3040-\u30ff]/g],
    ['gb18030', /[\u4e00-\u9fff]/g],
  ] as const) {
    const text = words.map((word) => iconv.decode(word, encoding)).join(' ');
    const foreign = text.replace(/[\x20-\x7e]/g, '');
    const eastern = foreign.match(/[\u3000-\u30ff\u4e00-\u9fff\uff00-\uffef]/g)?.length ?? 0;
    if (eastern >= foreign.length * 0.95 && (foreign.match(pattern)?.length ?? 0) >= foreign.length * 0.2)
      return encoding;
  }
  return null;
}
