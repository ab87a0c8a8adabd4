import { expect, test } from '@jest/globals';
import { readCodeTable } from '../codes/tree.ts';
import { Gazetteer } from '../geo/gazetteer.ts';
import { guessMapping } from './mapping.ts';
import { rowReader } from './read-row.ts';

const places = new Gazetteer({
  countries: [
    'h',
    'CZ\tCZE\t203\tCzechia\tČesko\tCZK\t\t\t+420',
    'DE\tDEU\t276\tGermany\tDeutschland\tEUR\t\t\t+49',
    'US\tUSA\t840\tUnited States\t\tUSD\t\t\t+1',
    'GB\tGBR\t826\tUnited Kingdom\t\tGBP\t\t\t+44',
  ].join('\n'),
  regions: ['h', 'CZ-64\tCZ\tJihomoravský kraj\tSouth Moravia', 'US-DE\tUS\tDelaware\t'].join('\n'),
  towns: [
    'h',
    '1\tBrno\tBrno\t\tBrünn\tCZ\tCZ-64\t49.195\t16.608\t380000',
    '2\tDover\tDover\t\t\tUS\tUS-DE\t39.158\t-75.524\t38000',
  ].join('\n'),
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
  [
    'a town with its region and country',
    'Firma;Sídlo\nOrlín;Brno, South Moravia, Česko',
    [null, null, 'Brno', 'CZ'],
  ],
  ['a town with the short word of its country', 'Firma;Obec\nOrlín;Brno, CZ', [null, null, 'Brno', 'CZ']],
  ['DE behind a town of Delaware', 'Company;City\nOriole;Dover, DE', [null, null, 'Dover', 'US']],
  ['two letters that are neither', 'Company;City\nOriole;Dover, XX', [null, null, 'Dover, XX', null]],
  ['a postcode before the town', 'Firma;Obec\nOrlín;602 00 Brno', [null, '602 00', 'Brno', null]],
  [
    'the sign of the country before the postcode',
    'Firma;Obec\nOrlín;CZ-602 00 Brno',
    [null, '602 00', 'Brno', 'CZ'],
  ],
  [
    'an address under the heading of a town',
    'Company;Headquarters\nOriole;Hutní 7, 602 00 Brno, Česko',
    ['Hutní 7', '602 00', 'Brno', 'CZ'],
  ],
])('%s', (_, text, address) => {
  expect(addressOf(text)).toEqual(address);
});
