import { describe, expect, test } from '@jest/globals';
import { BEYOND_EUROPE } from '../fields/headings/beyond-europe.ts';
import { GERMANIC } from '../fields/headings/germanic.ts';
import type { HeadedColumn } from '../fields/headings/headed-column.ts';
import { OTHERS_OF_EUROPE } from '../fields/headings/others-of-europe.ts';
import { ROMANCE } from '../fields/headings/romance.ts';
import { SLAVIC } from '../fields/headings/slavic.ts';
import { guessColumns, guessSubject } from './headings.ts';

/** Lists of companies whose headings are in any of the languages that there are words for. */

const CELLS: Readonly<Record<HeadedColumn, string>> = {
  name: 'Alder Works',
  registration: '12345678',
  street: 'Mill Lane 12',
  postcode: '60200',
  town: 'Brno',
  region: 'South Moravia',
  country: 'Czechia',
  headcount: '45',
  revenue: '4200000',
  profit: '310000',
  founded: '1998',
  web: 'alder.example',
  mail: 'office@alder.example',
  phone: '+420 777 123 456',
  'main-code': '25.51',
  'legal-form': 'limited',
};
const COLUMNS = Object.keys(CELLS) as HeadedColumn[];
const ALL = Object.entries({ ...GERMANIC, ...ROMANCE, ...SLAVIC, ...OTHERS_OF_EUROPE, ...BEYOND_EUROPE });

describe('headings in', () => {
  test.each(ALL)('%s are read, each as its column', (_language, told) => {
    const header = COLUMNS.map((column) => told[column].split(', ')[0]!);
    const rows = [COLUMNS.map((column) => CELLS[column])];
    expect(guessColumns(header, rows, 'companies')).toEqual(COLUMNS);
    expect(guessSubject(header)).toBe('companies');
  });

  test.each(ALL)(
    '%s mean their column by every word there is for it, where no other is there',
    (_language, told) => {
      const others = COLUMNS.flatMap((column) =>
        told[column]
          .split(', ')
          .map((heading) => ({
            column,
            heading,
            read: guessColumns([heading], [[CELLS[column]]], 'companies')[0],
          }))
          .filter(({ read }) => read !== column),
      );
      expect(others).toEqual([]);
    },
  );
});
