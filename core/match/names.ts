import { jaroWinkler } from '@skyra/jaro-winkler';
import { withoutForm } from './legal-forms.ts';

/** Words that are written short or long, and those that join and say nothing. */
const LONG: Readonly<Record<string, string>> = {
  bros: 'brothers',
  gebr: 'gebruder',
  mfg: 'manufacturing',
  intl: 'international',
  tech: 'technology',
  eng: 'engineering',
  hldg: 'holding',
  hldgs: 'holdings',
  svc: 'services',
  grp: 'group',
};
const JOINING = new Set(['and', 'und', 'et', 'og', 'och', 'ja', 'the', 'der', 'die', 'das', 'firma', 'fa']);

/** A name as names are compared. */
export interface NameParts {
  /** Without legal form and joining words; short forms written long. Empty where nothing else stands in it. */
  words: readonly string[];
  /** Kind of the legal form; null where the name has none. */
  form: string | null;
}

/** "Bros. Ash & Tenford Ltd" → { words: ["brothers", "ash", "tenford"], form: "limited" } */
export function nameParts(name: string): NameParts {
  const { words, form } = withoutForm(name);
  const said = words.filter((word) => !JOINING.has(word)).map((word) => LONG[word] ?? word);
  return { words: said.length ? said : words, form };
}

/** How many companies have a word in their names. */
export type WordCount = (word: string) => number;

/** Two words are one, mistyped, from this likeness on. */
const ALIKE_WORD = 0.88;
/** Letters that an abbreviation has at least. */
const SHORTENED = 3;

/** How far two words are the same, 0 to 1: equal, mistyped (Jaro-Winkler), or one the beginning of the other. */
export function wordLikeness(a: string, b: string): number {
  if (a === b) return 1;
  const [short, long] = a.length < b.length ? [a, b] : [b, a];
  if (short.length >= SHORTENED && long.startsWith(short)) return 0.9;
  if (short.length === 1) return long.startsWith(short) ? 0.5 : 0;
  // Jaro-Winkler makes too much of short words and of figures.
  if (short.length < 4 || /\d/.test(short)) return 0;
  const like = jaroWinkler(a, b);
  return like >= ALIKE_WORD ? like : 0;
}

export interface NameLikeness {
  /** 0 to 1: the weight of what both have, of the weight of all their words. */
  likeness: number;
  /** What each has that the other has not: words of neither, of one of them, or of both, which then is another name. */
  beyond: 'neither' | 'one' | 'both';
  /** Words of the first that the second has too, the rarest first. */
  shared: readonly string[];
}

/**
 * How alike two names are. Each word weighs by how rare it is, ln(1 + companies / companies with it), as in inverse document
 * frequency (Spärck Jones, 1972); each word finds its best partner once. Names that are the same letters with other gaps
 * ("Holz Bau", "Holzbau") are as alike as their letters.
 */
export function nameLikeness(
  a: readonly string[],
  b: readonly string[],
  countOf: WordCount,
  companies: number,
): NameLikeness {
  if (a.length === 0 || b.length === 0) return { likeness: 0, beyond: 'both', shared: [] };
  const weight = (word: string) => Math.log(1 + companies / Math.max(1, countOf(word)));
  const taken = new Uint8Array(b.length);
  const shared: { word: string; weight: number }[] = [];
  let both = 0;
  let all = 0;
  for (const word of b) all += weight(word);
  for (const word of a) {
    const own = weight(word);
    all += own;
    let best = -1;
    let most = 0;
    for (let i = 0; i < b.length; i++) {
      const like = taken[i] ? 0 : wordLikeness(word, b[i]!);
      if (like > most) [best, most] = [i, like];
    }
    if (best < 0) continue;
    taken[best] = 1;
    both += most * (own + weight(b[best]!));
    if (most >= ALIKE_WORD) shared.push({ word, weight: Math.min(own, weight(b[best]!)) });
  }
  const byWords = all > 0 ? both / all : 0;
  const [left, right] = [a.join(''), b.join('')];
  const byLetters =
    Math.min(left.length, right.length) >= 6 && (left[0] === right[0] || left === right)
      ? Math.max(0, jaroWinkler(left, right) * 2.5 - 1.5)
      : 0;
  shared.sort((x, y) => y.weight - x.weight);
  const partners = taken.reduce((sum, one) => sum + one, 0);
  const alone = (partners < a.length ? 1 : 0) + (partners < b.length ? 1 : 0);
  return {
    likeness: Math.max(byWords, byLetters),
    beyond: byLetters >= ALIKE_WORD ? 'neither' : (['neither', 'one', 'both'] as const)[alone]!,
    shared: shared.map(({ word }) => word),
  };
}
