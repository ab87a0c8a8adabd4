import { fold } from '../../text/fold.ts';
import type { Lookup } from '../lookup.ts';
import type { Suggestion } from './suggestion.ts';

/**
 * Places that the last of several names is of, or begins, each with what it is: a country or group of countries, a region, a
 * town, a metropolitan area. Names count in any language that is known of the place.
 */
export function placesNamed(text: string, lookup: Lookup, how: 'exact' | 'begins'): Suggestion[] {
  const last = text.split(',').at(-1)!.trim();
  const before = text.slice(0, text.length - last.length);
  const folded = fold(last.replaceAll('"', ''));
  if (folded === '') return [];
  const { places, countryGroups } = lookup;
  const metro = /^(?:metro|greater)\s+(.+)$/i.exec(last)?.[1];
  const found: Suggestion[] = [];
  const add = (typed: string, what: string) => found.push({ typed: before + typed, what });
  const meets = (...names: string[]) =>
    names.some((name) => (how === 'exact' ? fold(name) === folded : fold(name).startsWith(folded)));

  const country = places.countryNamed(last);
  if (country) add(country.name, 'country');
  if (how === 'begins')
    for (const { name, local, code } of places.countries)
      if (code !== country?.code && meets(name, ...local.split(' | ')) && found.length < 3)
        add(name, 'country');
  const groups = [...countryGroups.values()].filter(({ key, label }) => meets(key, label));
  for (const { key } of groups.slice(0, 2)) add(key, 'group of countries');
  const regions = places.regions.filter(({ name, english }) => meets(name, english));
  for (const { key } of regions.slice(0, 3)) add(key, 'region');
  const towns = metro
    ? places.townsBeginning(metro, 4)
    : how === 'exact'
      ? [places.townNamed(last)].flatMap((town) => town ?? [])
      : places.townsBeginning(last, 4);
  for (const { key } of metro ? [] : towns) add(`"${key}"`, 'town');
  for (const { key, population } of metro ? towns : towns.slice(0, 1))
    if (metro || population >= METRO_FROM) add(`metro "${key}"`, 'metro area');
  return found;
}

/** People from which the surroundings of a town are offered beside it. */
const METRO_FROM = 100_000;

/** Distances from the towns that a name begins; the text may end with the distance. */
export function nearTowns(text: string, lookup: Lookup, limit: number): string[] {
  const [, name, radius] = /^(.*?)(?:\s+(\d[\d.]*\s*(?:km|mi|miles)?))?$/i.exec(text)!;
  const distance = radius ? (/[a-z]$/i.test(radius) ? radius : `${radius} km`) : '40 km';
  return lookup.places
    .townsBeginning(name!, limit)
    .map((town) =>
      lookup.places.townNamed(town.name)?.key === town.key
        ? `near ${town.name} ${distance}`
        : `near ${town.name} ${town.region || town.country} ${distance}`,
    );
}
