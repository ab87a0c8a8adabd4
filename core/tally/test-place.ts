import { distanceKm, KM_A_MILE } from '../geo/distance.ts';
import type { Gazetteer } from '../geo/gazetteer.ts';
import { eachNear } from '../geo/grid.ts';
import type { NearTest, PlaceTest } from '../tape/nodes.ts';
import { noBits, notBits } from './bits.ts';
import type { CategoryColumn, PlaceColumn } from './columns.ts';
import { wantedValues } from './test-category.ts';
import { orVerdict, State, verdictOfStates, type Verdict } from './verdict.ts';

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
  const states = new Uint8Array(column.dictionary.length + 1);
  states[0] = State.Unknown;
  states.set(wantedValues(column.dictionary, keys), 1);
  const verdict = verdictOfStates(column.values, states, size);
  if (coarser) {
    const possible = new Uint8Array(coarser.column.dictionary.length + 1);
    possible[0] = State.Yes;
    possible.set(wantedValues(coarser.column.dictionary, coarser.keys), 1);
    const { yes } = verdictOfStates(coarser.column.values, possible, size);
    for (let w = 0; w < yes.length; w++) verdict.unknown[w]! &= yes[w]!;
  }
  return verdict;
}

function testNear(column: PlaceColumn, near: NearTest, size: number): Verdict {
  const { lat, lon, grid, located } = column;
  const km = nearKm(near);
  const yes = noBits(size);
  eachNear(grid, near.lat, near.lon, km, (start, end, sure) => {
    for (let i = start; i < end; i++) {
      const r = grid.records[i]!;
      if (sure || distanceKm(near.lat, near.lon, lat[r]!, lon[r]!) <= km) yes[r >> 5]! |= 1 << (r & 31);
    }
  });
  return { yes, unknown: notBits(located, size) };
}

/** The radius of a distance test in kilometres. */
export function nearKm(near: NearTest): number {
  return near.km ?? near.miles! * KM_A_MILE;
}
