import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { barRanges } from '../charts/bars.ts';
import { coarse, edgesOf, logEdges } from '../charts/edges.ts';
import { fieldOf } from '../fields/registry.ts';
import { limitsIn } from '../money/limits.ts';
import type { MoneyTest } from '../tape/nodes.ts';
import { recordsOf } from './bits.ts';
import { Basis, type KeyedColumn, type RangeColumn } from './columns.ts';
import { barNumbers, barOf, eachInBar, eachKeyedInBar, keyedBarNumbers, withoutKey } from './in-bars.ts';
import { rangeIndex, type UnindexedRange } from './range-index.ts';
import { testRange } from './test-range.ts';

const ARRAYS = {
  uint32: (length: number) => new Uint32Array(length),
  float64: (length: number) => new Float64Array(length),
};
const CURRENCIES = ['EUR', 'CZK', 'USD'];
const revenue = fieldOf('companies', 'revenue')!;
const headcount = fieldOf('companies', 'headcount')!;

interface Drawn {
  basis: Basis;
  low: number;
  width: number;
  currency: number;
  year: number;
}
/** Amounts that often lie just on an edge or a cent beside it. */
const amount = fc
  .tuple(fc.constantFrom(...logEdges(4, 7)), fc.constantFrom(-0.01, 0, 0.01, 1234.56))
  .map(([edge, beside]) => Math.max(0, Number((edge + beside).toFixed(2))));
const anyValue: fc.Arbitrary<Drawn> = fc.record({
  basis: fc.constantFrom(Basis.Unknown, Basis.Reported, Basis.Reported, Basis.Band, Basis.Estimate),
  low: amount,
  width: fc.constantFrom(0.5, 1000, 90_000),
  currency: fc.nat(2),
  year: fc.constantFrom(2023, 2024, 2025),
});

function columnOf(drawn: readonly Drawn[]): RangeColumn {
  const high = (d: Drawn) => (d.basis === Basis.Band ? d.low + d.width : d.low);
  const estimate = (d: Drawn) => d.basis === Basis.Estimate;
  const column: UnindexedRange = {
    kind: 'range',
    low: Float64Array.from(drawn, ({ low }) => low),
    high: Float64Array.from(drawn, high),
    rangeLow: Float64Array.from(drawn, (d) => (estimate(d) ? d.low / 2 : d.low)),
    rangeHigh: Float64Array.from(drawn, (d) => (estimate(d) ? d.low * 2 : high(d))),
    basis: Uint8Array.from(drawn, ({ basis }) => basis),
    why: new Uint8Array(drawn.length),
    year: Uint16Array.from(drawn, ({ year }) => year),
    currency: Uint8Array.from(drawn, ({ currency }) => currency),
    currencies: CURRENCIES,
  };
  return { ...column, index: rangeIndex(column, ARRAYS) };
}
const bars: MoneyTest[] = barRanges(revenue, logEdges(4, 7)).map((bar) => ({ ...bar, currency: 'EUR' }));

describe('bars as ranges', () => {
  test('leave no amount of whole cents between them and share none', () => {
    fc.assert(
      fc.property(amount, (value) => {
        const holding = bars.filter(
          ({ from, to }) => value >= (from ?? -Infinity) && value <= (to ?? Infinity),
        );
        expect(holding).toHaveLength(1);
        expect(bars[barOf(bars, value)]).toBe(holding[0]);
      }),
    );
  });
  test('of whole figures end one before the next; the first has no beginning and the last no end', () => {
    expect(barRanges(headcount, [0, 10, 50])).toEqual([{ to: 9 }, { from: 10, to: 49 }, { from: 50 }]);
    expect(barRanges(revenue, [0, 1000])).toEqual([{ to: 999.99 }, { from: 1000 }]);
    expect(barRanges(headcount, [3])).toEqual([{ from: 3 }]);
  });
  test('are of edges that rise, for every field that has figures', () => {
    for (const subject of ['companies', 'deals', 'sites', 'brands', 'people'])
      for (const id of ['headcount', 'revenue', 'profit', 'founded', 'age', 'amount', 'growth', 'bidders']) {
        const field = fieldOf(subject, id);
        if (!field) continue;
        const edges = edgesOf(field, 2026);
        expect(edges).toEqual([...edges].sort((a, b) => a - b));
        expect(new Set(edges).size).toBe(edges.length);
        expect(edges).toEqual(expect.arrayContaining(coarse(edges)));
      }
  });
});

describe('what lies in a bar', () => {
  test('is what a line on that range keeps, whatever the currency and year', () => {
    fc.assert(
      fc.property(fc.array(anyValue, { minLength: 1, maxLength: 40 }), (drawn) => {
        const column = columnOf(drawn);
        const found = bars.map(() => [] as number[]);
        eachInBar(column, bars, (bar, records, start, end, estimated) => {
          for (let i = start; i < end; i++) {
            found[bar]!.push(records[i]!);
            expect(column.basis[records[i]!] === Basis.Estimate).toBe(estimated);
          }
        });
        bars.forEach((bar, b) => {
          const { yes } = testRange(column, bar, true, drawn.length);
          expect(found[b]!.sort((a, c) => a - c)).toEqual([...recordsOf(yes)]);
        });
      }),
    );
  });
  test('is numbered by record: its bar, one above the last where no bar holds it, 0 where unknown', () => {
    fc.assert(
      fc.property(fc.array(anyValue, { minLength: 1, maxLength: 40 }), fc.boolean(), (drawn, estimates) => {
        const numbers = barNumbers(columnOf(drawn), bars, drawn.length, estimates);
        drawn.forEach((d, r) => {
          if (d.basis === Basis.Unknown || (d.basis === Basis.Estimate && !estimates))
            return expect(numbers[r]).toBe(0);
          const high = d.basis === Basis.Band ? d.low + d.width : d.low;
          const holds = bars.findIndex((bar) => {
            const { from, to } = limitsIn(bar, CURRENCIES[d.currency]!, d.year)!;
            return d.low >= from && high <= to;
          });
          expect(numbers[r]).toBe(holds < 0 ? bars.length + 1 : holds + 1);
        });
      }),
    );
  });
});

describe('figures by key', () => {
  const column: KeyedColumn = {
    kind: 'keyed',
    keys: ['dealers', 'direct'],
    starts: Uint32Array.of(0, 3, 5),
    records: Uint32Array.of(0, 1, 2, 2, 3),
    values: Float64Array.of(5, 20, 80, 10, 10),
    known: Uint32Array.of(0b01111),
  };
  const shares = [{ to: 9 }, { from: 10, to: 49 }, { from: 50 }];
  test('fall into their bars, and those that have only other keys are told apart', () => {
    const found: number[][] = [[], [], []];
    eachKeyedInBar(column, 'dealers', shares, (bar, records, start, end) => {
      found[bar]!.push(...records.subarray(start, end));
    });
    expect(found).toEqual([[0], [1], [2]]);
    expect([...recordsOf(withoutKey(column, 'dealers'))]).toEqual([3]);
    expect([...recordsOf(withoutKey(column, 'agents'))]).toEqual([0, 1, 2, 3]);
  });
  test('stand for 0 where having none means that, and for nothing where it does not', () => {
    expect([...keyedBarNumbers(column, 'dealers', 0, shares, 5)]).toEqual([1, 2, 3, 1, 0]);
    expect([...keyedBarNumbers(column, 'dealers', null, shares, 5)]).toEqual([1, 2, 3, 0, 0]);
    expect([...keyedBarNumbers(column, 'agents', 0, shares, 5)]).toEqual([1, 1, 1, 1, 0]);
    expect([...keyedBarNumbers(column, 'agents', null, shares, 5)]).toEqual([0, 0, 0, 0, 0]);
  });
});
