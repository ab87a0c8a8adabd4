import { describe, expect, test } from '@jest/globals';
import { namesOfCountries, OTHER_REGION_CODES, plainCountry, plainRegion } from './place-names.ts';

describe('names of countries', () => {
  const names = namesOfCountries([
    { code: 'CZ', name: 'Czechia', local: 'Česko' },
    { code: 'DE', name: 'Germany', local: 'Deutschland' },
    { code: 'GB', name: 'United Kingdom', local: 'United Kingdom' },
    { code: 'CH', name: 'Switzerland', local: 'Schweiz | Suisse | Svizzera' },
  ]);

  test.each([
    ['Czechia', 'CZ'],
    ['Česká republika', 'CZ'],
    ['Tschechien', 'CZ'],
    ['Republika Czeska', 'CZ'],
    ['Německo', 'DE'],
    ['Allemagne', 'DE'],
    ['The United Kingdom', 'GB'],
    ['U.K.', 'GB'],
    ['England', 'GB'],
    ['Svizzera', 'CH'],
    ['Svájc', 'CH'],
  ])('“%s” is %s', (text, code) => {
    expect(names.get(plainCountry(text))).toBe(code);
  });

  test('a country that the table does not have has no short form either', () => {
    expect(names.get('usa')).toBeUndefined();
    expect(names.get(plainCountry('Holland'))).toBeUndefined();
  });
});

describe('names of regions', () => {
  test.each([
    ['Jihomoravský kraj', 'jihomoravsky'],
    ['Province of Antwerp', 'antwerp'],
    ['woj. śląskie', 'slaskie'],
    ['Greater London', 'london'],
    ['  Baden-Württemberg ', 'baden wurttemberg'],
    // A region that is called nothing else keeps its name.
    ['Kraj', 'kraj'],
  ])('“%s” is compared as “%s”', (text, plain) => {
    expect(plainRegion(text)).toBe(plain);
  });

  test('letters in use for voivodeships stand for figures', () => {
    expect(OTHER_REGION_CODES['PL-MZ']).toBe('14');
    expect(Object.keys(OTHER_REGION_CODES)).toHaveLength(16);
  });
});
