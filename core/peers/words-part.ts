import { foldedWords } from '../text/fold.ts';
import { hasBit, type Bits } from '../tally/bits.ts';

/** Words that are compared at most: the rarest that the seeds share most. */
export const MOST_WORDS = 24;
const LEAST_LETTERS = 4;

/** The words of the seeds that are compared, with what each weighs, and by record which of them its description has. */
export interface WordsPart {
  words: string[];
  weights: number[];
  /** By record, bit n for word n. */
  has: Uint32Array;
  scores: Float32Array;
}

/**
 * How much of the seeds' weight in words each description has; NaN where a record has none. `find` gives the records that
 * hold a word, or null where it is too common to say anything. Null where no word of the seeds says anything.
 */
export function wordsPart(
  descriptions: readonly string[],
  find: (word: string) => Uint32Array | null,
  described: Bits,
  size: number,
): WordsPart | null {
  const inSeeds = new Map<string, number>();
  for (const text of descriptions)
    for (const word of new Set(foldedWords(text)))
      if (word.length >= LEAST_LETTERS) inSeeds.set(word, (inSeeds.get(word) ?? 0) + 1);
  const looked = [...inSeeds].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1)).slice(0, 3 * MOST_WORDS);
  const found = looked.flatMap(([word, seeds]) => {
    const records = find(word);
    // A word that only the seeds have finds nobody.
    if (!records || records.length <= seeds) return [];
    return [{ word, records, weight: Math.log(size / records.length) * (seeds / descriptions.length) }];
  });
  const taken = found.sort((a, b) => b.weight - a.weight || (a.word < b.word ? -1 : 1)).slice(0, MOST_WORDS);
  if (taken.length === 0) return null;
  const has = new Uint32Array(size);
  const sums = new Float32Array(size);
  let whole = 0;
  taken.forEach(({ records, weight }, n) => {
    whole += weight;
    for (const r of records) {
      has[r]! |= 1 << n;
      sums[r]! += weight;
    }
  });
  for (let r = 0; r < size; r++) sums[r] = hasBit(described, r) ? Math.min(1, sums[r]! / whole) : NaN;
  return {
    words: taken.map(({ word }) => word),
    weights: taken.map(({ weight }) => weight),
    has,
    scores: sums,
  };
}
