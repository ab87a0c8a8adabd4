import { fold } from '../text/fold.ts';
import { Towns, type Town } from './towns.ts';

export type { Town } from './towns.ts';

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

/** The tables a gazetteer is read from: tab-separated with one header row. */
export interface GazetteerTables {
  countries: string;
  regions: string;
  towns: string;
  /** Their spellings, sorted; made of the towns where it is not given. */
  spellings?: string;
}

/**
 * Countries, regions and towns, found by key or by name in any of their spellings. The towns are read when
 * one is first asked for: most threads need none.
 */
export class Gazetteer {
  readonly countries: Country[];
  readonly regions: Region[];
  private readonly countryByCode = new Map<string, Country>();
  private readonly regionByKey = new Map<string, Region>();
  private readonly regionsByName = new Map<string, Region[]>();
  private readonly tables: GazetteerTables;
  private countryNames: Map<string, string> | null = null;
  private townsRead: Towns | null = null;

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
    this.tables = tables;
  }

  /** All towns, by country and then by population. */
  get towns(): Town[] {
    return this.read().all();
  }

  /** Makes now what would otherwise be made when it is first asked for. */
  warm(): void {
    this.read();
  }

  country(code: string): Country | undefined {
    return this.countryByCode.get(code);
  }

  region(key: string): Region | undefined {
    return this.regionByKey.get(key);
  }

  town(key: string): Town | undefined {
    return this.read().withKey(key);
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
    let best: Town | undefined;
    for (const town of this.read().spelled(fold(text.trim()))) {
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
    return this.read()
      .beginning(folded)
      .sort((a, b) => b.population - a.population)
      .slice(0, limit);
  }

  private read(): Towns {
    return (this.townsRead ??= new Towns(this.tables.towns, this.tables.spellings ?? null));
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

function rows(tsv: string): string[][] {
  return tsv
    .split('\n')
    .slice(1)
    .filter(Boolean)
    .map((row) => row.split('\t'));
}
