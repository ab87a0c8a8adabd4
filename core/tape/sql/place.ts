import { sidesOf } from '../../geo/area.ts';
import { expandCountries } from '../../geo/country-groups.ts';
import { EARTH_KM } from '../../geo/distance.ts';
import { parsePostcode } from '../../geo/postcodes.ts';
import { metroCircles, nearKm } from '../../tally/test-place.ts';
import type { Lookup } from '../lookup.ts';
import type { AreaTest, NearTest, PlaceTest } from '../nodes.ts';
import { filled, joined, listed, sql, type Sql } from './statement.ts';

/** The key of the town of a row. */
export const townOf = (row: string) => `(${row}.town || ', ' || COALESCE(${row}.region, ${row}.country))`;

/** A postcode as `plainPostcode` makes it. */
const postcodeOf = (row: string) => `replace(replace(upper(${row}.postcode), ' ', ''), '-', '')`;

/** A place as a condition on a row; `least` is the dialect's function for the lesser of two numbers. */
export function placeSql(test: PlaceTest, lookup: Lookup, least: string, row: string): Sql {
  const parts: Sql[] = [];
  if (test.countries)
    parts.push(
      filled(`${row}.country IN (@)`, listed(expandCountries(test.countries, lookup.countryGroups))),
    );
  if (test.regions) {
    const within = test.regions.map((key) => lookup.places.region(key)!.country);
    parts.push(placed(row, `${row}.region`, test.regions, within));
  }
  if (test.towns) {
    const within = test.towns.map((town) => town.slice(town.lastIndexOf(', ') + 2).slice(0, 2));
    parts.push(placed(row, townOf(row), test.towns, within));
  }
  for (const circle of metroCircles(test, lookup)) parts.push(near(row, circle, least));
  if (test.postcodes) parts.push(...test.postcodes.map((one) => postcode(row, one)));
  if (test.near) parts.push(near(row, test.near, least));
  if (test.within) parts.push(area(row, test.within));
  return parts.length === 1 ? parts[0]! : filled('(@)', joined(parts, ' OR '));
}

/** A place not known is still a no where the country, if known, rules all wanted places out. */
function placed(row: string, value: string, keys: readonly string[], countries: readonly string[]): Sql {
  return filled(
    `CASE WHEN ${value} IS NULL AND ${row}.country NOT IN (@) THEN FALSE ELSE ${value} IN (@) END`,
    listed(countries),
    listed(keys),
  );
}

function postcode(row: string, text: string): Sql {
  const own = postcodeOf(row);
  const { country, kind, from, to } = parsePostcode(text)!;
  const matches =
    kind === 'one'
      ? sql(`${own} = ?`, from)
      : kind === 'prefix'
        ? sql(`substr(${own}, 1, ${from.length}) = ?`, from)
        : sql(`length(${own}) = ${from.length} AND ${own} BETWEEN ? AND ?`, from, to);
  return country === null
    ? filled('(@)', matches)
    : filled(`(${row}.country = @ AND @)`, sql('?', country), matches);
}

function near(row: string, test: NearTest, least: string): Sql {
  return sql(
    `CASE WHEN ${row}.lat IS NOT NULL AND ${row}.lon IS NOT NULL THEN ${2 * EARTH_KM} * asin(sqrt(${least}(1, pow(sin(radians(${row}.lat - ?) / 2), 2) + cos(radians(?)) * cos(radians(${row}.lat)) * pow(sin(radians(${row}.lon - ?) / 2), 2)))) <= ? END`,
    test.lat,
    test.lat,
    test.lon,
    nearKm(test),
  );
}

/** As `isInArea`, side by side: an odd number of crossings is inside. */
function area(row: string, { points }: AreaTest): Sql {
  const crossings = sidesOf(points).map(({ y1, y2, x1, dx, dy }) =>
    dy === 0
      ? sql('0')
      : sql(
          `CASE WHEN (? > ${row}.lat) <> (? > ${row}.lat) AND ${row}.lon < ? * (${row}.lat - ?) / ? + ? THEN 1 ELSE 0 END`,
          y1,
          y2,
          dx,
          y1,
          dy,
          x1,
        ),
  );
  return filled(
    `CASE WHEN ${row}.lat IS NOT NULL AND ${row}.lon IS NOT NULL THEN (@) % 2 = 1 END`,
    joined(crossings, ' + '),
  );
}
