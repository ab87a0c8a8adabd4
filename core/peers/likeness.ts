import type { Crosswalk } from '../codes/crosswalk.ts';
import type { CodeTree, Scheme } from '../codes/tree.ts';
import type {
  CodesColumn,
  KeyedColumn,
  ManyColumn,
  PlaceColumn,
  RangeColumn,
  TextColumn,
  Universe,
} from '../tally/columns.ts';
import { noBits, setBit, type Bits } from '../tally/bits.ts';
import { codesPart } from './codes-part.ts';
import { channelsPart, placePart, sizePart, technologiesPart } from './other-parts.ts';
import { PARTS, weightOf, type Part, type Weights } from './parts.ts';
import { wordsPart, type WordsPart } from './words-part.ts';

/** What likeness is measured over. */
export interface Surroundings {
  universe: Universe;
  trees: (scheme: Scheme) => CodeTree;
  crosswalk: () => Crosswalk;
  /** The records whose description holds a word; null where it is too common to say anything. */
  findWord(word: string): Uint32Array | null;
}

/** How alike every company is to some seeds, part by part. */
export interface Likeness {
  seeds: readonly number[];
  /** Parts that are known of the seeds: by record from 0 to 1, NaN where unknown of it. */
  parts: ReadonlyMap<Part, Float32Array>;
  words: WordsPart | null;
}

/** Measures all companies beside some seeds. `descriptions` are those of the seeds that have one. */
export function likenessTo(
  seeds: readonly number[],
  descriptions: readonly string[],
  { universe, trees, crosswalk, findWord }: Surroundings,
): Likeness {
  const { size, columns } = universe;
  const column = <T>(id: string) => columns.get(id) as T | undefined;
  const parts = new Map<Part, Float32Array>();
  const add = (part: Part, scores: Float32Array | null | undefined) => scores && parts.set(part, scores);
  add(
    'codes',
    codesPart(column<Map<Scheme, CodesColumn>>('industry') ?? new Map(), trees, crosswalk, seeds, size),
  );
  const described = column<TextColumn>('words')?.described;
  const words = described && descriptions.length ? wordsPart(descriptions, findWord, described, size) : null;
  add('words', words?.scores);
  const technology = column<ManyColumn>('technology');
  add('technologies', technology && technologiesPart(technology, seeds, size));
  const [headcount, revenue] = [column<RangeColumn>('headcount'), column<RangeColumn>('revenue')];
  add('size', headcount && revenue && sizePart(headcount, revenue, seeds, size));
  const place = column<PlaceColumn>('place');
  add('place', place && placePart(place, seeds, size));
  const channel = column<KeyedColumn>('channel');
  add('channels', channel && channelsPart(channel, seeds, size));
  return { seeds, parts, words };
}

/** Scores of all companies: what is sure, counting nothing for parts unknown of them, and what is possible, counting those in full. */
export interface Scores {
  low: Float32Array;
  high: Float32Array;
}

/** Weighs the parts. Parts unknown of the seeds do not count. */
export function scoresOf({ parts }: Likeness, weights: Weights | undefined, size: number): Scores {
  const low = new Float32Array(size);
  const high = new Float32Array(size);
  let whole = 0;
  for (const part of PARTS) if (parts.has(part)) whole += weightOf(part, weights);
  const weighed = [...parts].flatMap(([part, scores]) => {
    const weight = whole === 0 ? 0 : weightOf(part, weights) / whole;
    return weight === 0 ? [] : [{ scores, weight }];
  });
  for (let r = 0; r < size; r++) {
    let sure = 0;
    let open = 0;
    for (let p = 0; p < weighed.length; p++) {
      const { scores, weight } = weighed[p]!;
      const score = scores[r]!;
      if (score === score) sure += weight * score;
      else open += weight;
    }
    low[r] = sure;
    high[r] = sure + open;
  }
  return { low, high };
}

/** The companies that are surely as alike as asked, and those that may be. The seeds are no peers of their own. */
export function peersFrom(
  { low, high }: Scores,
  from: number,
  seeds: readonly number[],
): { yes: Bits; unknown: Bits } {
  const yes = noBits(low.length);
  const unknown = noBits(low.length);
  const own = new Set(seeds);
  // Scores are sums of rounded parts: one that is as high as asked to six digits is as high.
  const limit = from - 1e-6;
  for (let r = 0; r < low.length; r++) {
    if (high[r]! < limit || own.has(r)) continue;
    setBit(low[r]! >= limit ? yes : unknown, r);
  }
  return { yes, unknown };
}
