import { describe, expect, test } from '@jest/globals';
import { firmWith } from '../testing/any-firm.ts';
import { overBones } from './blocking.ts';
import { plainTown, readyFirm, streetParts, type Firm } from './firm.ts';
import { comparedNumber, domainLabel, fullPhone, registeredDomain } from './identifiers.ts';
import { sameRow } from './same-row.ts';

const notFree = () => false;
/** Words too short for bones have none. */
const bonesMeet = (a: string, b: string) => overBones(9, a) !== 0 && overBones(9, a) === overBones(9, b);

test.each([
  ['CZ 012 34 567', 'CZ', '01234567'],
  ['1234567', 'CZ', '01234567'],
  ['CZ01234567', null, '01234567'],
  ['FR12 345 678 901', 'FR', '345678901'],
  ['CHE-123.456.789 MWST', 'CH', '123456789'],
  ['NO 987 654 321 MVA', 'NO', '987654321'],
  ['SE556677889901', 'SE', '5566778899'],
  ['BE 0123.456.789', 'BE', '0123456789'],
  ['HRB 12345', 'DE', 'HRB12345'],
  ['12', 'DE', null],
  [null, 'DE', null],
])('number %s of %s is compared as %s', (number, country, plain) => {
  expect(comparedNumber(number, country)).toBe(plain);
});

test('domains are those that somebody registered, and none where anybody has mail', () => {
  const free = (domain: string) => domain === 'freemail.example';
  expect(registeredDomain('https://www.shop.foo.example/x?y=1', free)).toBe('foo.example');
  expect(registeredDomain('sales@FOO.co.uk', free)).toBe('foo.co.uk');
  expect(registeredDomain('someone@freemail.example', free)).toBeNull();
  expect(registeredDomain('not an address', free)).toBeNull();
  expect(domainLabel('foo.co.uk')).toBe('foo');
});

test.each([
  ['+420 000 041 228', null, '+420000041228'],
  ['+44 (0) 1632 960 123', null, '+441632960123'],
  ['01632 960123', 'GB', '+441632960123'],
  ['0049 30 23125 123', 'DE', '+493023125123'],
  ['23125 123', null, '23125123'],
  ['n/a', 'DE', null],
  [null, 'DE', null],
])('phone %s of %s in full is %s', (text, country, full) => {
  expect(fullPhone(text, country)).toBe(full);
});

test('streets and towns are compared by what is theirs alone', () => {
  expect(streetParts('Lipová 18/3')).toEqual({ name: 'lipova', house: '18' });
  expect(streetParts('18 Lipova ul.')).toEqual({ name: 'lipova', house: '18' });
  expect(streetParts('Industriestraße 7')).toEqual(streetParts('Industriestr. 7'));
  expect(streetParts('Hafen Str. 7')).toEqual({ name: 'hafen', house: '7' });
  expect(['Praha 4', 'Brno (město)', 'Wien'].map(plainTown)).toEqual(['praha', 'brno', 'wien']);
});

describe('rows of one file are the same', () => {
  const key = (more: Partial<Firm>) => sameRow(firmWith(more), readyFirm(firmWith(more), notFree));
  test('by number, whatever else they say', () => {
    expect(key({ registration: '25 000 118', name: 'A' })).toBe(
      key({ registration: 'CZ25000118', name: 'B' }),
    );
  });
  test('by all that they say, and not by a name alone in another town', () => {
    expect(key({ name: 'Ash Ltd', town: 'Brno' })).toBe(key({ name: 'ASH', town: 'Brno 2' }));
    expect(key({ name: 'Ash Ltd', town: 'Brno' })).not.toBe(key({ name: 'Ash Ltd', town: 'Zlín' }));
    expect(key({ web: 'www.ash.example' })).toBe(key({ web: 'https://ash.example/x' }));
  });
  test('and a row that says nothing stands for itself', () => expect(key({ town: 'Brno' })).toBeNull());
});

test('words of other vowels and doubled letters have the same bones', () => {
  expect(bonesMeet('zarmysko', 'zermissko')).toBe(true);
  expect(bonesMeet('kovar', 'cower')).toBe(true);
  expect(bonesMeet('zarmysko', 'tenford')).toBe(false);
  expect(bonesMeet('aia', 'aia')).toBe(false);
});
