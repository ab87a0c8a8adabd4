import { sidesOf } from '../../geo/area.ts';
import { expandCountries } from '../../geo/country-groups.ts';
import { EARTH_KM } from '../../geo/distance.ts';
import { parsePostcode } from '../../geo/postcodes.ts';
import { metroCircles, nearKm } from '../../tally/test-place.ts';
import type { Lookup } from '../lookup.ts';
import type { AreaTest, NearTest, PlaceTest } from '../nodes.ts';
import { filled, joined, listed, sql, type Sql } from './statement.ts';

/** The key of a company's town. */
export const TOWN = `(c.town || ', ' || COALESCE(c.region, c.country))`;

/** A postcode as `plainPostcode` makes it. */
const POSTCODE = `replace(replace(upper(c.postcode), ' ', ''), '-', '')`;

/** A place as a condition on `c`; `least` is the dialect's function for the lesser of two numbers. */
export function placeSql(test: PlaceTest, lookup: Lookup, least: string): Sql {
  const parts: Sql[] = [];
  if (test.countries)
    parts.push(filled('c.country IN (@)', listed(expandCountries(test.countries, lookup.countryGroups))));
  if (test.regions) {
    const within = test.regions.map((key) => lookup.places.region(key)!.country);
    parts.push(placed('c.region', test.regions, within));
  }
  if (test.towns) {
    const within = test.towns.map((town) => town.slice(town.lastIndexOf(', ') + 2).slice(0, 2));
    parts.push(placed(TOWN, test.towns, within));
  }
  for (const circle of metroCircles(test, lookup)) parts.push(near(circle, least));
  if (test.postcodes) parts.push(...test.postcodes.map(postcode));
  if (test.near) parts.push(near(test.near, least));
  if (test.within) parts.push(area(test.within));
  return parts.length === 1 ? parts[0]! : filled('(@)', joined(parts, ' OR '));
}

/** A place not known is still a no where the country, if known, rules all wanted places out. */
function placed(value: string, keys: readonly string[], countries: readonly string[]): Sql {
  return filled(
    `CASE WHEN ${value} IS NULL AND c.country NOT IN (@) THEN FALSE ELSE ${value} IN (@) END`,
    listed(countries),
    listed(keys),
  );
}

function postcode(text: string): Sql {
  const { country, kind, from, to } = parsePostcode(text)!;
  const matches =
    kind === 'one'
      ? sql(`${POSTCODE} = ?`, from)
      : kind === 'prefix'
        ? sql(`substr(${POSTCODE}, 1, ${from.length}) = ?`, from)
        : sql(`length(${POSTCODE}) = ${from.length} AND ${POSTCODE} BETWEEN ? AND ?`, from, to);
  return country === null
    ? filled('(@)', matches)
    : filled('(c.country = @ AND @)', sql('?', country), matches);
}

function near(test: NearTest, least: string): Sql {
  return sql(
    `CASE WHEN c.lat IS NOT NULL AND c.lon IS NOT NULL THEN ${2 * EARTH_KM} * asin(sqrt(${least}(1, pow(sin(radians(c.lat - ?) / 2), 2) + cos(radians(?)) * cos(radians(c.lat)) * pow(sin(radians(c.lon - ?) / 2), 2)))) <= ? END`,
    test.lat,
    test.lat,
    test.lon,
    nearKm(test),
  );
}

/** As `isInArea`, side by side: an odd number of crossings is inside. */
function area({ points }: AreaTest): Sql {
  const crossings = sidesOf(points).map(({ y1, y2, x1, dx, dy }) =>
    dy === 0
      ? sql('0')
      : sql(
          'CASE WHEN (? > c.lat) <> (? > c.lat) AND c.lon < ? * (c.lat - ?) / ? + ? THEN 1 ELSE 0 END',
          y1,
          y2,
          dx,
          y1,
          dy,
          x1,
        ),
  );
  return filled(
    'CASE WHEN c.lat IS NOT NULL AND c.lon IS NOT NULL THEN (@) % 2 = 1 END',
    joined(crossings, ' + '),
  );
}
