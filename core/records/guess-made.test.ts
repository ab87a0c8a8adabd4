import { describe, expect, test } from '@jest/globals';
import { guessMade } from './guess-made.ts';
import { guessMapping } from './mapping.ts';
import { headerWithMade, withMade } from './made-columns.ts';

/** The column that is made of a file's, with what it holds in each row; several apart by "and". */
function made(text: string, subject = 'companies'): string {
  const [header, ...rows] = text.split('\n').map((line) => line.split('|'));
  return guessMade(header!, rows, subject)
    .map(
      (column) =>
        `${column.heading}: ${rows.map((row) => withMade([column], row, header!.length).at(-1)).join(' / ')}`,
    )
    .join(' and ');
}

describe('columns that a file has in pieces', () => {
  test.each([
    [
      'a name over two',
      'Name 1|Name 2|Ort\nAmsel|Holzbau|Ulm\nBrandner||Ulm',
      'Company: Amsel Holzbau / Brandner',
    ],
    ['the second of two headings numbered', 'Firma|Firma 2|Ort\nAmsel|Holzbau|Ulm', 'Company: Amsel Holzbau'],
    [
      'lines of an address',
      'Company|AddressLine1|AddressLine2|Town\nAlder|Unit 4|Mill Lane|Leeds',
      'Street: Unit 4, Mill Lane',
    ],
    [
      'codes, of which the first stays the main one',
      'Company|SIC code 1|SIC code 2|SIC code 3\nAlder|25110|43320|None Supplied',
      'Other codes: 43320',
    ],
    ['dialling code and number', 'Firma|Vorwahl|Rufnummer\nAmsel|0731|1234', 'Phone: 0731 1234'],
    [
      'a French street',
      'Nom|numeroVoie|typeVoie|libelleVoie\nAulne|4 BIS|AV|JEAN PERROT',
      'Street: 4 BIS AV JEAN PERROT',
    ],
  ])('%s', (_, text, expected) => {
    expect(made(text)).toBe(expected);
  });

  test('are the investors of a round', () => {
    expect(made('Target|Lead investor|Other investors\nAlder|Blau|Grün; Rot', 'deals')).toBe(
      'Investors: Blau; Grün; Rot',
    );
  });

  test.each([
    ['the second is empty throughout', 'Name 1|Name 2\nAmsel|\nBrandner|'],
    ['a number is missing between', 'Name 1|Name 3\nAmsel|Holzbau'],
    ['years stand behind', 'Firma|Umsatz 2021|Umsatz 2022\nAmsel|1|2'],
    ['a dialling code has no number beside it', 'Firma|Vorwahl|Ort\nAmsel|0731|Ulm'],
    ['the heading is there already', 'Name 1|Name 2|Company|Company, joined\nAmsel|Holzbau|x|y'],
  ])('are none where %s', (_, text) => {
    expect(made(text)).toBe('');
  });

  test('are the degrees of a point in one cell, whichever comes first in it', () => {
    const degrees = (cell: string) => {
      const columns = guessMade(['Firma', 'Punkt'], [['Amsel', cell]], 'companies');
      return withMade(columns, ['Amsel', cell], 2).slice(2);
    };
    expect(degrees('45.8336, 1.2611')).toEqual(['45.8336', '1.2611']);
    expect(degrees('-33.9; 151.2')).toEqual(['-33.9', '151.2']);
    expect(degrees('POINT(16.6068 49.1951)')).toEqual(['49.1951)', 'POINT(16.6068']);
    expect(degrees('45.8, 1.2, 3.4')).toEqual([]);
    expect(guessMade(['Firma', 'Lat', 'Punkt'], [['Amsel', '1.5', '1.5, 2.5']], 'companies')).toEqual([]);
  });

  test('are none of people', () => {
    expect(made('Name 1|Name 2\nAmsel|Holzbau', 'people')).toBe('');
  });

  test('go before the columns they are made of', () => {
    const header = ['Firma', 'Firma 2', 'Ort'];
    const rows = [['Amsel', 'Holzbau', 'Ulm']];
    const columns = guessMade(header, rows, 'companies');
    const mapping = guessMapping(
      headerWithMade(columns, header),
      rows.map((row) => withMade(columns, row, header.length)),
      new Map(),
      { currency: 'EUR', year: 2025 },
      'companies',
      { made: columns.length },
    );
    expect(mapping.columns).toEqual([null, null, 'town', 'name']);
  });
});
