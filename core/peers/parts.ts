/** What likeness is made of, in the order in which it is told. */
export const PARTS = ['codes', 'words', 'technologies', 'size', 'place', 'channels'] as const;
export type Part = (typeof PARTS)[number];

/** What each part compares, for people. */
export const PART_WORDS: Readonly<Record<Part, string>> = {
  codes: 'industry codes, the rarer the more, through the crosswalk',
  words: 'words of the description, the rarer the more',
  technologies: 'technologies seen',
  size: 'headcount and revenue',
  place: 'place',
  channels: 'share of sales by channel',
};

/** How much each part weighs, from 0 to 1; what is left out weighs as by default. */
export type Weights = Partial<Readonly<Record<Part, number>>>;

export const DEFAULT_WEIGHTS: Readonly<Record<Part, number>> = {
  codes: 1,
  words: 0.6,
  technologies: 0.3,
  size: 0.4,
  place: 0.3,
  channels: 0.2,
};

export function weightOf(part: Part, weights: Weights | undefined): number {
  return weights?.[part] ?? DEFAULT_WEIGHTS[part];
}

/** Companies that likeness is measured from at most. */
export const MOST_SEEDS = 200;
