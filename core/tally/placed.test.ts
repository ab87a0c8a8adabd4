import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { distanceKm } from '../geo/distance.ts';
import { pointGrid } from '../geo/grid.ts';
import { allBits, noBits, recordsOf, setBit } from './bits.ts';
import type { CategoryColumn, PlaceColumn } from './columns.ts';
import { countPlaces, countWithin, locatedOf, type Placed } from './placed.ts';
import { postingsOfOne } from './postings.ts';

interface Spot {
  country: string | null;
  point: [lat: number, lon: number] | null;
}
const COUNTRIES = ['AT', 'CZ', 'PL'];
const anySpot: fc.Arbitrary<Spot> = fc.record({
  country: fc.option(fc.constantFrom(...COUNTRIES)),
  point: fc.option(
    fc
      .tuple(fc.integer({ min: 470, max: 510 }), fc.integer({ min: 120, max: 180 }))
      .map(([lat, lon]): [number, number] => [lat / 10, lon / 10]),
    { freq: 4 },
  ),
});
/** Companies with their own place and those of their sites. */
const anyCompanies = fc.array(fc.tuple(anySpot, fc.array(anySpot, { maxLength: 3 })), {
  minLength: 1,
  maxLength: 25,
});

function category(values: readonly (string | null)[]): CategoryColumn {
  const numbers = Uint32Array.from(values, (value) => (value === null ? 0 : COUNTRIES.indexOf(value) + 1));
  return {
    kind: 'category',
    dictionary: COUNTRIES,
    values: numbers,
    postings: postingsOfOne(numbers, COUNTRIES.length + 1, (length) => new Uint32Array(length)),
  };
}
function placesOf(spots: readonly Spot[]): PlaceColumn {
  const country = category(spots.map((spot) => spot.country));
  const lat = Float64Array.from(spots, ({ point }) => point?.[0] ?? NaN);
  const lon = Float64Array.from(spots, ({ point }) => point?.[1] ?? NaN);
  const located = noBits(spots.length);
  spots.forEach(({ point }, r) => point && setBit(located, r));
  return {
    kind: 'place',
    country,
    region: country,
    town: country,
    postcode: country,
    lat,
    lon,
    located,
    grid: pointGrid(lat, lon, {
      uint32: (length) => new Uint32Array(length),
      float32: (length) => new Float32Array(length),
    }),
  };
}
function placed(companies: readonly (readonly [Spot, Spot[]])[]): Placed {
  const starts = new Uint32Array(companies.length + 1);
  companies.forEach(([, sites], r) => (starts[r + 1] = starts[r]! + sites.length));
  return {
    own: placesOf(companies.map(([own]) => own)),
    sites: {
      place: placesOf(companies.flatMap(([, sites]) => sites)),
      hanging: { starts, records: null, firsts: noBits(0) },
    },
  };
}

describe('companies by where any site of theirs is', () => {
  test('count once in each country, and are unknown only where no place of theirs is known', () => {
    fc.assert(
      fc.property(anyCompanies, (companies) => {
        const { counts, unknown } = countPlaces(placed(companies), 'country', allBits(companies.length));
        const all = companies.map(([own, sites]) => [own, ...sites].map(({ country }) => country));
        for (const country of COUNTRIES)
          expect(counts.get(country) ?? 0).toBe(all.filter((own) => own.includes(country)).length);
        expect(unknown).toBe(all.filter((own) => own.every((country) => country === null)).length);
      }),
    );
  });
  test('count once in a group of countries, however many of them they are in', () => {
    fc.assert(
      fc.property(anyCompanies, (companies) => {
        const groups = (country: string) => (country === 'PL' ? [] : ['south']);
        const { counts } = countPlaces(placed(companies), 'country', allBits(companies.length), groups);
        const south = companies.filter(([own, sites]) =>
          [own, ...sites].some(({ country }) => country === 'AT' || country === 'CZ'),
        );
        expect(counts.get('south') ?? 0).toBe(south.length);
      }),
    );
  });
  test('lie within a distance where their nearest site does', () => {
    const radii = [10, 50, 200];
    fc.assert(
      fc.property(anyCompanies, fc.boolean(), (companies, any) => {
        const where = placed(companies);
        const asked = any ? where : { ...where, sites: null };
        const { within, unknown } = countWithin(asked, allBits(companies.length), 49.2, 16.6, radii);
        const points = companies.map(([own, sites]) =>
          [own, ...(any ? sites : [])].flatMap(({ point }) => (point ? [point] : [])),
        );
        radii.forEach((km, n) => {
          const near = points.filter((own) =>
            own.some(([lat, lon]) => distanceKm(49.2, 16.6, lat, lon) <= km),
          );
          expect(within[n]).toBe(near.length);
        });
        expect(unknown).toBe(points.filter((own) => own.length === 0).length);
        expect(recordsOf(locatedOf(asked)).length).toBe(companies.length - unknown);
      }),
    );
  });
});
