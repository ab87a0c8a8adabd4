import { describe, expect, test } from '@jest/globals';
import { Gazetteer } from '../geo/gazetteer.ts';
import { CellError } from './cell.ts';
import { countryOfTown, placeOf, readCountry, readDegrees } from './place.ts';

const places = new Gazetteer({
  countries: [
    'h',
    'CZ\tCZE\t203\tCzechia\tČesko\tCZK\t\t\t+420',
    'US\tUSA\t840\tUnited States\tUnited States of America\tUSD\t\t\t+1',
    'NL\tNLD\t528\tNetherlands\tNederland\tEUR\t\t\t+31',
    'BE\tBEL\t056\tBelgium\tBelgique | België\tEUR\t\t\t+32',
    'GB\tGBR\t826\tUnited Kingdom\t\tGBP\t\t\t+44',
    'PL\tPOL\t616\tPoland\tPolska\tPLN\t\t\t+48',
  ].join('\n'),
  regions: [
    'h',
    'CZ-64\tCZ\tJihomoravský kraj\tSouth Moravia',
    'US-OR\tUS\tOregon\t',
    'US-ME\tUS\tMaine\t',
    'NL-LI\tNL\tLimburg\t',
    'BE-VLI\tBE\tLimburg\t',
    'PL-02\tPL\tDolnośląskie\tLower Silesia',
  ].join('\n'),
  towns: [
    'h',
    '1\tBrno\tBrno\t\tBrünn\tCZ\tCZ-64\t49.195\t16.608\t380000',
    '2\tBrno\tBrno\t\t\tCZ\tCZ-64\t49.9\t16.9\t900',
    '3\tPortland\tPortland\t\t\tUS\tUS-OR\t45.5\t-122.7\t650000',
    '4\tPortland\tPortland\t\t\tUS\tUS-ME\t43.7\t-70.3\t67000',
    '6\tAshby\tAshby\t\t\tUS\tUS-ME\t43.9\t-70.1\t300',
    '7\tAshby\tAshby\t\tOld Ashby\tUS\tUS-OR\t44.9\t-121.1\t250',
    '5\tWrocław\tWroclaw\t\tBreslau\tPL\tPL-02\t51.1\t17\t640000',
  ].join('\n'),
  postcodes: ['h', 'US\t\t\t\t\t\tUS-ME:039-049;US-OR:97', 'CZ\t\t\t\t\t\tCZ-64:60-66,69'].join('\n'),
});
const at = (region: string | null, town: string | null, country: string | null) => {
  const { doubt, lat, ...found } = placeOf(region, town, country, places);
  return [found.country, found.region, found.town, lat === null ? null : Math.round(lat), doubt?.of ?? null];
};

describe('countries', () => {
  test.each([
    ['CZ', 'Česká republika'],
    ['CZ', 'czech rep.'],
    ['CZ', 'Tschechien'],
    ['CZ', 'CZE'],
    ['US', 'U.S.A.'],
    ['US', 'Vereinigte Staaten'],
    ['GB', 'England'],
    ['GB', 'uk'],
    ['NL', 'The Netherlands'],
    ['NL', 'Holandsko'],
    ['BE', 'Belgien'],
  ])('%s is “%s”', (code, text) => {
    expect(readCountry(text, places)).toBe(code);
  });
  test('that there are not, or not here, are not understood', () => {
    for (const text of ['Atlantis', 'Germany', 'XX', 'the'])
      expect(() => readCountry(text, places)).toThrow(CellError);
  });
});

describe('a place', () => {
  test('has the region and the coordinates of its town', () => {
    expect(at(null, 'Brünn', 'CZ')).toEqual(['CZ', 'CZ-64', 'Brno', 49, null]);
    expect(at(null, 'Brno 12', 'CZ')).toEqual(['CZ', 'CZ-64', 'Brno', 49, null]);
    expect(at(null, '60200 Brno', 'CZ')).toEqual(['CZ', 'CZ-64', 'Brno', 49, null]);
    expect(at(null, 'Brno (centre)', 'CZ')).toEqual(['CZ', 'CZ-64', 'Brno', 49, null]);
  });
  test('of a name that several have is where its region says, else nobody knows', () => {
    expect(at('OR', 'Portland', 'US')).toEqual(['US', 'US-OR', 'Portland', 46, null]);
    expect(at('Maine', 'Portland', 'US')).toEqual(['US', 'US-ME', 'Portland', 44, null]);
    expect(at(null, 'Portland', 'US')).toEqual(['US', null, 'Portland', null, 'town']);
    expect(placeOf(null, 'Portland', 'US', places).doubt!.rule).toMatch(/one of the 2 towns/);
  });
  test('lies in the country of its region, where only one has such', () => {
    expect(at('South Moravia', 'Brno', null)).toEqual(['CZ', 'CZ-64', 'Brno', 49, null]);
    expect(at('Limburg', 'Anywhere', null)).toEqual([null, null, 'Anywhere', null, 'region']);
    expect(at('Limburg', 'Anywhere', 'BE')).toEqual(['BE', 'BE-VLI', 'Anywhere', null, null]);
  });
  test('has regions with or without the word for one, and by their codes', () => {
    for (const region of [
      'Jihomoravský',
      'jihomoravsky kraj',
      'CZ-64',
      'South Moravia',
      'South Moravia Region',
    ])
      expect([region, at(region, null, 'CZ')[1]]).toEqual([region, 'CZ-64']);
    for (const region of ['woj. dolnośląskie', 'DS', 'Lower Silesia'])
      expect([region, at(region, null, 'PL')[1]]).toEqual([region, 'PL-02']);
  });
  test('keeps what no table has, and says which region it does not know', () => {
    expect(at(null, 'Zapomenutá Lhota', 'CZ')).toEqual(['CZ', null, 'Zapomenutá Lhota', null, null]);
    expect(at('Atlantic', 'Brno', 'CZ')).toEqual(['CZ', 'CZ-64', 'Brno', 49, 'region']);
    expect(at('Atlantic', null, 'CZ')).toEqual(['CZ', null, null, null, 'region']);
    expect(placeOf('Atlantic', null, 'CZ', places).doubt!.rule).toBe(
      'a region of Czechia, by its name or its code',
    );
    expect(at(null, null, null)).toEqual([null, null, null, null, null]);
  });
  test('of a town alone is in the country of the one that is meant', () => {
    expect(
      ['Brno', 'Breslau', 'Portland', 'Nowhere', null].map((town) => countryOfTown(town, places)),
    ).toEqual([...['CZ', 'PL', null, null, null]]);
  });
});

test('degrees have whichever decimal mark they are written with', () => {
  expect(['49.195', '49,195', '-122.7', '16 °'].map((text) => readDegrees(text, 180))).toEqual([
    ...[49.195, 49.195, -122.7, 16],
  ]);
  expect(
    ['N 49', '52.37N', '0°7\'39"W', '49° 11′ 42,6″ N', '16,5 E'].map((text) => readDegrees(text, 180)),
  ).toEqual([49, 52.37, -0.1275, 49.1951666, 16.5].map((degrees) => expect.closeTo(degrees, 5)));
  for (const text of ['181', '49.195.1', '49 Q', '190 W', "5'"])
    expect(() => readDegrees(text, 180)).toThrow(CellError);
});

describe('towns of one name by their postcode', () => {
  const byPostcode = (town: string, postcode: string | null, region: string | null = null) => {
    const found = placeOf(region, town, 'US', places, postcode);
    return [found.town, found.region, found.lat, found.doubt?.of ?? null];
  };

  test.each([
    ['Ashby', '04101', null, ['Ashby', 'US-ME', 43.9, null]],
    ['Ashby', '97 201', null, ['Ashby', 'US-OR', 44.9, null]],
    ['Ashby', null, null, ['Ashby', null, null, 'town']],
    ['Ashby', '10001', null, ['Ashby', null, null, 'town']],
    ['Ashby', 'none', null, ['Ashby', null, null, 'town']],
    ['97201 Ashby', null, null, ['97201 Ashby', 'US-OR', 44.9, null]],
    // What is said of the region weighs more than how the postcode begins.
    ['Ashby', '97201', 'Maine', ['Ashby', 'US-ME', 43.9, null]],
    ['Portland', '04101', null, ['Portland', 'US-ME', 43.7, null]],
  ])('%s, %s, region %s', (town, postcode, region, expected) => {
    expect(byPostcode(town, postcode, region)).toEqual(expected);
  });

  test('the longest beginning that is known counts, and a whole postcode is longer than it', () => {
    expect(places.regionOfPostcode('US', '039')).toBeNull();
    expect(places.regionOfPostcode('US', '0395')).toBe('US-ME');
    expect(places.regionOfPostcode('US', '971')).toBe('US-OR');
    expect(places.regionOfPostcode('CZ', '602 00')).toBe('CZ-64');
    expect(places.regionOfPostcode('CZ', '672 00')).toBeNull();
    expect(places.regionOfPostcode('FR', '75001')).toBeNull();
  });
});

test('countries by the sign of their vehicles, and towns with what stands around their names', () => {
  expect([readCountry('B', places), readCountry('NL', places)]).toEqual(['BE', 'NL']);
  expect(() => readCountry('X', places)).toThrow(CellError);
  for (const town of ['Brno 4', '602 00 Brno', 'CZ-60200 Brno', 'BRNO CEDEX 2', 'Brno 3EME', 'Brno C'])
    expect(at(null, town, 'CZ').slice(0, 3)).toEqual(['CZ', 'CZ-64', 'Brno']);
});
