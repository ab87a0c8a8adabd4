import { expect, test } from '@jest/globals';
import { CodeTree, schemeNamed, type Scheme } from '../codes/tree.ts';
import { CellError } from './cell.ts';
import { codesText, readSchemedCodes, usualScheme, withoutSchemed, type ReadCode } from './codes.ts';

const tree = (scheme: Scheme, codes: readonly string[]) =>
  new CodeTree(
    scheme,
    codes.map((code) => ({ code, level: 1, parent: '', title: code })),
  );
const TREES = new Map<Scheme, CodeTree>([
  ['nace-2.1', tree('nace-2.1', ['25.51', '16.23'])],
  ['naics-2022', tree('naics-2022', ['332812', '238330'])],
]);
const nace = (code: string, main = false): ReadCode => ({ scheme: 'nace-2.1', code, main });
const naics = (code: string, main = false): ReadCode => ({ scheme: 'naics-2022', code, main });

test.each([
  [[nace('25.51', true), nace('16.23')], '25.51; 16.23'],
  [
    [nace('25.51', true), naics('332812', true), naics('238330')],
    '25.51; NAICS 2022 332812 main; NAICS 2022 238330',
  ],
  [[naics('332812', true), nace('16.23')], '332812; NACE 2.1 16.23'],
  [[naics('332812')], '332812'],
  [[], ''],
])('codes are written as they are read: %#', (codes, text) => {
  expect(codesText(codes)).toBe(text);
  const usual = usualScheme(codes) ?? 'nace-2.1';
  // Which is the main one of the usual scheme stands in the column of main codes.
  const read = readSchemedCodes(text, usual, TREES);
  expect(read).toEqual(codes.map((one) => (one.scheme === usual ? { ...one, main: false } : one)));
});

test('a scheme is named by its name or key, and what it does not have is no code', () => {
  expect(['NACE 2.1', 'nace2.1', 'Nace 2', 'naics-2022', 'ISIC 5'].map(schemeNamed)).toEqual([
    ...(['nace-2.1', 'nace-2.1', 'nace-2', 'naics-2022'] as const),
    undefined,
  ]);
  expect(readSchemedCodes('naics 2022: 332812', 'nace-2.1', TREES)).toEqual([naics('332812')]);
  expect(() => readSchemedCodes('NAICS 2022 999999', 'nace-2.1', TREES)).toThrow(CellError);
  expect(withoutSchemed('25.51; NAICS 2022 332812 main;16.23')).toBe('25.51; 16.23');
});
