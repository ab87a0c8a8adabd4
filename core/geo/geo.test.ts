import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { isInArea, sidesOf } from './area.ts';
import { distanceKm, EARTH_KM, latitudeReach } from './distance.ts';
import { Gazetteer } from './gazetteer.ts';
import { matchesPostcode, parsePostcode, plainPostcode } from './postcodes.ts';

const gazetteer = new Gazetteer({
  countries: [
    'iso2\t…',
    'CZ\tCZE\t203\tCzechia\tČesko\tCZK\tEurope\tEastern\t+420',
    'CH\tCHE\t756\tSwitzerland\tSchweiz | Suisse\tCHF\tEurope\tWestern\t+41',
  ].join('\n'),
  regions: ['key\t…', 'CZ-64\tCZ\tJihomoravský kraj\tSouth Moravia', 'CH-BE\tCH\tBern\t'].join('\n'),
  towns: [
    'id\t…',
    '1\tBrno\tBrno\t\tBrünn|Berno\tCZ\tCZ-64\t49.195\t16.608\t380000',
    '2\tBrno\tBrno\t\t\tCZ\tCZ-64\t49.9\t16.9\t900',
    '3\tBrnířov\tBrnirov\t\t\tCZ\tCZ-64\t49.4\t13\t500',
    '4\tBern\tBern\tBerne\t\tCH\tCH-BE\t46.948\t7.447\t130000',
  ].join('\n'),
});

describe('a gazetteer', () => {
  test('finds countries by code and by name in their own languages', () => {
    for (const text of ['ch', 'CH', 'switzerland', 'Suisse', ' schweiz '])
      expect(gazetteer.countryNamed(text)?.code).toBe('CH');
    expect(gazetteer.countryNamed('Nowhere')).toBeUndefined();
    expect(gazetteer.country('CZ')).toMatchObject({ name: 'Czechia', currency: 'CZK', dialling: '+420' });
  });
  test('finds regions by key and by either name, within a country if one is given', () => {
    for (const text of ['CZ-64', 'jihomoravsky kraj', 'South Moravia'])
      expect(gazetteer.regionNamed(text)?.key).toBe('CZ-64');
    expect(gazetteer.regionNamed('Bern')).toMatchObject({ key: 'CH-BE', english: 'Bern' });
    expect(gazetteer.regionNamed('Bern', 'CZ')).toBeUndefined();
    expect(gazetteer.regionNamed('CZ-64', 'CH')).toBeUndefined();
  });
  test('takes the largest of towns that share a name, by every spelling', () => {
    for (const text of ['Brno', 'brno', 'Brünn', 'BERNO'])
      expect(gazetteer.townNamed(text)?.population).toBe(380_000);
    expect(gazetteer.town('Brno, CZ-64')?.population).toBe(380_000);
    expect(gazetteer.townNamed('Berne')?.name).toBe('Bern');
    expect(gazetteer.townNamed('Brno', { country: 'CH' })).toBeUndefined();
    expect(gazetteer.townNamed('Bern', { region: 'CH-BE' })?.country).toBe('CH');
  });
  test('finds towns by their beginning, each once, the largest first', () => {
    expect(gazetteer.townsBeginning('br', 10).map((town) => town.population)).toEqual([380_000, 900, 500]);
    expect(gazetteer.townsBeginning('ber', 10).map((town) => town.name)).toEqual(['Brno', 'Bern']);
    expect(gazetteer.townsBeginning('', 10)).toEqual([]);
    expect(gazetteer.townsBeginning('br', 1)).toHaveLength(1);
  });
});

describe('great-circle distance', () => {
  const latitude = fc.double({ min: -89, max: 89, noNaN: true });
  const longitude = fc.double({ min: -180, max: 180, noNaN: true });
  test('of known pairs', () => {
    // A degree of the equator, and Brno to Wien.
    expect(distanceKm(0, 0, 0, 1)).toBeCloseTo((EARTH_KM * Math.PI) / 180, 6);
    expect(distanceKm(49.195, 16.608, 48.208, 16.372)).toBeCloseTo(111.1, 0);
    expect(distanceKm(10, 20, -10, -160)).toBeCloseTo(EARTH_KM * Math.PI, 3);
  });
  test('is the same both ways, and zero only at home', () => {
    fc.assert(
      fc.property(latitude, longitude, latitude, longitude, (a, b, c, d) => {
        expect(distanceKm(a, b, c, d)).toBeCloseTo(distanceKm(c, d, a, b), 6);
        expect(distanceKm(a, b, a, b)).toBe(0);
        expect(distanceKm(a, b, c, d)).toBeLessThanOrEqual(EARTH_KM * Math.PI + 1e-6);
      }),
    );
  });
  test('never reaches beyond the band of latitude that is searched', () => {
    fc.assert(
      fc.property(latitude, longitude, latitude, longitude, (a, b, c, d) => {
        expect(Math.abs(a - c)).toBeLessThanOrEqual(latitudeReach(distanceKm(a, b, c, d)));
      }),
    );
  });
});

describe('postcodes', () => {
  test.each([
    ['602 00', { country: null, kind: 'one', from: '60200', to: '' }],
    ['CZ 602 00', { country: 'CZ', kind: 'one', from: '60200', to: '' }],
    ['PL 00-9*', { country: 'PL', kind: 'prefix', from: '009', to: '' }],
    ['SW1A 1AA', { country: null, kind: 'one', from: 'SW1A1AA', to: '' }],
    ['CZ 60000..619 99', { country: 'CZ', kind: 'range', from: '60000', to: '61999' }],
  ])('%s is read', (text, pattern) => {
    expect(parsePostcode(text)).toEqual(pattern);
  });
  test.each(['', 'CZ', '61999..60000', '600..61999', '60?'])('“%s” is none', (text) => {
    expect(parsePostcode(text)).toBeNull();
  });
  test('match whatever spaces and hyphens they are written with', () => {
    expect(matchesPostcode(plainPostcode('603 00'), parsePostcode('60000..61999')!)).toBe(true);
    expect(matchesPostcode(plainPostcode('6030'), parsePostcode('60000..61999')!)).toBe(false);
    expect(matchesPostcode(plainPostcode('00-950'), parsePostcode('009*')!)).toBe(true);
  });
});

describe('a drawn area', () => {
  const triangle = sidesOf([
    [48, 16],
    [50, 16],
    [49, 18],
  ]);
  test('holds what lies between its sides', () => {
    expect(isInArea(49, 16.5, triangle)).toBe(true);
    expect(isInArea(49, 17.99, triangle)).toBe(true);
    expect(isInArea(49, 18.01, triangle)).toBe(false);
    expect(isInArea(48.1, 17.5, triangle)).toBe(false);
  });
  test('is the same whichever corner it begins with', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(fc.double({ min: 40, max: 50, noNaN: true }), fc.double({ min: 0, max: 20, noNaN: true })),
          { minLength: 3, maxLength: 9 },
        ),
        fc.double({ min: 39, max: 51, noNaN: true }),
        fc.double({ min: -1, max: 21, noNaN: true }),
        fc.nat(8),
        (points, lat, lon, shift) => {
          const turned = [...points.slice(shift % points.length), ...points.slice(0, shift % points.length)];
          expect(isInArea(lat, lon, sidesOf(turned))).toBe(isInArea(lat, lon, sidesOf(points)));
        },
      ),
    );
  });
});
