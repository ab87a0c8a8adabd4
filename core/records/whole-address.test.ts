import { expect, test } from '@jest/globals';
import { readCodeTable } from '../codes/tree.ts';
import { Gazetteer } from '../geo/gazetteer.ts';
import { guessMapping } from './mapping.ts';
import { rowReader } from './read-row.ts';

const places = new Gazetteer({
  countries: [
    'h',
    'CZ\tCZE\t203\tCzechia\tČesko\tCZK\t\t\t+420',
    'GB\tGBR\t826\tUnited Kingdom\t\tGBP\t\t\t+44',
  ].join('\n'),
  regions: ['h', 'CZ-64\tCZ\tJihomoravský kraj\tSouth Moravia'].join('\n'),
  towns: ['h', '1\tBrno\tBrno\t\tBrünn\tCZ\tCZ-64\t49.195\t16.608\t380000'].join('\n'),
  postcodes: 'h',
});
const trees = new Map([['nace-2.1', readCodeTable('nace-2.1', 'h\n16.23\t4\t\tTitle')]] as const);

/** Street, postcode, town and country of the row of a file. */
function addressOf(text: string): (string | null)[] {
  const [header, row] = text.split('\n').map((line) => line.split(';'));
  const mapping = guessMapping(header!, [row!], trees, { currency: 'EUR', year: 2025 });
  const read = rowReader(header!, mapping, trees, places, 20_700).read(row!);
  if (!('record' in read)) throw new Error(JSON.stringify(read));
  const { street, postcode, town, country } = read.record;
  return [street, postcode, town, country];
}

test.each([
  [
    'a number in a column of its own',
    'Firma;Ulice;Č.p.;Obec\nOrlín;Hutní;7;Brno',
    ['Hutní 7', null, 'Brno', null],
  ],
  [
    'a number that stands behind the street, too',
    'Firma;Ulice;Č.p.;Obec\nOrlín;Hutní 7;7;Brno',
    ['Hutní 7', null, 'Brno', null],
  ],
  [
    'a number that only ends alike',
    'Firma;Ulice;Č.p.;Obec\nOrlín;Třída 17;7;Brno',
    ['Třída 17 7', null, 'Brno', null],
  ],
  ['all in one cell', 'Firma;Adresa\nOrlín;Hutní 7, 602 00 Brno, Česko', ['Hutní 7', '602 00', 'Brno', 'CZ']],
  ['a town and its country', 'Firma;Adresa\nOrlín;Brno, Česko', [null, null, 'Brno', 'CZ']],
  ['nothing to take apart', 'Firma;Adresa\nOrlín;Dvůr', ['Dvůr', null, null, null]],
  [
    'a street with a comma beside a column of towns',
    'Firma;Adresa;Obec\nOrlín;Hala 2, Hutní 7;Brno',
    ['Hala 2, Hutní 7', null, 'Brno', null],
  ],
])('%s', (_, text, address) => {
  expect(addressOf(text)).toEqual(address);
});
