import { expect, test } from '@jest/globals';
import { ADDRESS_LINES } from './postal-parts.ts';
import { isPostal, postalLines, type PostalAddress } from './postal.ts';

const address = (parts: Partial<PostalAddress>): PostalAddress => ({
  person: null,
  organisation: 'Lakovna Novak',
  street: 'Dlouha 12',
  postcode: '602 00',
  town: 'Brno',
  country: 'CZ',
  countryName: 'Czechia',
  ...parts,
});

test('the postcode stands where the country has it, and the country last in capitals', () => {
  expect(postalLines(address({ person: 'Jana Mala' }))).toEqual([
    'Lakovna Novak',
    'Jana Mala',
    'Dlouha 12',
    '602 00 Brno',
    'CZECHIA',
  ]);
  expect(
    postalLines(
      address({
        street: '12 Long Lane',
        postcode: 'LS1 1AA',
        town: 'Leeds',
        country: 'GB',
        countryName: 'United Kingdom',
      }),
    ),
  ).toEqual(['Lakovna Novak', '12 Long Lane', 'Leeds', 'LS1 1AA', 'UNITED KINGDOM']);
  expect(
    postalLines(
      address({
        street: '12 Main Street',
        postcode: '80202',
        town: 'Denver',
        country: 'US',
        countryName: 'United States',
      }),
    ).at(-2),
  ).toMatch(/Denver.*80202/);
});

test('within the country of the sender the country is left out, and what is unknown leaves no gap', () => {
  expect(postalLines(address({}), 'CZ')).toEqual(['Lakovna Novak', 'Dlouha 12', '602 00 Brno']);
  expect(postalLines(address({ street: null }), 'CZ')).toEqual(['Lakovna Novak', '602 00 Brno']);
  expect(postalLines(address({ country: null, countryName: null }))[0]).toBe('Lakovna Novak');
  expect(postalLines(address({})).length).toBeLessThanOrEqual(ADDRESS_LINES);
});

test('a letter needs a town, and a street or a postcode', () => {
  expect(isPostal(address({}))).toBe(true);
  expect(isPostal(address({ street: null }))).toBe(true);
  expect(isPostal(address({ street: null, postcode: null }))).toBe(false);
  expect(isPostal(address({ town: null }))).toBe(false);
});
