import { distanceKm, KM_A_MILE } from '../geo/distance.ts';
import type { Gazetteer } from '../geo/gazetteer.ts';
import { chordsOf, eachNear, pointOf } from '../geo/grid.ts';
import type { NearTest, PlaceTest } from '../tape/nodes.ts';
import { addBits, keepBits, noBits, notBits, setBit } from './bits.ts';
import type { CategoryColumn, PlaceColumn } from './columns.ts';
import { addRecords } from './sorted.ts';
import { havingAny, unvalued } from './test-category.ts';
import { orVerdict, type Verdict } from './verdict.ts';

/** Yes in any of the named places or within the distance (Kleene or). */
export function testPlace(column: PlaceColumn, test: PlaceTest, places: Gazetteer, size: number): Verdict {
  const parts: Verdict[] = [];
  if (test.countries) parts.push(testNamed(column.country, test.countries, null, size));
  if (test.regions) {
    const countries = test.regions.map((key) => places.region(key)!.country);
    parts.push(testNamed(column.region, test.regions, { column: column.country, keys: countries }, size));
  }
  if (test.towns) {
    const countries = test.towns.map((town) => town.slice(town.lastIndexOf(', ') + 2).slice(0, 2));
    parts.push(testNamed(column.town, test.towns, { column: column.country, keys: countries }, size));
  }
  if (test.near) parts.push(testNear(column, test.near, size));
  return parts.length === 1 ? parts[0]! : orVerdict(parts);
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
