import { distanceKm } from '../geo/distance.ts';
import { eachNear } from '../geo/grid.ts';
import { countBits, countBoth, hasBit, recordsOf, setBit, type Bits } from './bits.ts';
import type { CategoryColumn, PlaceColumn } from './columns.ts';
import { countCategory } from './counts.ts';
import type { Hanging } from './links.ts';

/** Where records are: in their own place, and where lines ask for any site also in those of their sites. */
export interface Placed {
  own: PlaceColumn;
  sites: { place: PlaceColumn; hanging: Hanging } | null;
}

export type PlacePart = 'country' | 'region' | 'town' | 'postcode';

/** Records by key. A value of a place may stand for several keys, such as a country and its groups. */
export interface PlaceCounts {
  counts: Map<string, number>;
  /** Records of whose places none is known so finely. */
  unknown: number;
}

/** The records of a context by the keys of their places, each once a key however many of its sites are there. */
export function countPlaces(
  { own, sites }: Placed,
  part: PlacePart,
  context: Bits,
  keysOf: (value: string) => readonly string[] = (value) => [value],
): PlaceCounts {
  if (!sites) {
    const { counts, unknown } = countCategory(own[part], context);
    const byKey = new Map<string, number>();
    for (const [value, count] of counts)
      if (count) for (const key of keysOf(value)) byKey.set(key, (byKey.get(key) ?? 0) + count);
    return { counts: byKey, unknown };
  }
  const numbers = new Map<string, number>();
  const numbersOf = ({ dictionary }: CategoryColumn): number[][] => [
    [],
    ...dictionary.map((value) =>
      keysOf(value).map((key) => {
        let number = numbers.get(key);
        if (number === undefined) numbers.set(key, (number = numbers.size));
        return number;
      }),
    ),
  ];
  const ownNumbers = numbersOf(own[part]);
  const siteNumbers = numbersOf(sites.place[part]);
  const tallies = new Uint32Array(numbers.size);
  const lastAt = new Int32Array(numbers.size).fill(-1);
  let unknown = 0;
  for (const r of recordsOf(context)) {
    let known = own[part].values[r] !== 0;
    const count = (found: readonly number[]) => {
      for (const number of found)
        if (lastAt[number] !== r) {
          lastAt[number] = r;
          tallies[number]!++;
        }
    };
    count(ownNumbers[own[part].values[r]!]!);
    const { starts, records } = sites.hanging;
    for (let i = starts[r]!; i < starts[r + 1]!; i++) {
      const value = sites.place[part].values[records ? records[i]! : i]!;
      known ||= value !== 0;
      count(siteNumbers[value]!);
    }
    if (!known) unknown++;
  }
  return { counts: new Map([...numbers].map(([key, number]) => [key, tallies[number]!])), unknown };
}

/** Records within each of several distances in kilometres of a point, and those of which it is not known where they are. */
export function countWithin(
  { own, sites }: Placed,
  context: Bits,
  lat: number,
  lon: number,
  radii: readonly number[],
): { within: number[]; unknown: number } {
  const nearest = new Map<number, number>();
  const most = Math.max(...radii);
  const look = (place: PlaceColumn, recordsOfPoint: (at: number) => Iterable<number>) =>
    eachNear(place.grid, lat, lon, most, (start, end) => {
      for (let i = start; i < end; i++) {
        const at = place.grid.records[i]!;
        const km = distanceKm(lat, lon, place.lat[at]!, place.lon[at]!);
        if (km > most) continue;
        for (const r of recordsOfPoint(at))
          if (hasBit(context, r) && km < (nearest.get(r) ?? Infinity)) nearest.set(r, km);
      }
    });
  look(own, (at) => [at]);
  if (sites) {
    const owners = ownersOf(sites.hanging);
    look(sites.place, (at) => owners(at));
  }
  const within = radii.map(() => 0);
  for (const km of nearest.values()) for (let n = 0; n < radii.length; n++) if (km <= radii[n]!) within[n]!++;
  return { within, unknown: countBits(context) - countBoth(context, locatedOf({ own, sites })) };
}

/** Records of which some place is known to the point. */
export function locatedOf({ own, sites }: Placed): Bits {
  if (!sites) return own.located;
  const located = own.located.slice();
  const owners = ownersOf(sites.hanging);
  for (const at of recordsOf(sites.place.located)) for (const r of owners(at)) setBit(located, r);
  return located;
}

/** The records that a site hangs on: those whose stretch it is in. */
function ownersOf({ starts, records }: Hanging): (site: number) => number[] {
  let last = (starts.at(-1) ?? 0) - 1;
  if (records) for (const site of records) if (site > last) last = site;
  const owner = new Int32Array(last + 1).fill(-1);
  for (let r = 0; r + 1 < starts.length; r++)
    for (let i = starts[r]!; i < starts[r + 1]!; i++) owner[records ? records[i]! : i] = r;
  return (site) => ((owner[site] ?? -1) < 0 ? [] : [owner[site]!]);
}
