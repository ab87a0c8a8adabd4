import type { Gazetteer, Town } from '../geo/gazetteer.ts';
import { fold } from '../text/fold.ts';
import { CellError } from './cell.ts';
import { readNumber } from './number.ts';

/** Where a row says that something is, as far as the gazetteer knows it. */
export interface PlaceFound {
  country: string | null;
  /** Key of the region. */
  region: string | null;
  town: string | null;
  lat: number | null;
  lon: number | null;
  /** Why the town or the region is not known any closer; null where nothing is in doubt. */
  doubt: { of: 'town' | 'region'; rule: string } | null;
}

/** A town of a name is meant without further word where it is so many times larger than the next of that name. */
const LARGER_BY = 20;

/** Countries by the distinguishing sign of their vehicles where that is no ISO code (United Nations, Conventions on Road Traffic). */
const VEHICLE_SIGNS: Readonly<Record<string, string>> = {
  ...{
    A: 'AT',
    B: 'BE',
    D: 'DE',
    E: 'ES',
    F: 'FR',
    H: 'HU',
    I: 'IT',
    L: 'LU',
    M: 'MT',
    N: 'NO',
    P: 'PT',
    S: 'SE',
  },
  ...{ FL: 'LI', SLO: 'SI', FIN: 'FI', IRL: 'IE', EST: 'EE' },
};

/** A cell without the flag in it, or the letters of the flag where it has nothing else: they are those of the country's code. */
function withoutFlag(cell: string): string {
  const flags = cell.match(/[\u{1F1E6}-\u{1F1FF}]/gu);
  if (!flags) return cell;
  const words = cell.replace(/[\u{1F1E6}-\u{1F1FF}]/gu, '').trim();
  return words || flags.map((letter) => String.fromCharCode(letter.codePointAt(0)! - 0x1f1e6 + 65)).join('');
}

/** The ISO code of the country that a cell names, or gives the sign of the vehicles of; null where it does neither. */
export function countryIn(written: string, places: Gazetteer): string | null {
  const cell = withoutFlag(written);
  const found =
    places.countryNamed(cell) ?? places.countryNamed(VEHICLE_SIGNS[cell.trim().toUpperCase()] ?? '');
  if (found) return found.code;
  // As in lists by the first letter: "Korea, South".
  const turned = /^([^,]{2,40}), ?([^,]{2,40})$/.exec(cell);
  const listed = turned && places.countryNamed(`${turned[2]} ${turned[1]}`);
  if (listed) return listed.code;
  // Said twice: "Deutschland (DE)", "AT / Österreich".
  const parts = cell.split(/[()/|]| - /).filter((part) => part.trim() !== '');
  const named = new Set(parts.map((part) => places.countryNamed(part)?.code ?? null));
  return parts.length === 2 && named.size === 1 ? [...named][0]! : null;
}

/** An ISO code by any name of a country, or by the sign of its vehicles. @throws CellError */
export function readCountry(cell: string, places: Gazetteer): string {
  const found = countryIn(cell, places);
  if (!found) throw new CellError('a country, as a name or an ISO code');
  return found;
}

/**
 * The place that texts for region and town mean, within a country where it is known. Towns of one name are told apart by
 * region and country, then by how the postcode begins; where those do not, the town keeps its name, and where it lies is unknown.
 */
export function placeOf(
  region: string | null,
  town: string | null,
  country: string | null,
  places: Gazetteer,
  postcode: string | null = null,
): PlaceFound {
  const regions = region === null ? [] : places.regionsNamed(region, country ?? undefined);
  const regionKey = regions.length === 1 ? regions[0]!.key : null;
  const inCountry = country ?? (regions.length === 1 ? regions[0]!.country : null);
  const doubt =
    region !== null && regionKey === null
      ? {
          of: 'region' as const,
          rule:
            regions.length > 1
              ? 'one region; the country says which'
              : country === null
                ? 'a region, by its name or its code'
                : `a region of ${places.country(country)?.name ?? country}, by its name or its code`,
        }
      : null;
  const nowhere = { country: inCountry, region: regionKey, town, lat: null, lon: null };
  if (town === null || inCountry === null) return { ...nowhere, doubt };
  const found = townsOf(town, inCountry, regionKey, places);
  const byName = clearest(found);
  const meant =
    byName ?? byPostcode(found, inCountry, postcode ?? /^[\d-]{4,7}(?= )/.exec(town)?.[0], places);
  if (!meant)
    return {
      ...nowhere,
      doubt:
        found.length > 1
          ? {
              of: 'town',
              rule: `one of the ${found.length} towns of this name; the region or the postcode says which`,
            }
          : doubt,
    };
  return {
    country: inCountry,
    region: regionKey ?? (meant.region || null),
    // Whose name is another spelling keeps it: the company is known again by it.
    town: byName || fold(meant.name) === fold(town) ? meant.name : town,
    lat: meant.lat,
    lon: meant.lon,
    doubt,
  };
}

/** Towns of a name; its district (Praha 4, 1030 Wien) and what stands in brackets are left out where there is none with it. */
export function townsOf(town: string, country: string, region: string | null, places: Gazetteer): Town[] {
  const within = { country, ...(region === null ? {} : { region }) };
  const whole = places.townsNamed(town, within);
  if (whole.length) return whole;
  const bare = town
    .split('(')[0]!
    .replace(/^(?:[A-Z]{1,2}-)?(?:\d{3} \d{2}|[\d-]{4,7}) +/, '')
    // Districts: Praha 4, LYON 3EME, NANTES CEDEX 2, Aarhus C.
    .replace(/ cedex(?: \d{1,2})?$/i, '')
    .replace(/ \d{1,2}(?:er?|e?me)?$/i, '')
    .replace(/ [A-ZÆØÅ]{1,2}$/, '')
    .trim();
  return bare === town || bare === '' ? [] : places.townsNamed(bare, within);
}

/** The one of several towns whose region the postcode lies in. */
function byPostcode(
  towns: readonly Town[],
  country: string,
  postcode: string | undefined,
  places: Gazetteer,
): Town | null {
  const region = postcode === undefined ? null : places.regionOfPostcode(country, postcode);
  return region === null ? null : clearest(towns.filter((town) => town.region === region));
}

/** The country of the town that is meant by a name alone, or null where several could be. */
export function countryOfTown(town: string | null, places: Gazetteer): string | null {
  return town === null ? null : (clearest(places.townsNamed(town))?.country ?? null);
}

function clearest(towns: readonly Town[]): Town | null {
  const [first, second] = towns;
  if (!first) return null;
  return !second || first.population >= second.population * LARGER_BY ? first : null;
}

/** 49°11'42.5"N, with what people write for the signs; the letter before or behind, and no more than degrees at times. */
const DEGREES =
  /^([NSEW])?(-?\d{1,3}(?:[.,]\d+)?)(?:°(?:(\d{1,2}(?:[.,]\d+)?)['′’](?:(\d{1,2}(?:[.,]\d+)?)(?:["″”]|'')?)?)?)?([NSEW])?$/iu;

/**
 * Degrees, as a number or in minutes and seconds with the point of the compass behind; their decimal mark is whichever they have.
 * @throws CellError
 */
export function readDegrees(written: string, most: number): number {
  // One half of "POINT(16.6 49.2)".
  const cell = written.replace(/^POINT ?\(|\)$/gi, '').trim();
  const decimal = cell.includes(',') && !cell.includes('.') ? ',' : '.';
  const parts = DEGREES.exec(cell.replace(/\s/g, ''));
  const compass = (parts?.[1] ?? parts?.[5])?.toUpperCase();
  const figure = (text: string | undefined) => (text === undefined ? 0 : readNumber(text, { decimal }));
  const value =
    parts && (compass !== undefined || parts[3] !== undefined)
      ? (compass !== undefined && 'SW'.includes(compass) ? -1 : 1) *
        (figure(parts[2]) + figure(parts[3]) / 60 + figure(parts[4]) / 3600)
      : readNumber(cell.replace(/ ?°$/, ''), { decimal });
  if (Math.abs(value) > most) throw new CellError(`degrees from -${most} to ${most}`);
  return value;
}
