import { parsePostcode } from '../../geo/postcodes.ts';
import { fold } from '../../text/fold.ts';
import type { Lookup } from '../lookup.ts';
import type { AreaTest, NearTest, PlaceTest } from '../nodes.ts';
import { readFigure } from './figures.ts';
import { problem, splitOutside } from './pieces.ts';

/** “or” with an even number of quotation marks after it. */
const OR_OUTSIDE_QUOTES = /\s+or\s+(?=(?:[^"]*"[^"]*")*[^"]*$)/i;

/** Reads named places, then “or near …”. @throws Problem */
export function readPlace(text: string, lookup: Lookup): PlaceTest {
  const at = /\sat (head|any)(?: (?:office|site))?$/i.exec(text);
  const body = at ? text.slice(0, at.index) : text;
  const [named, nearText] = /^near\s/i.test(body) ? ['', body] : splitOr(body);
  const countries: string[] = [];
  const regions: string[] = [];
  const towns: string[] = [];
  const metro: string[] = [];
  const postcodes: string[] = [];
  let within: AreaTest | undefined;
  for (const part of splitOutside(named, ',')
    .flatMap((one) => one.split(OR_OUTSIDE_QUOTES))
    .map((one) => one.trim())
    .filter(Boolean)) {
    const name = part.replaceAll('"', '').trim();
    const metroTown = /^(?:metro|greater)\s+(.+)$/i.exec(name)?.[1];
    const postcode = /^postcodes?\s+(.+)$/i.exec(name)?.[1];
    const corners = /^area\s+(.+)$/i.exec(name)?.[1];
    if (metroTown) {
      const town = lookup.places.town(metroTown) ?? lookup.places.townNamed(metroTown);
      if (!town) throw problem('in metro', metroTown, 'a known town', text);
      metro.push(town.key);
      continue;
    }
    if (postcode) {
      if (!parsePostcode(postcode))
        throw problem(
          'in postcode',
          postcode,
          'a postcode, a prefix such as “CZ 602*” or a range such as “60000..61999”',
          text,
        );
      postcodes.push(postcode);
      continue;
    }
    if (corners) {
      within = readArea(corners, text);
      continue;
    }
    const key = /^(.+), ([A-Z]{2}(?:-[\w-]+)?)$/.exec(name);
    const group = groupNamed(name, lookup);
    const country = group ? undefined : lookup.places.countryNamed(name);
    const region = group || country ? undefined : lookup.places.regionNamed(name);
    const town = group || country || region ? undefined : lookup.places.townNamed(name);
    if (key) towns.push(name);
    else if (group) countries.push(group);
    else if (country) countries.push(country.code);
    else if (region) regions.push(region.key);
    else if (town) towns.push(town.key);
    else
      throw problem(
        'in',
        name,
        'a country or group of countries, a region, a town, “metro …”, “postcode …” or “area …”',
        text,
      );
  }
  const test: PlaceTest = {
    ...(countries.length ? { countries } : {}),
    ...(regions.length ? { regions } : {}),
    ...(towns.length ? { towns } : {}),
    ...(metro.length ? { metro } : {}),
    ...(postcodes.length ? { postcodes } : {}),
    ...(within ? { within } : {}),
    ...(nearText ? { near: readNear(nearText, lookup) } : {}),
    ...(at ? { site: at[1]!.toLowerCase() as 'head' | 'any' } : {}),
  };
  if (Object.keys(test).length === 0)
    throw problem(
      'in',
      text,
      'a country or group of countries, a region, a town, “metro …”, “postcode …” or “area …”',
      text,
    );
  return test;
}

/** The key of a group of countries by key or name. */
function groupNamed(name: string, { countryGroups }: Lookup): string | undefined {
  const folded = fold(name);
  for (const { key, label } of countryGroups.values())
    if (key === name || fold(label) === folded || key === folded.replaceAll(' ', '-')) return key;
  return undefined;
}

function readArea(text: string, whole: string): AreaTest {
  const [corners, label] = text.split(/\s+label\s+/i);
  const figures = corners!.split(/[\s,]+/).map(Number);
  if (figures.length < 6 || figures.length % 2 || figures.some((one) => !Number.isFinite(one)))
    throw problem('in area', text, 'three or more corners, latitude and longitude in turn', whole);
  return {
    points: Array.from(
      { length: figures.length / 2 },
      (_, i) => [figures[2 * i]!, figures[2 * i + 1]!] as const,
    ),
    ...(label === undefined ? {} : { label }),
  };
}

/** Parts before and from " or near ". */
function splitOr(text: string): [string, string | null] {
  const at = text.search(/\s+or\s+near\s(?=(?:[^"]*"[^"]*")*[^"]*$)/i);
  return at < 0 ? [text, null] : [text.slice(0, at), text.slice(at).replace(/^\s+or\s+/i, '')];
}

function readNear(text: string, lookup: Lookup): NearTest {
  const found = /^near\s+(.+?)\s+([\d.,]+k?)\s*(km|mi|miles?)(?:\s+"([^"]*)")?$/i.exec(text);
  if (!found)
    throw problem(
      'near',
      text.replace(/^near\s*/i, ''),
      'a town and a distance, as in “near Brno 60 km”',
      text,
    );
  const [, where, figure, unit, label] = found;
  const distance = readFigure(figure!);
  if (distance === null) throw problem(`near ${where}`, figure!, 'a distance such as 60 km', text);
  const radius = unit!.toLowerCase() === 'km' ? { km: distance } : { miles: distance };
  const point = /^(-?\d+(?:\.\d+)?(?:e-?\d+)?)\s*,\s*(-?\d+(?:\.\d+)?(?:e-?\d+)?)$/i.exec(where!);
  if (point)
    return {
      lat: Number(point[1]),
      lon: Number(point[2]),
      ...radius,
      ...(label === undefined ? {} : { label }),
    };
  const name = where!.replaceAll('"', '').trim();
  const within = /^(.+?),?\s+([A-Z]{2}(?:-[\w-]+)?)$/.exec(name);
  const town =
    lookup.places.townNamed(name) ??
    (within
      ? lookup.places.townNamed(
          within[1]!,
          within[2]!.length === 2 ? { country: within[2]! } : { region: within[2]! },
        )
      : undefined);
  if (!town) throw problem('near', name, 'a known town or a point such as 49.2,16.6', text);
  return { lat: town.lat, lon: town.lon, ...radius, label: town.name };
}
