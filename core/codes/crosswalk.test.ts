import { describe, expect, test } from '@jest/globals';
import { Crosswalk, type CodeLink } from './crosswalk.ts';
import { CodeTree, Pass, type Scheme } from './tree.ts';

const row = (code: string, level: number, parent = '') => ({ code, level, parent, title: code });
const trees = new Map<Scheme, CodeTree>([
  [
    'nace-2.1',
    new CodeTree('nace-2.1', [
      row('25', 2),
      row('25.5', 3, '25'),
      row('25.51', 4, '25.5'),
      row('25.52', 4, '25.5'),
    ]),
  ],
  ['isic-4', new CodeTree('isic-4', [row('25', 2), row('2592', 4, '25'), row('2599', 4, '25')])],
  [
    'naics-2022',
    new CodeTree('naics-2022', [
      row('332', 3),
      row('332812', 6, '332'),
      row('332999', 6, '332'),
      row('332000', 6, '332'),
    ]),
  ],
]);
const link = (from: Scheme, code: string, to: Scheme, target: string, kind: CodeLink['kind']): CodeLink => ({
  from,
  code,
  to,
  target,
  kind,
});
const crosswalk = new Crosswalk(trees, [
  link('nace-2.1', '25.51', 'isic-4', '2592', 'part-of'),
  link('nace-2.1', '25.52', 'isic-4', '2592', 'part-of'),
  link('isic-4', '2592', 'nace-2.1', '25.51', 'covers'),
  link('isic-4', '2592', 'nace-2.1', '25.52', 'covers'),
  link('isic-4', '2592', 'naics-2022', '332812', 'exact'),
  link('naics-2022', '332812', 'isic-4', '2592', 'exact'),
  link('naics-2022', '332999', 'isic-4', '2599', 'exact'),
  link('isic-4', '2599', 'naics-2022', '332999', 'covers'),
]);
const said = (other: Scheme, scheme: Scheme, any: string[], possible: boolean) => {
  const pass = crosswalk.passIn(other, scheme, trees.get(scheme)!.passOf(any, []), possible);
  return Object.fromEntries(trees.get(other)!.codes.map((code, node) => [code, pass[node]]));
};

describe('codes of another scheme', () => {
  test('pass surely where all they are linked with passes, and possibly where some of it does', () => {
    expect(said('isic-4', 'nace-2.1', ['25.51', '25.52'], false)).toMatchObject({ '2592': Pass.Yes });
    expect(said('isic-4', 'nace-2.1', ['25.51'], false)).toMatchObject({ '2592': Pass.Unknown });
    expect(said('isic-4', 'nace-2.1', ['25.51'], true)).toMatchObject({ '2592': Pass.Yes });
  });
  test('are unknown where nothing links them, and their parents where what lies below differs', () => {
    expect(said('naics-2022', 'isic-4', ['2592'], true)).toEqual({
      '332': Pass.Unknown,
      '332812': Pass.Yes,
      '332999': Pass.No,
      '332000': Pass.Unknown,
    });
  });
  test('are not sure where their one link is of a kind that has others beside it', () => {
    expect(said('isic-4', 'naics-2022', ['332999'], false)).toMatchObject({
      '2599': Pass.Unknown,
      '2592': Pass.No,
    });
    expect(said('isic-4', 'naics-2022', ['332999'], true)).toMatchObject({ '2599': Pass.Yes });
  });
  test('reached by a chain of tables are possible and never sure', () => {
    expect(said('naics-2022', 'nace-2.1', ['25'], false)).toMatchObject({ '332812': Pass.Unknown });
    expect(said('naics-2022', 'nace-2.1', ['25'], true)).toMatchObject({ '332812': Pass.Yes });
  });
});

test('kin says which links are sure', () => {
  expect(crosswalk.kinOf('nace-2.1', '25.51')).toEqual([
    { scheme: 'isic-4', code: '2592', kind: 'part-of', sure: true },
    { scheme: 'naics-2022', code: '332812', kind: 'chain', sure: false },
  ]);
  expect(crosswalk.kinOf('isic-4', '2592').map(({ code, sure }) => [code, sure])).toEqual([
    ['25.51', false],
    ['25.52', false],
    ['332812', true],
  ]);
});
