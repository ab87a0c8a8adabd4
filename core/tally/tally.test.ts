import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Lookup } from '../tape/lookup.ts';
import type { Line, Tape } from '../tape/nodes.ts';
import { allBits, countBits, recordsOf, hasBit, noBits, popcount, setBit } from './bits.ts';
import { Basis, type Column, type Universe } from './columns.ts';
import { postingsOfOne } from './postings.ts';
import { orderBy, keptInOrder } from './order.ts';
import { rangeIndex, type UnindexedRange } from './range-index.ts';
import { Tally } from './tally.ts';
import { andVerdict, notVerdict, orVerdict, type Verdict } from './verdict.ts';

/** Seven companies: three exact, a band inside, a band that straddles, an estimate, and one nobody knows. */
const HEADCOUNTS: [low: number, high: number, basis: Basis, rangeLow?: number, rangeHigh?: number][] = [
  [5, 5, Basis.Reported],
  [30, 30, Basis.Reported],
  [300, 300, Basis.Reported],
  [20, 49, Basis.Band],
  [10, 49, Basis.Band],
  [200, 200, Basis.Estimate, 150, 280],
  [0, 0, Basis.Unknown],
];

const ARRAYS = {
  uint32: (length: number) => new Uint32Array(length),
  float64: (length: number) => new Float64Array(length),
};

function universe(): Universe {
  const headcount: UnindexedRange = {
    kind: 'range',
    low: Float64Array.from(HEADCOUNTS, ([low]) => low),
    high: Float64Array.from(HEADCOUNTS, ([, high]) => high),
    rangeLow: Float64Array.from(HEADCOUNTS, ([low, , , rangeLow]) => rangeLow ?? low),
    rangeHigh: Float64Array.from(HEADCOUNTS, ([, high, , , rangeHigh]) => rangeHigh ?? high),
    basis: Uint8Array.from(HEADCOUNTS, ([, , basis]) => basis),
    why: Uint8Array.from([0, 0, 0, 0, 0, 0, 2]),
    year: new Uint16Array(7),
    currency: null,
    currencies: [],
  };
  const values = Uint32Array.from([1, 1, 2, 1, 0, 1, 0]);
  const status = {
    kind: 'category' as const,
    dictionary: ['active', 'closed'],
    values,
    postings: postingsOfOne(values, 3, ARRAYS.uint32),
  };
  const columns = new Map<string, Column>([
    ['headcount', { ...headcount, index: rangeIndex(headcount, ARRAYS) }],
    ['status', status],
  ]);
  return { size: 7, columns };
}

const lookup = { choices: () => [], asOf: 0 } as unknown as Lookup;
const tape = (...lines: Line[]): Tape => ({
  format: 'just-tally.tape',
  version: 1,
  subject: 'companies',
  lines,
});
const size: Line = { id: 'size', field: 'headcount', test: { from: 20, to: 249 } };
const active: Line = { id: 'active', field: 'status', test: { any: ['active'] } };
const tally = (...lines: Line[]) => new Tally(universe(), 'companies', lookup).tally(tape(...lines));
const figures = (line: Line) => {
  const { tally: left, lines } = tally(line);
  return [left, lines[0]!.unknown];
};

describe('the three values of a size line', () => {
  test('an exact value and a band within pass; a straddling band, an estimate and a missing value are unknown', () => {
    expect(figures(size)).toEqual([2, 3]);
    expect(tally(size).lines[0]!.reasons).toEqual({ 'too old': 1 });
  });
  test('unknowns are kept where the line says so', () =>
    expect(figures({ ...size, unknown: 'keep' })).toEqual([5, 3]));
  test('not keeps what fails, and unknowns unless told otherwise', () => {
    expect(figures({ ...size, not: true })).toEqual([5, 3]);
    expect(figures({ ...size, not: true, unknown: 'drop' })).toEqual([2, 3]);
  });
  test('where estimates count, the point decides and the ones that reach over a limit are told', () => {
    const { tally: left, estimated, lines } = tally({ ...size, estimates: true });
    expect([left, estimated, lines[0]!.estimated, lines[0]!.straddling]).toEqual([3, 1, 1, 1]);
  });
});

describe('the figures of a tape', () => {
  test('subtotal and cut follow the order, alone and without do not', () => {
    const there = tally(size, active);
    const back = tally(active, size);
    expect(
      there.lines.map(({ subtotal, cut, alone, without, unknown }) => [
        subtotal,
        cut,
        alone,
        without,
        unknown,
      ]),
    ).toEqual([
      [2, 5, 2, 4, 1],
      [2, 0, 4, 2, 0],
    ]);
    expect(back.lines.map(({ subtotal, cut }) => [subtotal, cut])).toEqual([
      [4, 3],
      [2, 2],
    ]);
    expect(there.holdsBackMost).toBe('size');
    expect(tally({ ...size, must: true }, active).holdsBackMost).toBeNull();
  });
  test('a parked line counts for nothing and shows what it would pass alone', () => {
    const { tally: left, lines } = tally({ ...size, parked: true }, active);
    expect(left).toBe(4);
    expect(lines[0]).toEqual({ id: 'size', subtotal: 7, cut: 0, alone: 2, without: 4, unknown: 0 });
  });
  test('an either-block passes what any branch passes; with all branches parked it is absent', () => {
    const block = (parked: boolean): Line => ({
      id: 'b',
      either: [
        { id: 'b1', field: 'headcount', test: { from: 300 }, ...(parked ? { parked: true as const } : {}) },
        {
          id: 'b2',
          field: 'status',
          test: { any: ['closed'] },
          not: true,
          ...(parked ? { parked: true as const } : {}),
        },
      ],
    });
    const { tally: left, lines } = tally(block(false));
    expect([left, lines[0]!.branches]).toEqual([
      5,
      [
        { id: 'b1', alone: 1 },
        { id: 'b2', alone: 4 },
      ],
    ]);
    expect(tally(block(true)).tally).toBe(7);
  });
  test('the empty tape keeps everybody', () =>
    expect(tally()).toEqual({ universe: 7, tally: 7, estimated: 0, lines: [], holdsBackMost: null }));
});

describe('bit sets', () => {
  const sized = fc
    .nat(200)
    .chain((n) =>
      fc.tuple(fc.constant(n), n === 0 ? fc.constant<number[]>([]) : fc.uniqueArray(fc.nat(n - 1))),
    );
  test('hold what was put in, in order', () => {
    fc.assert(
      fc.property(sized, ([n, members]) => {
        const bits = noBits(n);
        for (const member of members) setBit(bits, member);
        expect([...recordsOf(bits)]).toEqual([...members].sort((a, b) => a - b));
        expect(countBits(bits)).toBe(members.length);
        expect(countBits(allBits(n))).toBe(n);
        for (let r = 0; r < n; r++) expect(hasBit(bits, r)).toBe(members.includes(r));
      }),
    );
  });
  test('count the bits of a word', () => {
    fc.assert(
      fc.property(fc.integer(), (word) =>
        expect(popcount(word)).toBe([...(word >>> 0).toString(2)].filter((bit) => bit === '1').length),
      ),
    );
  });
});

test('verdicts follow Kleene', () => {
  const VALUES = ['no', 'unknown', 'yes'] as const;
  const verdict = (value: (typeof VALUES)[number]): Verdict => ({
    yes: Uint32Array.of(value === 'yes' ? 1 : 0),
    unknown: Uint32Array.of(value === 'unknown' ? 1 : 0),
  });
  const read = ({ yes, unknown }: Verdict) => (yes[0]! & 1 ? 'yes' : unknown[0]! & 1 ? 'unknown' : 'no');
  for (const a of VALUES) {
    expect(read(notVerdict(verdict(a), 1))).toBe({ no: 'yes', unknown: 'unknown', yes: 'no' }[a]);
    for (const b of VALUES) {
      const [low, high] = [VALUES.indexOf(a), VALUES.indexOf(b)].sort() as [number, number];
      expect(read(orVerdict([verdict(a), verdict(b)]))).toBe(VALUES[high]);
      expect(read(andVerdict([verdict(a), verdict(b)]))).toBe(VALUES[low]);
    }
  }
});

test('an order by several keys has unknown last, and keeps it for a part', () => {
  const key = fc.oneof(fc.integer({ min: 0, max: 3 }), fc.constant(NaN));
  fc.assert(
    fc.property(fc.array(fc.tuple(key, key), { maxLength: 40 }), fc.boolean(), (values, descending) => {
      const [first, second] = [0, 1].map((i) => Float64Array.from(values, (pair) => pair[i]!));
      const order = orderBy(
        [
          { keys: first!, descending },
          { keys: second!, descending: false },
        ],
        values.length,
      );
      const shown = [...order].map((r) => first![r]!);
      const known = shown.filter((value) => !Number.isNaN(value));
      expect(known).toEqual([...known].sort((a, b) => (descending ? b - a : a - b)));
      expect(shown.slice(known.length).every(Number.isNaN)).toBe(true);
      const some = noBits(values.length);
      for (let r = 0; r < values.length; r += 2) setBit(some, r);
      expect([...keptInOrder(order, some, countBits(some))]).toEqual([...order].filter((r) => r % 2 === 0));
    }),
  );
});
