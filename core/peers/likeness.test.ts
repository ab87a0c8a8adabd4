import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Crosswalk } from '../codes/crosswalk.ts';
import { CodeTree } from '../codes/tree.ts';
import { hasBit, noBits, setBit, type Bits } from '../tally/bits.ts';
import {
  Basis,
  type CategoryColumn,
  type CodesColumn,
  type KeyedColumn,
  type ManyColumn,
  type PlaceColumn,
  type RangeColumn,
  type Universe,
} from '../tally/columns.ts';
import { codesPart } from './codes-part.ts';
import { peersFrom, scoresOf, type Likeness } from './likeness.ts';
import { channelsPart, placePart, sizePart, technologiesPart } from './other-parts.ts';
import { PARTS, type Part } from './parts.ts';
import { reasonsOf } from './reasons.ts';
import { wordsPart } from './words-part.ts';

/** How alike companies are, part by part, on a handful that can be reckoned by hand. */

const bits = (size: number, records: readonly number[]): Bits => {
  const all = noBits(size);
  for (const r of records) setBit(all, r);
  return all;
};

/** Records by value, from the values by record. */
function postingsOf(values: readonly (readonly number[])[], count: number) {
  const by = Array.from({ length: count }, (_, v) =>
    values.flatMap((own, r) => (own.includes(v) ? [r] : [])),
  );
  const starts = new Uint32Array(count + 1);
  by.forEach((records, v) => (starts[v + 1] = starts[v]! + records.length));
  return { starts, records: Uint32Array.from(by.flat()) };
}

function many(dictionary: string[], lists: readonly (readonly string[] | null)[]): ManyColumn {
  const values = lists.map((list) => (list ?? []).map((one) => dictionary.indexOf(one)));
  const offsets = new Uint32Array(lists.length + 1);
  values.forEach((own, r) => (offsets[r + 1] = offsets[r]! + own.length));
  const known = bits(
    lists.length,
    lists.flatMap((list, r) => (list === null ? [] : [r])),
  );
  return {
    ...{ kind: 'many', dictionary, offsets, values: Uint8Array.from(values.flat()), known, seen: null },
    postings: postingsOf(values, dictionary.length),
  };
}

/** Exact figures; a pair is a band; null is unknown. */
function range(figures: readonly (number | readonly [number, number] | null)[]): RangeColumn {
  const end = (at: 0 | 1) =>
    Float64Array.from(figures, (one) => (one === null ? NaN : typeof one === 'number' ? one : one[at]));
  const basis = Uint8Array.from(figures, (one) =>
    one === null ? Basis.Unknown : typeof one === 'number' ? Basis.Reported : Basis.Band,
  );
  return { kind: 'range', low: end(0), high: end(1), basis, currency: null, currencies: [] } as never;
}

function category(values: readonly (string | null)[]): CategoryColumn {
  const dictionary = [...new Set(values.filter((one) => one !== null))];
  const numbers = values.map((one) => (one === null ? 0 : dictionary.indexOf(one) + 1));
  return {
    ...{ kind: 'category', dictionary, values: Uint8Array.from(numbers) },
    postings: postingsOf(
      numbers.map((one) => [one]),
      dictionary.length + 1,
    ),
  };
}

function places(
  rows: readonly { country: string | null; region?: string; at?: readonly [number, number] }[],
): PlaceColumn {
  return {
    kind: 'place',
    country: category(rows.map(({ country }) => country)),
    region: category(rows.map(({ region }) => region ?? null)),
    lat: Float64Array.from(rows, ({ at }) => at?.[0] ?? NaN),
    lon: Float64Array.from(rows, ({ at }) => at?.[1] ?? NaN),
  } as never;
}

/** C with 16 and 25; 16.1 and 16.2 under 16, 16.21 and 16.22 under 16.2. */
const tree = new CodeTree(
  'nace-2.1',
  [
    ['C', '', 1],
    ['16', 'C', 2],
    ['16.1', '16', 3],
    ['16.2', '16', 3],
    ['16.21', '16.2', 4],
    ['16.22', '16.2', 4],
    ['25', 'C', 2],
  ].map(([code, parent, level]) => ({
    ...{ code: code as string, parent: parent as string, level: level as number, title: `T ${code}` },
  })),
);

function codes(lists: readonly (readonly string[])[], main: readonly number[]): CodesColumn {
  const values = lists.map((list) => list.map((code) => tree.nodeOf(code)));
  const offsets = new Uint32Array(lists.length + 1);
  values.forEach((own, r) => (offsets[r + 1] = offsets[r]! + own.length));
  return {
    ...{ kind: 'codes', scheme: 'nace-2.1', offsets, nodes: Uint16Array.from(values.flat()) },
    postings: postingsOf(values, tree.size),
    hasMain: bits(lists.length, main),
  } as never;
}
const noCrosswalk = (): Crosswalk => {
  throw new Error('No other scheme is asked for.');
};
const codesOf = (column: CodesColumn, seeds: readonly number[], size: number) =>
  codesPart(new Map([['nace-2.1', column]]), () => tree, noCrosswalk, seeds, size);

describe('a part', () => {
  test('of codes: the same is alike in full, a sibling by what is over both, none is unknown', () => {
    const column = codes([['16.21'], ['16.21'], ['16.22'], ['16.1'], ['25'], []], [0, 1, 2, 3, 4]);
    const [seed, same, sibling, cousin, other, none] = codesOf(column, [0], 6)!;
    expect([seed, same]).toEqual([1, 1]);
    expect(sibling).toBeLessThan(1);
    expect(sibling).toBeGreaterThan(cousin!);
    expect(cousin).toBeGreaterThan(other!);
    expect(none).toBeNaN();
    expect(codesOf(column, [5], 6)).toBeNull();
  });

  test('of codes: one that is not the main one counts for less', () => {
    const column = codes([['16.21'], ['16.21', '25'], ['25', '16.21']], [0, 1, 2]);
    const [, first, second] = codesOf(column, [0], 3)!;
    expect(first).toBe(1);
    expect(second).toBeCloseTo(0.75);
  });

  test('of technologies: the cosine, rare ones weighing more; never surveyed is unknown', () => {
    const column = many(
      ['rare', 'common'],
      [['rare', 'common'], ['rare', 'common'], ['rare'], ['common'], ['common'], [], null],
    );
    const [seed, same, rare, common, , nothing, unknown] = technologiesPart(column, [0], 7)!;
    expect(seed).toBeCloseTo(1);
    expect(same).toBeCloseTo(1);
    expect(rare).toBeGreaterThan(common!);
    expect([nothing, unknown]).toEqual([0, NaN]);
    expect(technologiesPart(column, [5], 7)).toBeNull();
  });

  test('of size: ten times is nothing alike, whichever of two figures is known', () => {
    const headcount = range([100, 100, 10, 1000, null, [50, 200], [50, Infinity]]);
    const revenue = range([1e6, null, null, null, 1e6, null, null]);
    const [seed, same, tenth, tenfold, byRevenue, band, open] = sizePart(headcount, revenue, [0], 7)!;
    expect([seed, same, tenth, tenfold, byRevenue]).toEqual([1, 1, 0, 0, 1]);
    expect(band).toBeCloseTo(1);
    expect(open).toBeNaN();
    expect(sizePart(headcount, revenue, [6], 7)).toBeNull();
  });

  test('of place: kilometres beside one seed, else region and country', () => {
    const column = places([
      { country: 'CZ', region: 'a', at: [49.2, 16.6] },
      { country: 'CZ', region: 'a', at: [49.2, 16.6] },
      { country: 'CZ', region: 'b', at: [50.1, 14.4] },
      { country: 'CZ', region: 'b' },
      { country: 'DE', at: [53.5, 10] },
      { country: null },
    ]);
    const [, beside, far, unplaced, abroad, unknown] = placePart(column, [0], 6)!;
    expect(beside).toBeCloseTo(1);
    expect(far).toBeGreaterThanOrEqual(0.25);
    expect(far).toBeLessThan(0.5);
    expect([unplaced, abroad, unknown]).toEqual([0.25, 0, NaN]);
    const [first, , third] = placePart(column, [0, 1, 2], 6)!;
    expect(first).toBe(1);
    expect(third).toBe(0.5);
    expect(placePart(column, [5], 6)).toBeNull();
  });

  test('of channels: what both sell by; of whom nothing is known it is unknown', () => {
    const column = {
      ...{ kind: 'keyed', keys: ['direct', 'dealers'], starts: Uint32Array.of(0, 2, 4) },
      records: Uint32Array.of(0, 1, 0, 2),
      values: Float64Array.of(60, 100, 40, 100),
      known: bits(4, [0, 1, 2]),
    } as KeyedColumn;
    const [seed, direct, dealers, unknown] = channelsPart(column, [0], 4)!;
    expect([seed, direct, dealers]).toEqual([1, Math.fround(0.6), Math.fround(0.4)]);
    expect(unknown).toBeNaN();
    expect(channelsPart(column, [3], 4)).toBeNull();
  });

  test('of words: the rarer the more; words that only the seeds have say nothing', () => {
    const found: Record<string, number[] | null> = {
      coats: [0, 1],
      metal: [0, 1, 2, 3],
      made: null,
      only: [0],
    };
    const find = (word: string) => (found[word] ? Uint32Array.from(found[word]) : null);
    const part = wordsPart(['Only made: coats metal, coats of it'], find, bits(5, [0, 1, 2, 3]), 5)!;
    expect(part.words).toEqual(['coats', 'metal']);
    const [seed, both, one, , none] = part.scores;
    expect([seed, both]).toEqual([1, 1]);
    expect(one).toBeGreaterThan(0);
    expect(one).toBeLessThan(0.5);
    expect(none).toBeNaN();
    expect(wordsPart(['made only'], find, bits(5, [0]), 5)).toBeNull();
  });
});

describe('the parts together', () => {
  const likeness = (parts: Partial<Record<Part, readonly number[]>>): Likeness => ({
    seeds: [0],
    parts: new Map(PARTS.flatMap((part) => (parts[part] ? [[part, Float32Array.from(parts[part])]] : []))),
    words: null,
  });

  test('what is unknown of a company is nothing for sure, and all it could be', () => {
    const { low, high } = scoresOf(
      likeness({ codes: [1, 1, 0], size: [1, NaN, 1] }),
      { codes: 1, size: 1 },
      3,
    );
    expect([...low]).toEqual([1, 0.5, 0.5]);
    expect([...high]).toEqual([1, 1, 0.5]);
    const { yes, unknown } = peersFrom({ low, high }, 0.8, [0]);
    // Whom it is measured from is no peer.
    expect([0, 1, 2].map((r) => [hasBit(yes, r), hasBit(unknown, r)])).toEqual([
      [false, false],
      [false, true],
      [false, false],
    ]);
  });

  test('scores lie between 0 and 1, the sure below the possible, equal where all is known', () => {
    const score = fc.oneof(fc.double({ min: 0, max: 1, noNaN: true }), fc.constant(NaN));
    const three = fc.tuple(score, score, score);
    const parts = fc.record(
      { codes: three, words: three, size: three, place: three },
      { requiredKeys: ['codes'] },
    );
    const weights = fc.record({ codes: fc.double({ min: 0.1, max: 1, noNaN: true }) });
    fc.assert(
      fc.property(parts, weights, (some, weighed) => {
        const { low, high } = scoresOf(likeness(some), weighed, 3);
        for (let r = 0; r < 3; r++) {
          expect(low[r]).toBeGreaterThanOrEqual(0);
          expect(high[r]).toBeLessThanOrEqual(1 + 1e-6);
          expect(low[r]).toBeLessThanOrEqual(high[r]! + 1e-6);
          const all = Object.values(some).every((own) => own === undefined || !Number.isNaN(own[r]!));
          if (all) expect(low[r]).toBeCloseTo(high[r]!, 6);
        }
      }),
    );
  });
});

test('why they are alike is said in words, the weightiest first', () => {
  const industry = codes([['16.21'], ['16.21', '25'], ['16.22'], ['25']], [0, 1, 2, 3]);
  const universe = {
    size: 4,
    columns: new Map<string, unknown>([
      ['industry', new Map([['nace-2.1', industry]])],
      ['technology', many(['Rutavel', 'Kontovar'], [['Rutavel'], ['Rutavel', 'Kontovar'], [], null])],
      ['headcount', range([46, 50, [10, 49], null])],
      [
        'place',
        places([
          { country: 'CZ', region: 'a', at: [49.2, 16.6] },
          { country: 'CZ', region: 'a', at: [49.25, 16.6] },
          { country: 'CZ', region: 'a' },
          { country: 'CZ', region: 'b' },
        ]),
      ],
    ]),
  } as unknown as Universe;
  const likeness: Likeness = {
    seeds: [0],
    parts: new Map<Part, Float32Array>([
      ['codes', Float32Array.of(1, 1, 0.6, 0.4)],
      ['technologies', Float32Array.of(1, 0.7, 0, NaN)],
      ['size', Float32Array.of(1, 0.96, 0.7, NaN)],
      ['place', Float32Array.of(1, 0.95, 0.5, 0.36)],
      ['channels', Float32Array.of(1, 0.4, 0.2, NaN)],
    ]),
    words: {
      words: ['coats', 'metal'],
      weights: [1, 1],
      has: Uint32Array.of(3, 2, 0, 0),
      scores: new Float32Array(4),
    },
  };
  const why = (r: number, weights?: Partial<Record<Part, number>>) =>
    reasonsOf(likeness, r, weights, universe, () => tree);
  expect(why(1)).toBe(
    'same code 16.21; headcount 50 beside 46; 5.6 km away; uses Rutavel; sells 40 % the same ways',
  );
  expect(why(2)).toBe('related code 16.22 under 16.2; of like size; same region');
  expect(why(3)).toBe('code of another scheme that is linked; same country');
  expect(why(1, { place: 1, codes: 0.1 })).toMatch(/^5\.6 km away/);
});
