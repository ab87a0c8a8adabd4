import { describe, expect, test } from '@jest/globals';
import { CodeTree } from '../codes/tree.ts';
import { allBits, noBits, setBit } from '../tally/bits.ts';
import { Basis, NO_DAY, type CodesColumn, type Column, type RangeColumn } from '../tally/columns.ts';
import { traitsOf } from './traits.ts';

const tree = new CodeTree('nace-2.1', [
  { code: 'C', level: 1, parent: '', title: 'Making' },
  { code: '16', level: 2, parent: 'C', title: 'Wood' },
  { code: '16.1', level: 3, parent: '16', title: 'Sawing' },
  { code: '16.11', level: 4, parent: '16.1', title: 'Sawing of wood' },
  { code: '25', level: 2, parent: 'C', title: 'Metal' },
]);
const told = (column: Column, size: number, among: readonly number[] = [...Array(size).keys()]) => {
  const traits = traitsOf(column, among, () => tree);
  return (
    traits &&
    Array.from({ length: size }, (_, r) => {
      const own: number[] = [];
      traits(r, (trait) => own.push(trait));
      return own;
    })
  );
};
const range = (low: number[], high: number[], basis: Basis[]) =>
  ({
    kind: 'range',
    low: Float64Array.from(low),
    high: Float64Array.from(high),
    basis: Uint8Array.from(basis),
  }) as RangeColumn;

describe('the traits of a record', () => {
  test('of a category are its value, of several all of them, and none where it is unknown', () => {
    const category = {
      kind: 'category',
      dictionary: ['a', 'b'],
      values: Uint8Array.from([2, 0, 1]),
    } as Column;
    expect(told(category, 3)).toEqual([[2], [], [1]]);
    const many = {
      kind: 'many',
      offsets: Uint32Array.from([0, 2, 2, 3]),
      values: Uint8Array.from([4, 7, 4]),
    } as Column;
    expect(told(many, 3)).toEqual([[4, 7], [], [4]]);
  });
  test('of figures are even parts of those judged, a band by its known end', () => {
    const { Reported, Band, Unknown } = {
      Reported: Basis.Reported,
      Band: Basis.Band,
      Unknown: Basis.Unknown,
    };
    const column = range(
      [1, 2, 3, 4, 5, 100, -Infinity, NaN],
      [1, 2, 3, 4, 5, 100, 3, NaN],
      [Reported, Reported, Reported, Reported, Reported, Reported, Band, Unknown],
    );
    expect(told(column, 8, [0, 1, 2, 3, 4])).toEqual([[0], [1], [2], [3], [4], [4], [2], []]);
    // Of nobody judged with a figure, no part is any other's.
    expect(told(column, 8, [7])).toEqual([[], [], [], [], [], [], [], []]);
  });
  test('of days likewise', () => {
    const column = { kind: 'date', days: Int32Array.from([10, 20, NO_DAY, 900]) } as Column;
    expect(told(column, 4, [0, 1, 3])).toEqual([[1], [2], [], [3]]);
  });
  test('of codes are the main one and the coarser above it, in the scheme that most judged have', () => {
    const codes = (scheme: string, nodes: number[][]): CodesColumn => {
      const hasMain = noBits(nodes.length);
      nodes.forEach((own, r) => own.length && setBit(hasMain, r));
      return {
        kind: 'codes',
        scheme,
        offsets: Uint32Array.from([0, ...nodes.map((_, r) => nodes.slice(0, r + 1).flat().length)]),
        nodes: Uint16Array.from(nodes.flat()),
        hasMain,
      } as unknown as CodesColumn;
    };
    const nodeOf = (code: string) => tree.nodeOf(code);
    const both = new Map([
      ['sic-1987', codes('sic-1987', [[], [], [nodeOf('25')]])],
      ['nace-2.1', codes('nace-2.1', [[nodeOf('16.11'), nodeOf('25')], [nodeOf('16')], []])],
    ]) as unknown as Column;
    expect(told(both, 3)).toEqual([[nodeOf('16'), tree.size + nodeOf('16.11')], [nodeOf('16')], []]);
  });
  test('are none of what is looked up elsewhere', () => {
    expect(told({ kind: 'known', known: allBits(3) }, 3)).toBeNull();
    expect(told({ kind: 'key', find: () => undefined }, 3)).toBeNull();
  });
});
