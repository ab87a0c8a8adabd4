import { fold } from '../text/fold.ts';

export interface Country {
  code: string;
  name: string;
  local: string;
  currency: string;
  /** Dialling code, such as +420. */
  dialling: string;
}

export interface Region {
  key: string;
  country: string;
  name: string;
  /** English name; the local one where both are the same. */
  english: string;
}

export interface Town {
  /** "Brno, CZ-64": name and region key, as tapes name towns. */
  key: string;
  name: string;
  country: string;
  region: string;
  lat: number;
  lon: number;
  population: number;
}

/** The tables a gazetteer is read from: tab-separated with one header row. */
export interface GazetteerTables {
  countries: string;
  regions: string;
  towns: string;
}

/**
 * Countries, regions and towns, found by key or by name in any of their spellings. The towns are read when
 * they are first asked for, and their spellings sorted when one is first looked for: most threads need neither.
 */
export class Gazetteer {
  readonly countries: Country[];
  readonly regions: Region[];
  private readonly countryByCode = new Map<string, Country>();
  private readonly regionByKey = new Map<string, Region>();
  private readonly regionsByName = new Map<string, Region[]>();
  private readonly townTable: string;
  private countryNames: Map<string, string> | null = null;
  private townsRead: TownsRead | null = null;
  private spellingsSorted: Spellings | null = null;

  constructor(tables: GazetteerTables) {
    this.countries = rows(tables.countries).map(([code, , , name, local, currency, , , dialling]) => ({
      code: code!,
      name: name!,
      local: local!,
      currency: currency!,
      dialling: dialling!,
    }));
    this.regions = rows(tables.regions).map(([key, country, name, english]) => ({
      key: key!,
      country: country!,
      name: name!,
      english: english || name!,
    }));
    for (const country of this.countries) this.countryByCode.set(country.code, country);
    for (const region of this.regions) {
      this.regionByKey.set(region.key, region);
      for (const name of new Set([fold(region.name), fold(region.english)]))
        this.regionsByName.set(name, [...(this.regionsByName.get(name) ?? []), region]);
    }
    this.townTable = tables.towns;
  }

  /** All towns, by country and then by population. */
  get towns(): Town[] {
    return this.read().towns;
  }

  /** Makes now what would otherwise be made when it is first asked for. */
  warm(): void {
    this.sorted();
  }

  country(code: string): Country | undefined {
    return this.countryByCode.get(code);
  }

  region(key: string): Region | undefined {
    return this.regionByKey.get(key);
  }

  town(key: string): Town | undefined {
    return this.read().byKey.get(key);
  }

  /** A country by code or by its name in English or any language of the countries of Europe, or undefined. */
  countryNamed(text: string): Country | undefined {
    const code = this.countryByCode.get(text.trim().toUpperCase());
    if (code) return code;
    this.countryNames ??= namesOfCountries(this.countries);
    return this.countryByCode.get(this.countryNames.get(fold(text.trim())) ?? '');
  }

  /** A region by key or by local or English name, within a country if one is given. */
  regionNamed(text: string, country?: string): Region | undefined {
    const named = this.regionByKey.get(text.trim());
    if (named && (!country || named.country === country)) return named;
    return this.regionsByName
      .get(fold(text.trim()))
      ?.find((region) => !country || region.country === country);
  }

  /** The largest town spelled exactly so, within a country or region if one is given. */
  townNamed(text: string, within: { country?: string; region?: string } = {}): Town | undefined {
    const folded = fold(text.trim());
    const { towns } = this.read();
    const { texts, spelled } = this.sorted();
    let best: Town | undefined;
    for (let i = firstFrom(texts, folded); i < texts.length && texts[i] === folded; i++) {
      const town = towns[spelled[i]!]!;
      if (within.country && town.country !== within.country) continue;
      if (within.region && town.region !== within.region) continue;
      if (!best || town.population > best.population) best = town;
    }
    return best;
  }

  /** Towns with a spelling that begins with the text, the largest first. */
  townsBeginning(text: string, limit: number): Town[] {
    const folded = fold(text.trim());
    if (folded === '') return [];
    const { towns } = this.read();
    const { texts, spelled } = this.sorted();
    const found = new Set<number>();
    for (let i = firstFrom(texts, folded); i < texts.length && texts[i]!.startsWith(folded); i++)
      found.add(spelled[i]!);
    return [...found]
      .map((at) => towns[at]!)
      .sort((a, b) => b.population - a.population)
      .slice(0, limit);
  }

  private read(): TownsRead {
    return (this.townsRead ??= readTowns(this.townTable));
  }

  private sorted(): Spellings {
    return (this.spellingsSorted ??= sortSpellings(this.read().namedAs));
  }
}

/** Languages in which countries are known by name. */
const LANGUAGES =
  'en bg cs da de el es et fi fr ga hr hu is it lb lt lv mt nb nl pl pt ro ru sk sl sq sr sv tr uk'.split(
    ' ',
  );

/** Folded names of countries with their codes; where two share one, the first of the table has it. */
function namesOfCountries(countries: readonly Country[]): Map<string, string> {
  const names = new Map<string, string>();
  const add = (name: string | undefined, code: string) => {
    if (name && !names.has(fold(name))) names.set(fold(name), code);
  };
  for (const { code, name } of countries) add(name, code);
  for (const { code, local } of countries) for (const name of local.split(' | ')) add(name, code);
  for (const language of LANGUAGES) {
    const named = new Intl.DisplayNames([language], { type: 'region' });
    for (const { code } of countries) add(/^[A-Z]{2}$/.test(code) ? named.of(code) : undefined, code);
  }
  return names;
}

interface TownsRead {
  towns: Town[];
  byKey: Map<string, Town>;
  /** All spellings of each town. */
  namedAs: string[][];
}

/** Folded spellings of towns in order, with the town of each. */
interface Spellings {
  texts: string[];
  spelled: Uint32Array;
}

function readTowns(table: string): TownsRead {
  const namedAs: string[][] = [];
  const towns = rows(table).map(
    ([, name, , english, others, country, region, lat, lon, population]): Town => {
      namedAs.push([name!, english!, ...others!.split('|')].filter(Boolean));
      return {
        key: `${name}, ${region || country}`,
        name: name!,
        country: country!,
        region: region!,
        lat: Number(lat),
        lon: Number(lon),
        population: Number(population),
      };
    },
  );
  // Towns come by country and then by population: the largest of a name wins its key.
  const byKey = new Map<string, Town>();
  for (const town of towns) if (!byKey.has(town.key)) byKey.set(town.key, town);
  return { towns, byKey, namedAs };
}

function sortSpellings(namedAs: readonly string[][]): Spellings {
  const entries: { text: string; town: number }[] = [];
  for (const [town, names] of namedAs.entries())
    for (const text of new Set(names.map(fold))) entries.push({ text, town });
  entries.sort((a, b) => (a.text < b.text ? -1 : a.text > b.text ? 1 : 0));
  return {
    texts: entries.map((entry) => entry.text),
    spelled: Uint32Array.from(entries, (entry) => entry.town),
  };
}

/** Where the first of the sorted texts stands that is not below one. */
function firstFrom(texts: readonly string[], text: string): number {
  let low = 0;
  let high = texts.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (texts[middle]! < text) low = middle + 1;
    else high = middle;
  }
  return low;
}

function rows(tsv: string): string[][] {
  return tsv
    .split('\n')
    .slice(1)
    .filter(Boolean)
    .map((row) => row.split('\t'));
}
