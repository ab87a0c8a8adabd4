import { describe, expect, test } from '@jest/globals';
import { smallTree } from '../testing/small-tree.ts';
import { Pass } from './tree.ts';

const tree = smallTree();
const says = (any: string[], except: string[] = []) => {
  const pass = tree.passOf(any, except);
  return Object.fromEntries(
    tree.codes.map((code, node) => [
      code,
      ({ [Pass.No]: 'no', [Pass.Yes]: 'yes', [Pass.Unknown]: 'unknown' } as Record<number, string>)[
        pass[node]!
      ],
    ]),
  );
};

describe('what a recorded code says to a test on codes', () => {
  test('a code below the one asked for passes; a coarser one is unknown', () => {
    expect(says(['25.51'])).toEqual({
      C: 'unknown',
      16: 'no',
      '16.1': 'no',
      '16.10': 'no',
      25: 'unknown',
      '25.5': 'unknown',
      '25.51': 'yes',
      '25.53': 'no',
      F: 'no',
    });
  });
  test('an exception inside a branch fails, and makes the branch itself unknown', () => {
    expect(says(['25'], ['25.53'])).toMatchObject({ 25: 'unknown', '25.51': 'yes', '25.53': 'no' });
  });
  test('a code with a single code below it says the same as that one', () => {
    expect(says(['16.10'])).toMatchObject({ '16.1': 'yes', 16: 'yes' });
  });
});

test('codes are found as people write them', () => {
  expect(
    ['25.51', '2551', 'C25.51', ' 25.5 1 ', '25'].map((text) => tree.codes[tree.nodeOfLoose(text)]),
  ).toEqual(['25.51', '25.51', '25.51', '25.51', '25']);
  expect(tree.nodeOfLoose('99.99')).toBe(-1);
  expect(tree.nodeOfLoose('coating')).toBe(-1);
});
