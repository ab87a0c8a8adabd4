import type { ValueCount } from '../../contract/responses.ts';
import { distanceKm } from '../../core/geo/distance.ts';
import { metroKm, metroTowns } from '../../core/geo/metro.ts';
import { plainPostcode } from '../../core/geo/postcodes.ts';
import { countBits, countBoth, type Bits } from '../../core/tally/bits.ts';
import type { PlaceColumn } from '../../core/tally/columns.ts';
import { countCategory, countNear } from '../../core/tally/counts.ts';
import type { Lookup } from '../../core/tape/lookup.ts';
import { fold } from '../../core/text/fold.ts';
import type { CountsRequest } from './counts-request.ts';

const MOST_TOWNS = 200;
const RADII = [5, 10, 20, 30, 40, 60, 80, 100, 150, 200, 300];

/** Countries, regions or towns with the companies of a context; or, around a point, how many several distances would hold. */
export function placeCounts(lookup: Lookup, column: PlaceColumn, request: CountsRequest, context: Bits) {
  const { places } = lookup;
  if (request.near) {
    const { within, unknown } = countNear(column, context, request.near.lat, request.near.lon, RADII);
    return { radii: RADII.map((km, i) => ({ km, count: within[i]! })), unknown };
  }
  if (request.level === 'metro') return metroCounts(lookup, column, request, context);
  if (request.level === 'postcodes') return postcodeCounts(column, request, context);
  if (request.level === 'neighbours') return neighbourCounts(lookup, column, request, context);
  if (request.level === 'towns') {
    const found = countCategory(column.town, context);
    const text = fold(request.search ?? '');
    const values = [...found.counts]
      .filter(
        ([key, count]) =>
          count > 0 && (!request.within || key.endsWith(`, ${request.within}`)) && fold(key).startsWith(text),
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
  const countries = countCategory(column.country, context);
  const regions = countCategory(column.region, context);
  return {
    groups: [...lookup.countryGroups.values()].map((group) => ({
      ...group,
      count: group.countries.reduce((sum, code) => sum + (countries.counts.get(code) ?? 0), 0),
    })),
    countries: [...countries.counts]
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

/** Metropolitan areas of the name, the largest towns first where none is searched. */
function metroCounts(lookup: Lookup, column: PlaceColumn, request: CountsRequest, context: Bits) {
  const text = fold(request.search ?? '');
  const towns = metroTowns(lookup.places).filter(
    (town) =>
      (!request.within || town.country === request.within) &&
      (text === '' || fold(town.name).startsWith(text)),
  );
  const values = towns.slice(0, MOST_METROS).map((town): ValueCount & { km: number } => {
    const km = metroKm(town.population);
    const { within } = countNear(column, context, town.lat, town.lon, [km]);
    return { key: town.key, label: town.name, count: within[0]!, group: town.region || town.country, km };
  });
  return { values, unknown: countBits(context) - countBoth(context, column.located) };
}

const NEIGHBOUR_KM = 30;
const MOST_NEIGHBOURS = 12;

/** The towns around one, nearest first, that have companies. */
function neighbourCounts(lookup: Lookup, column: PlaceColumn, { within }: CountsRequest, context: Bits) {
  const centre = lookup.places.town(within ?? '');
  if (!centre) return { values: [], unknown: 0 };
  const { counts, unknown } = countCategory(column.town, context);
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
function postcodeCounts({ postcode }: PlaceColumn, { within, search }: CountsRequest, context: Bits) {
  const found = countCategory(postcode, context);
  const begin = plainPostcode(search ?? '');
  const groups = new Map<string, number>();
  for (const [key, count] of found.counts) {
    if (count === 0) continue;
    const space = key.indexOf(' ');
    const plain = key.slice(space + 1);
    if (within && key.slice(0, space) !== within) continue;
    if (!plain.startsWith(begin)) continue;
    const group = begin === '' ? `${plain.slice(0, 2)}*` : plain;
    groups.set(group, (groups.get(group) ?? 0) + count);
  }
  const values = [...groups]
    .map(([label, count]): ValueCount => ({ key: within ? `${within} ${label}` : label, label, count }))
    .sort((a, b) => (a.label < b.label ? -1 : 1))
    .slice(0, MOST_POSTCODES);
  return { values, unknown: found.unknown };
}

function byCount(a: ValueCount, b: ValueCount): number {
  return b.count - a.count || (a.label < b.label ? -1 : 1);
}
