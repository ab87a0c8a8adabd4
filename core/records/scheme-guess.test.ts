import { describe, expect, test } from '@jest/globals';
import { readCodeTable } from '../codes/tree.ts';
import type { Scheme } from '../codes/tree.ts';
import { guessScheme } from './scheme-guess.ts';

const tree = (scheme: Scheme, codes: string[]) =>
  [scheme, readCodeTable(scheme, ['h', ...codes.map((code) => `${code}\t4\t\tTitle`)].join('\n'))] as const;
const trees = new Map([
  tree('nace-2.1', ['16.23', '25.51', '25.53', '62.10']),
  tree('nace-2', ['16.23', '25.61', '25.62', '62.01']),
  tree('sic-1987', ['2431', '3479']),
  tree('naics-2022', ['321918', '332812']),
]);
const guess = (heading: string, ...cells: string[]) =>
  guessScheme(heading, cells, trees, (code) => code === '16.23');

describe('the scheme of a column of codes', () => {
  test.each([
    ['NACE Rev. 2.1', ['16.23'], 'nace-2.1'],
    ['NACE 2008', ['16.23'], 'nace-2'],
    ['WZ 2008', ['16.23'], 'nace-2'],
    ['WZ 2025', ['16.23'], 'nace-2.1'],
    ['UK SIC 2007', ['25.61'], 'nace-2'],
    ['US SIC', ['2431'], 'sic-1987'],
    ['Primary NAICS', ['321918'], 'naics-2022'],
    ['ISIC Rev. 4', ['1622'], 'isic-4'],
  ])('is named by “%s”', (heading, cells, scheme) => {
    expect(guess(heading, ...cells)).toBe(scheme);
  });

  test.each([
    ['Branche', ['25.51', '62.10'], 'nace-2.1'],
    ['Branche', ['25.61', '25.62', '16.23'], 'nace-2'],
    ['Code', ['2431', '3479'], 'sic-1987'],
    ['SIC code', ['2431'], 'sic-1987'],
    ['SIC code', ['25.61'], 'nace-2'],
  ])('under “%s” is that in which most of %j are codes', (heading, cells, scheme) => {
    expect(guess(heading, ...cells)).toBe(scheme);
  });

  test('where two fit it is the newer if all codes mean the same in both, else somebody has to say', () => {
    expect(guess('NACE', '16.23')).toBe('nace-2.1');
    expect(guess('NACE', '25.51', '25.61')).toBeNull();
  });

  test('where nothing fits it is what the heading allows, or the newest', () => {
    expect(guess('Branche', 'metal', 'wood')).toBe('nace-2.1');
    expect(guess('NACE', '99.99')).toBe('nace-2.1');
  });
});
