import { expect, test } from '@jest/globals';
import type { Cell } from '../cells.ts';
import { SUBJECTS } from '../fields/registry.ts';
import { termColumns, termsOf } from './list-terms.ts';

const column = (subject: string, key: string) => termColumns(subject).find((one) => one.key === key)!;
const at = (town: string | null, countryName: string): Cell => ({
  ...{ town, countryName, region: 'Moravia', country: 'CZ', townKey: null, lat: null, lon: null },
});

test('every subject offers its name, and companies their places and trades', () => {
  for (const subject of SUBJECTS.keys()) expect(termColumns(subject).map(({ key }) => key)).toContain('name');
  expect(termColumns('companies').map(({ key }) => key)).toEqual(
    expect.arrayContaining(['town', 'region', 'country', 'postcode', 'industry', 'group']),
  );
  expect(termColumns('people').map(({ key }) => key)).toEqual(expect.arrayContaining(['title', 'company']));
});

test('cells give each term once, in their order, and nothing for what is unknown', () => {
  const places = [
    at('Brno', 'Czechia'),
    null,
    at('Praha', 'Czechia'),
    at('Brno', 'Czechia'),
    at(null, 'Austria'),
  ];
  expect(termsOf(places, column('companies', 'town'))).toEqual(['Brno', 'Praha']);
  expect(termsOf(places, column('companies', 'country'))).toEqual(['Czechia', 'Austria']);
  const codes: Cell[] = [
    [
      { scheme: 'nace-2.1', code: '52.10', title: 'Warehousing', main: false },
      { scheme: 'nace-2.1', code: '49.41', title: 'Freight by road', main: true },
    ],
    [],
    null,
  ];
  expect(termsOf(codes, column('companies', 'industry'))).toEqual(['Freight by road']);
  expect(termsOf(['Lakovna', ' ', null, 'Lakovna'], column('companies', 'name'))).toEqual(['Lakovna']);
});
