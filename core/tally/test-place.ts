import { distanceKm, KM_A_MILE, latitudeReach } from '../geo/distance.ts';
import type { Gazetteer } from '../geo/gazetteer.ts';
import type { NearTest, PlaceTest } from '../tape/nodes.ts';
import { noBits } from './bits.ts';
import type { CategoryColumn, PlaceColumn } from './columns.ts';
import { wantedValues } from './test-category.ts';
import { orVerdict, type Verdict } from './verdict.ts';

/** Yes in any of the named places or within the distance (Kleene or). */
export function testPlace(column: PlaceColumn, test: PlaceTest, places: Gazetteer, size: number): Verdict {
  const parts: Verdict[] = [];
  if (test.countries) parts.push(testNamed(column.country, test.countries, null, null, size));
  if (test.regions) {
    const countries = test.regions.map((key) => places.region(key)!.country);
    parts.push(testNamed(column.region, test.regions, column.country, countries, size));
  }
  if (test.towns) parts.push(testTowns(column, test.towns, size));
  if (test.near) parts.push(testNear(column, test.near, size));
  return orVerdict(parts);
}

/** A record whose own place is not known is still a no where what is known of it (its country) rules all wanted places out. */
function testNamed(
  column: CategoryColumn,
  keys: readonly string[],
  coarser: CategoryColumn | null,
  coarserKeys: readonly string[] | null,
  size: number,
): Verdict {
  const wanted = wantedValues(column.dictionary, keys);
  const possible = coarser && coarserKeys ? wantedValues(coarser.dictionary, coarserKeys) : null;
  const yes = noBits(size);
  const unknown = noBits(size);
  for (let r = 0; r < size; r++) {
    const value = column.values[r]!;
    const bit = 1 << (r & 31);
    if (value !== 0) {
      if (wanted[value - 1]) yes[r >> 5]! |= bit;
      continue;
    }
    const coarse = coarser ? coarser.values[r]! : 0;
    if (coarse === 0 || possible?.[coarse - 1]) unknown[r >> 5]! |= bit;
  }
  return { yes, unknown };
}

function testTowns(column: PlaceColumn, towns: readonly string[], size: number): Verdict {
  const countries = towns.map((town) => town.slice(town.lastIndexOf(', ') + 2).slice(0, 2));
  return testNamed(column.town, towns, column.country, countries, size);
}

function testNear(column: PlaceColumn, near: NearTest, size: number): Verdict {
  const km = nearKm(near);
  const reach = latitudeReach(km);
  const yes = noBits(size);
  const unknown = noBits(size);
  for (let r = 0; r < size; r++) {
    const lat = column.lat[r]!;
    if (Number.isNaN(lat)) unknown[r >> 5]! |= 1 << (r & 31);
    else if (Math.abs(lat - near.lat) <= reach && distanceKm(near.lat, near.lon, lat, column.lon[r]!) <= km)
      yes[r >> 5]! |= 1 << (r & 31);
  }
  return { yes, unknown };
}

/** The radius of a distance test in kilometres. */
export function nearKm(near: NearTest): number {
  return near.km ?? near.miles! * KM_A_MILE;
}
