import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { smallTree } from '../testing/small-tree.ts';
import { countBits, hasBit, noBits, setBit, type Bits } from './bits.ts';
import { countCodes, countCodesWithKin } from './code-counts.ts';
import type { CodesColumn } from './columns.ts';
import { postingsOfOne } from './postings.ts';
import { testCodes } from './test-codes.ts';

const tree = smallTree();
const arrays = (length: number) => new Uint32Array(length);

/** Codes of each record, the main one first where it has one. */
type Coded = { codes: string[]; main: boolean };
const anyCoded: fc.Arbitrary<Coded> = fc.record({
  codes: fc.uniqueArray(fc.constantFrom(...tree.codes), { maxLength: 3 }),
  main: fc.boolean(),
});
const anyRecords = fc.array(fc.tuple(anyCoded, fc.boolean()), { minLength: 1, maxLength: 50 });

function columnOf(records: readonly Coded[]): CodesColumn {
  const nodes = records.map(({ codes }) => codes.map((code) => tree.nodeOf(code)));
  const offsets = new Uint32Array(records.length + 1);
  nodes.forEach((own, r) => (offsets[r + 1] = offsets[r]! + own.length));
  const [coded, hasMain] = [noBits(records.length), noBits(records.length)];
  const byNode: number[][] = tree.codes.map(() => []);
  const mainOf = new Uint32Array(records.length);
  nodes.forEach((own, r) => {
    if (own.length) setBit(coded, r);
    if (own.length && records[r]!.main) {
      setBit(hasMain, r);
      mainOf[r] = own[0]! + 1;
    }
    for (const node of own) byNode[node]!.push(r);
  });
  const starts = new Uint32Array(tree.size + 1);
  byNode.forEach((own, node) => (starts[node + 1] = starts[node]! + own.length));
  const mains = postingsOfOne(mainOf, tree.size + 1, arrays);
  return {
    kind: 'codes',
    scheme: 'nace-2.1',
    offsets,
    nodes: Uint16Array.from(nodes.flat()),
    postings: { starts, records: Uint32Array.from(byNode.flat()) },
    mainPostings: { starts: mains.starts.subarray(1), records: mains.records },
    coded,
    hasMain,
  };
}

function contextOf(records: readonly (readonly [Coded, boolean])[]): Bits {
  const context = noBits(records.length);
  records.forEach(([, kept], r) => kept && setBit(context, r));
  return context;
}

describe('the count beside a code', () => {
  test('is what a line on that code alone keeps of the context', () => {
    fc.assert(
      fc.property(anyRecords, fc.boolean(), (records, mainOnly) => {
        const column = columnOf(records.map(([coded]) => coded));
        const context = contextOf(records);
        const { counts } = countCodes(column, tree, context, mainOnly);
        for (const [node, code] of tree.codes.entries()) {
          const { yes } = testCodes(column, tree.passOf([code], []), mainOnly, records.length);
          const kept = records.filter((_, r) => hasBit(yes, r) && hasBit(context, r)).length;
          expect([code, counts[node]]).toEqual([code, kept]);
        }
      }),
    );
  });
  test('leaves unknown those that have no code, or no main one where that is asked', () => {
    fc.assert(
      fc.property(anyRecords, (records) => {
        const column = columnOf(records.map(([coded]) => coded));
        const context = contextOf(records);
        const kept = records.filter(([, in_]) => in_).map(([coded]) => coded);
        expect(countCodes(column, tree, context, false).unknown).toBe(
          kept.filter(({ codes }) => !codes.length).length,
        );
        expect(countCodes(column, tree, context, true).unknown).toBe(
          kept.filter(({ codes, main }) => !codes.length || !main).length,
        );
      }),
    );
  });
  test('is the same whether or not other schemes are asked that say nothing', () => {
    fc.assert(
      fc.property(anyRecords, fc.boolean(), (records, mainOnly) => {
        const column = columnOf(records.map(([coded]) => coded));
        const context = contextOf(records);
        const alone = countCodes(column, tree, context, mainOnly);
        expect(countCodesWithKin(column, [], tree, context, mainOnly)).toEqual(alone);
      }),
    );
  });
});

describe('codes of another scheme', () => {
  /** One code elsewhere that says coating for sure, and one that says nothing here. */
  const saying = [[tree.nodeOf('25.51'), tree.nodeOf('25.5'), tree.nodeOf('25'), tree.nodeOf('C')], []];
  const other: CodesColumn = {
    ...columnOf([]),
    scheme: 'naics-2022',
    offsets: Uint32Array.of(0, 1, 2, 3, 4, 4),
    nodes: Uint16Array.of(0, 1, 0, 0),
    coded: Uint32Array.of(0b1111),
    hasMain: Uint32Array.of(0b1111),
  };
  const own = columnOf([
    { codes: [], main: false },
    { codes: [], main: false },
    { codes: ['25'], main: true },
    { codes: ['16.10'], main: true },
    { codes: [], main: false },
  ]);
  const all: Bits = Uint32Array.of(0b11111);
  const countOf = (column: CodesColumn | null) => {
    const { counts, unknown } = countCodesWithKin(column, [{ column: other, saying }], tree, all, false);
    return {
      ...Object.fromEntries(['C', '16.1', '25', '25.51'].map((code) => [code, counts[tree.nodeOf(code)]])),
      unknown,
    };
  };
  test('decide for records with no code of this one, and for those coded too coarsely', () => {
    // The fourth is known to be in sawmilling, whatever else it is elsewhere.
    expect(countOf(own)).toEqual({ C: 3, '16.1': 1, 25: 2, '25.51': 2, unknown: 1 });
  });
  test('decide for all where nothing is coded in this one', () => {
    expect(countOf(null)).toEqual({ C: 3, '16.1': 0, 25: 3, '25.51': 3, unknown: 1 });
  });
  test('an uncoded record is one of the context', () => {
    expect(countBits(all)).toBe(5);
  });
});
