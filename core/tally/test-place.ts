import { distanceKm, KM_A_MILE } from '../geo/distance.ts';
import { isInArea, sidesOf } from '../geo/area.ts';
import { expandCountries } from '../geo/country-groups.ts';
import { chordsOf, eachNear, pointOf } from '../geo/grid.ts';
import { metroKm } from '../geo/metro.ts';
import { matchesPostcode, parsePostcode } from '../geo/postcodes.ts';
import type { Lookup } from '../tape/lookup.ts';
import type { AreaTest, NearTest, PlaceTest } from '../tape/nodes.ts';
import { addBits, keepBits, noBits, notBits, setBit } from './bits.ts';
import type { CategoryColumn, PlaceColumn } from './columns.ts';
import { addRecords } from './sorted.ts';
import { havingAny, unvalued } from './test-category.ts';
import { orVerdict, type Verdict } from './verdict.ts';

/** Yes in any of the named places, within the distance or in the drawn area (Kleene or). */
export function testPlace(column: PlaceColumn, test: PlaceTest, lookup: Lookup, size: number): Verdict {
  const { places } = lookup;
  const parts: Verdict[] = [];
  if (test.countries)
    parts.push(testNamed(column.country, expandCountries(test.countries, lookup.countryGroups), null, size));
  if (test.regions) {
    const countries = test.regions.map((key) => places.region(key)!.country);
    parts.push(testNamed(column.region, test.regions, { column: column.country, keys: countries }, size));
  }
  if (test.towns) {
    const countries = test.towns.map((town) => town.slice(town.lastIndexOf(', ') + 2).slice(0, 2));
    parts.push(testNamed(column.town, test.towns, { column: column.country, keys: countries }, size));
  }
  for (const near of metroCircles(test, lookup)) parts.push(testNear(column, near, size));
  if (test.postcodes) parts.push(testPostcodes(column, test.postcodes, size));
  if (test.near) parts.push(testNear(column, test.near, size));
  if (test.within) parts.push(testArea(column, test.within, size));
  return parts.length === 1 ? parts[0]! : orVerdict(parts);
}

/** The circles that metropolitan areas are. */
export function metroCircles(test: PlaceTest, { places }: Lookup): NearTest[] {
  return (test.metro ?? []).map((key) => {
    const { lat, lon, population } = places.town(key)!;
    return { lat, lon, km: metroKm(population) };
  });
}

function testPostcodes({ country, postcode }: PlaceColumn, texts: readonly string[], size: number): Verdict {
  const patterns = texts.map((text) => parsePostcode(text)!);
  const held: string[] = [];
  const perhaps: string[] = [];
  for (const key of postcode.dictionary) {
    const space = key.indexOf(' ');
    const plain = key.slice(space + 1);
    const where = key.slice(0, space);
    const matching = patterns.filter((pattern) => matchesPostcode(plain, pattern));
    if (matching.some((one) => one.country === null || one.country === where)) held.push(key);
    else if (where === '' && matching.length) perhaps.push(key);
  }
  const yes = havingAny(postcode, held, size);
  const unknown = unvalued(postcode, size);
  if (patterns.every((pattern) => pattern.country !== null)) {
    const possible = havingAny(
      country,
      patterns.map((pattern) => pattern.country!),
      size,
    );
    addBits(possible, unvalued(country, size));
    keepBits(unknown, possible);
  }
  addBits(unknown, havingAny(postcode, perhaps, size));
  return { yes, unknown };
}

function testArea({ lat, lon, located }: PlaceColumn, { points }: AreaTest, size: number): Verdict {
  const yes = noBits(size);
  const sides = sidesOf(points);
  const lats = points.map(([y]) => y);
  const lons = points.map(([, x]) => x);
  const [south, north, west, east] = [
    Math.min(...lats),
    Math.max(...lats),
    Math.min(...lons),
    Math.max(...lons),
  ];
  for (let r = 0; r < size; r++) {
    const y = lat[r]!;
    const x = lon[r]!;
    if (y >= south && y <= north && x >= west && x <= east && isInArea(y, x, sides)) setBit(yes, r);
  }
  return { yes, unknown: notBits(located, size) };
}

/** A record whose own place is not known is still a no where what is known of it (its country) rules all wanted places out. */
function testNamed(
  column: CategoryColumn,
  keys: readonly string[],
  coarser: { column: CategoryColumn; keys: readonly string[] } | null,
  size: number,
): Verdict {
  const yes = havingAny(column, keys, size);
  const unknown = unvalued(column, size);
  if (coarser) {
    const possible = havingAny(coarser.column, coarser.keys, size);
    addBits(possible, unvalued(coarser.column, size));
    keepBits(unknown, possible);
  }
  return { yes, unknown };
}

function testNear(column: PlaceColumn, near: NearTest, size: number): Verdict {
  const { lat, lon, grid, located } = column;
  const km = nearKm(near);
  const yes = noBits(size);
  const [x, y, z] = pointOf(near.lat, near.lon);
  const { surely, atMost } = chordsOf(km);
  const { records, points } = grid;
  eachNear(grid, near.lat, near.lon, km, (start, end, sure) => {
    if (sure) {
      addRecords(yes, records, start, end);
      return;
    }
    for (let i = start; i < end; i++) {
      const dx = points[3 * i]! - x;
      const dy = points[3 * i + 1]! - y;
      const dz = points[3 * i + 2]! - z;
      const chord = dx * dx + dy * dy + dz * dz;
      if (chord > atMost) continue;
      const r = records[i]!;
      if (chord <= surely || distanceKm(near.lat, near.lon, lat[r]!, lon[r]!) <= km) setBit(yes, r);
    }
  });
  return { yes, unknown: notBits(located, size) };
}

/** The radius of a distance test in kilometres. */
export function nearKm(near: NearTest): number {
  return near.km ?? near.miles! * KM_A_MILE;
}
