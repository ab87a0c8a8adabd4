import type { ValueCount } from '../../../contract/responses.ts';
import { distanceKm, KM_A_MILE } from '../../../core/geo/distance.ts';
import { metroKm, metroTowns } from '../../../core/geo/metro.ts';
import { plainPostcode } from '../../../core/geo/postcodes.ts';
import { countBits, countBoth, type Bits } from '../../../core/tally/bits.ts';
import { countPlaces, countWithin, locatedOf, type Placed } from '../../../core/tally/placed.ts';
import type { Lookup } from '../../../core/tape/lookup.ts';
import { fold } from '../../../core/text/fold.ts';
import type { CountsRequest } from './counts-request.ts';

const MOST_TOWNS = 200;
const RADII = [5, 10, 20, 30, 40, 60, 80, 100, 150, 200, 300];

/** Countries, regions or towns with the records of a context; or, around a point, how many several distances would hold. */
export function placeCounts(lookup: Lookup, placed: Placed, request: CountsRequest, context: Bits) {
  if (request.near) {
    const { lat, lon, unit } = request.near;
    const km = RADII.map((radius) => (unit === 'miles' ? radius * KM_A_MILE : radius));
    const { within, unknown } = countWithin(placed, context, lat, lon, km);
    return { radii: RADII.map((radius, i) => ({ radius, count: within[i]! })), unknown };
  }
  switch (request.level) {
    case 'metro':
      return metroCounts(lookup, placed, request, context);
    case 'postcodes':
      return postcodeCounts(placed, request, context);
    case 'neighbours':
      return neighbourCounts(lookup, placed, request, context);
    case 'towns':
      return townCounts(placed, request, context);
    default:
      return countryCounts(lookup, placed, context);
  }
}

function townCounts(placed: Placed, { search, within }: CountsRequest, context: Bits) {
  const found = countPlaces(placed, 'town', context);
  const text = fold(search ?? '');
  const values = [...found.counts]
    .filter(
      ([key, count]) => count > 0 && (!within || key.endsWith(`, ${within}`)) && fold(key).startsWith(text),
    )
    .sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))
    .slice(0, MOST_TOWNS)
    .map(([key, count]): ValueCount => ({
      key,
      label: key.slice(0, key.lastIndexOf(', ')),
      count,
      group: key.slice(key.lastIndexOf(', ') + 2),
    }));
  return { values, unknown: found.unknown };
}

/** Before the key of a group of countries, which may have the letters of a country. */
const GROUP = 'group ';

function countryCounts(lookup: Lookup, placed: Placed, context: Bits) {
  const { places, countryGroups } = lookup;
  const groupsOf = new Map<string, string[]>();
  for (const { key, countries } of countryGroups.values())
    for (const country of countries) groupsOf.set(country, [...(groupsOf.get(country) ?? []), GROUP + key]);
  const countries = countPlaces(placed, 'country', context, (code) => [code, ...(groupsOf.get(code) ?? [])]);
  const regions = countPlaces(placed, 'region', context);
  return {
    groups: [...countryGroups.values()].map((group) => ({
      ...group,
      count: countries.counts.get(GROUP + group.key) ?? 0,
    })),
    countries: [...countries.counts]
      .filter(([key]) => !key.startsWith(GROUP))
      .map(([key, count]): ValueCount => ({ key, label: places.country(key)?.name ?? key, count }))
      .sort(byCount),
    regions: [...regions.counts]
      .map(([key, count]): ValueCount => ({
        key,
        label: places.region(key)?.english ?? key,
        count,
        group: places.region(key)?.country ?? key.slice(0, 2),
      }))
      .sort(byCount),
    unknown: countries.unknown,
  };
}

const MOST_METROS = 60;

/** Metropolitan areas of the name, or those of the largest towns where none is searched; those with most records first. */
function metroCounts(lookup: Lookup, placed: Placed, request: CountsRequest, context: Bits) {
  const text = fold(request.search ?? '');
  const towns = metroTowns(lookup.places).filter(
    (town) =>
      (!request.within || town.country === request.within) &&
      (text === '' || fold(town.name).startsWith(text)),
  );
  const values = towns.slice(0, MOST_METROS).map((town): ValueCount & { km: number } => {
    const km = metroKm(town.population);
    const { within } = countWithin(placed, context, town.lat, town.lon, [km]);
    return { key: town.key, label: town.name, count: within[0]!, group: town.region || town.country, km };
  });
  return {
    values: values.sort(byCount),
    unknown: countBits(context) - countBoth(context, locatedOf(placed)),
  };
}

const NEIGHBOUR_KM = 30;
const MOST_NEIGHBOURS = 12;

/** The towns around one, nearest first, that have records. */
function neighbourCounts(lookup: Lookup, placed: Placed, { within }: CountsRequest, context: Bits) {
  const centre = lookup.places.town(within ?? '');
  if (!centre) return { values: [], unknown: 0 };
  const { counts, unknown } = countPlaces(placed, 'town', context);
  const values = lookup.places.towns
    .map((town) => ({ town, km: distanceKm(centre.lat, centre.lon, town.lat, town.lon) }))
    .filter(
      ({ town, km }) => km <= NEIGHBOUR_KM && town.key !== centre.key && (counts.get(town.key) ?? 0) > 0,
    )
    .sort((a, b) => a.km - b.km)
    .slice(0, MOST_NEIGHBOURS)
    .map(({ town, km }): ValueCount & { km: number } => ({
      key: town.key,
      label: town.name,
      count: counts.get(town.key)!,
      group: town.region || town.country,
      km: Math.round(km),
    }));
  return { values, unknown };
}

const MOST_POSTCODES = 200;

/** Postcodes of a country by their first two characters; where some are typed, those that begin so. */
function postcodeCounts(placed: Placed, { within, search }: CountsRequest, context: Bits) {
  const begin = plainPostcode(search ?? '');
  const found = countPlaces(placed, 'postcode', context, (key) => {
    const space = key.indexOf(' ');
    const plain = key.slice(space + 1);
    if ((within && key.slice(0, space) !== within) || !plain.startsWith(begin)) return [];
    return [begin === '' ? `${plain.slice(0, 2)}*` : plain];
  });
  const values = [...found.counts]
    .filter(([, count]) => count > 0)
    .map(([label, count]): ValueCount => ({ key: within ? `${within} ${label}` : label, label, count }))
    .sort((a, b) => (a.label < b.label ? -1 : 1))
    .slice(0, MOST_POSTCODES);
  return { values, unknown: found.unknown };
}

function byCount(a: ValueCount, b: ValueCount): number {
  return b.count - a.count || (a.label < b.label ? -1 : 1);
}
