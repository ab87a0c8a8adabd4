import type { Gazetteer } from '../geo/gazetteer.ts';
import { placeOf, type PlaceFound } from '../values/place.ts';

/** Readings of cells that are kept, for columns that say the same few things again and again. */

/** Different cells of a column, or different places, whose reading is kept. */
const MOST_REMEMBERED = 65_536;

/** The same reader, which reads equal cells once. What it throws it throws each time. */
export function remembered<T>(reader: (cell: string) => T): (cell: string) => T {
  const known = new Map<string, T>();
  return (cell) => {
    let value = known.get(cell);
    if (value === undefined) {
      value = reader(cell);
      if (known.size >= MOST_REMEMBERED) known.clear();
      known.set(cell, value);
    }
    return value;
  };
}

type OfTown = Map<string | null, PlaceFound>;
type OfRegion = Map<string | null, OfTown>;

type PlaceReader = (
  region: string | null,
  town: string | null,
  country: string | null,
  postcode: string | null,
) => PlaceFound;

/** `placeOf`, which looks each place up once; the postcode is asked where a town is in doubt. */
export function rememberedPlaces(places: Gazetteer): PlaceReader {
  const withoutPostcode = rememberedTowns(places);
  return (region, town, country, postcode) => {
    const found = withoutPostcode(region, town, country);
    return found.doubt?.of === 'town' && postcode !== null
      ? placeOf(region, town, country, places, postcode)
      : found;
  };
}

function rememberedTowns(
  places: Gazetteer,
): (region: string | null, town: string | null, country: string | null) => PlaceFound {
  const known = new Map<string | null, OfRegion>();
  let size = 0;
  return (region, town, country) => {
    let found = known.get(country)?.get(region)?.get(town);
    if (found) return found;
    found = placeOf(region, town, country, places);
    if (++size > MOST_REMEMBERED) {
      known.clear();
      size = 1;
    }
    let ofRegion = known.get(country);
    if (!ofRegion) known.set(country, (ofRegion = new Map<string | null, OfTown>()));
    let ofTown = ofRegion.get(region);
    if (!ofTown) ofRegion.set(region, (ofTown = new Map<string | null, PlaceFound>()));
    ofTown.set(town, found);
    return found;
  };
}
