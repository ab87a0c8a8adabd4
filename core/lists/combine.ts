import type { ListVerdict } from '../tape/nodes.ts';

/** How lists make one: members of all of them, of any, of the first without the others, or of exactly one. */
export const COMBINE_WAYS = ['both', 'either', 'without', 'one'] as const;
export type CombineWay = (typeof COMBINE_WAYS)[number];

/** Members of a list, or those with certain verdicts. */
export interface CombinePart {
  list: string;
  verdict?: ListVerdict[];
}

export interface Combination {
  way: CombineWay;
  parts: CombinePart[];
}

/** Lists that can be combined at once. */
export const MOST_COMBINED = 6;

/** Records that are in certain lists and in no others: `lists` says in which, by their places. */
export interface Region {
  lists: number[];
  count: number;
}

/** Whether records of a region are among what a way of combining `of` lists makes. */
export function isWithin(way: CombineWay, { lists }: Pick<Region, 'lists'>, of: number): boolean {
  switch (way) {
    case 'both':
      return lists.length === of;
    case 'either':
      return lists.length > 0;
    case 'without':
      return lists.length === 1 && lists[0] === 0;
    case 'one':
      return lists.length === 1;
  }
}

/** How many a way of combining makes of some lists, given all their regions. */
export function combinedCount(way: CombineWay, regions: readonly Region[], of: number): number {
  return regions.reduce((sum, region) => sum + (isWithin(way, region, of) ? region.count : 0), 0);
}
