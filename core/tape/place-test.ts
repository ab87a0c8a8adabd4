import { isCountryCode } from '../geo/country-groups.ts';
import { parsePostcode } from '../geo/postcodes.ts';
import type { Lookup } from './lookup.ts';
import type { AreaTest, NearTest, PlaceTest } from './nodes.ts';
import { Problem } from './problem.ts';
import { listAt, objectAt, onlyKeys, textAt, texts, wrong } from './shapes.ts';

/** Checks the test of a line on a place. @throws Problem */
export function checkPlace(raw: Record<string, unknown>, at: string, lookup: Lookup): PlaceTest {
  onlyKeys(raw, at, ['countries', 'regions', 'towns', 'metro', 'postcodes', 'near', 'within', 'site']);
  const { places, countryGroups } = lookup;
  if (raw.site !== undefined && raw.site !== 'head' && raw.site !== 'any')
    throw wrong(`${at}.site`, raw.site, '"head" or "any"');
  const test: PlaceTest = {
    ...optional('countries', raw, at, (code, where) => {
      if (!(isCountryCode(code) ? places.country(code) : countryGroups.get(code)))
        throw new Problem('unknown-country', `There is no country or group of countries "${code}".`, {
          field: where,
          value: code,
          rule: 'ISO code of two letters, or the key of a group of countries',
        });
    }),
    ...optional('regions', raw, at, (key, where) => {
      if (!places.region(key))
        throw new Problem('unknown-region', `There is no region "${key}".`, {
          field: where,
          value: key,
          rule: 'a region key such as CZ-64',
        });
    }),
    ...optional('towns', raw, at, (town, where) => {
      if (!/^.+, [A-Z]{2}(-[\w-]+)?$/.test(town))
        throw wrong(where, town, 'name, comma, region key or country code, as in "Brno, CZ-64"');
    }),
    ...optional('metro', raw, at, (key, where) => {
      if (!places.town(key))
        throw new Problem('unknown-town', `There is no town "${key}".`, {
          field: where,
          value: key,
          rule: 'a known town with its region key, as in "Brno, CZ-64"',
        });
    }),
    ...optional('postcodes', raw, at, (postcode, where) => {
      if (!parsePostcode(postcode))
        throw wrong(
          where,
          postcode,
          'a postcode, a prefix such as "CZ 602*" or a range such as "60000..61999"',
        );
    }),
    ...(raw.near === undefined ? {} : { near: near(objectAt(raw.near, `${at}.near`), `${at}.near`) }),
    ...(raw.within === undefined
      ? {}
      : { within: area(objectAt(raw.within, `${at}.within`), `${at}.within`) }),
    ...(raw.site === undefined ? {} : { site: raw.site }),
  };
  if (Object.keys(test).every((key) => key === 'site'))
    throw wrong(at, raw, 'at least one of countries, regions, towns, metro, postcodes, near, within');
  return test;
}

const MOST_CORNERS = 500;

function area(raw: Record<string, unknown>, at: string): AreaTest {
  onlyKeys(raw, at, ['points', 'label']);
  const points = listAt(raw.points, `${at}.points`, MOST_CORNERS).map((corner, i) => {
    const [lat, lon] = Array.isArray(corner) && corner.length === 2 ? (corner as unknown[]) : [];
    if (typeof lat !== 'number' || typeof lon !== 'number' || !(Math.abs(lat) <= 90 && Math.abs(lon) <= 180))
      throw wrong(`${at}.points[${i}]`, corner, 'latitude and longitude in degrees, as in [49.2, 16.6]');
    return [lat, lon] as const;
  });
  if (points.length < 3) throw wrong(`${at}.points`, raw.points, 'at least three corners');
  return { points, ...(raw.label === undefined ? {} : { label: textAt(raw.label, `${at}.label`, 120) }) };
}

function near(raw: Record<string, unknown>, at: string): NearTest {
  onlyKeys(raw, at, ['lat', 'lon', 'km', 'miles', 'label']);
  const between = (key: string, from: number, to: number) => {
    const value = raw[key];
    if (typeof value !== 'number' || !(value >= from && value <= to))
      throw wrong(`${at}.${key}`, value, `a number from ${from} to ${to}`);
    return value;
  };
  if ((raw.km === undefined) === (raw.miles === undefined))
    throw wrong(at, raw, 'exactly one of km and miles');
  return {
    lat: between('lat', -90, 90),
    lon: between('lon', -180, 180),
    ...(raw.km === undefined ? { miles: between('miles', 0, 12_500) } : { km: between('km', 0, 20_020) }),
    ...(raw.label === undefined ? {} : { label: textAt(raw.label, `${at}.label`, 120) }),
  };
}

function optional<K extends string>(
  key: K,
  raw: Record<string, unknown>,
  at: string,
  known: (value: string, where: string) => unknown,
) {
  return raw[key] === undefined
    ? {}
    : ({ [key]: texts(raw[key], `${at}.${key}`, known) } as Record<K, string[]>);
}
