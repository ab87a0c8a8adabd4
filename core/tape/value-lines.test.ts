import { expect, test } from '@jest/globals';
import { fieldOf } from '../fields/registry.ts';
import { linesOfValue } from './value-lines.ts';

const typed = (field: string, cell: Parameters<typeof linesOfValue>[1]) =>
  linesOfValue(fieldOf('companies', field)!, cell).map((line) => line.typed);

test('a value becomes the lines that people would type for it', () => {
  expect(
    typed('industry', [{ scheme: 'nace-2.1', code: '25.51', title: 'Coating of metals', main: true }]),
  ).toEqual(['nace 25.51 main only']);
  expect(
    typed('place', {
      town: 'Brno',
      region: 'South Moravia',
      country: 'CZ',
      countryName: 'Czechia',
      townKey: 'Brno, CZ-64',
      lat: 49,
      lon: 16,
    }),
  ).toEqual(['in "Brno, CZ-64"', 'near Brno 30 km', 'in CZ']);
  expect(typed('headcount', { basis: 'band', low: 10, high: 49, amount: null, year: 2025 })).toEqual([
    'headcount 10+',
    'headcount up to 49',
  ]);
  expect(
    typed('revenue', { basis: 'reported', low: 2e6, high: 2e6, amount: 2e6, year: 2025, currency: 'CZK' }),
  ).toEqual(['revenue 2000000+ czk', 'revenue up to 2000000 czk']);
  expect(typed('technology', ['Rutavel', 'Dip "zaal"'])).toEqual([
    'technology "Rutavel"',
    'technology "Dip zaal"',
  ]);
  expect(typed('checked', '2026-07-24')).toEqual(['checked since 2026-07-24', 'checked until 2026-07-24']);
  expect(typed('name', 'Kostrava')).toEqual([]);
  expect(typed('status', null)).toEqual([]);
});
