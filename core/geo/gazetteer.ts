import { fold } from '../text/fold.ts';
import { OTHER_REGION_CODES, namesOfCountries, plainCountry, plainRegion } from './place-names.ts';
import { regionOfProvince } from './provinces.ts';
import { PostcodeRegions } from './postcode-regions.ts';
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
  /** How postcodes begin in which region; nothing is told by postcodes where it is not given. */
  postcodes?: string;
}

/**
 * Countries, regions and towns, found by key or by name in any of their spellings. The towns are read when
 * one is first asked for: most threads need none.
 */
export class Gazetteer {
  readonly countries: Country[];
  readonly regions: Region[];
  /** By ISO codes of two and of three letters. */
  private readonly countryByCode = new Map<string, Country>();
  private readonly regionByKey = new Map<string, Region>();
  private readonly regionsByName = new Map<string, Region[]>();
  private readonly tables: GazetteerTables;
  private countryNames: Map<string, string> | null = null;
  private townsRead: Towns | null = null;
  private postcodesRead: PostcodeRegions | null = null;

  constructor(tables: GazetteerTables) {
    this.countries = rows(tables.countries).map(([code, iso3, , name, local, currency, , , dialling]) => {
      const country = { code: code!, name: name!, local: local!, currency: currency!, dialling: dialling! };
      for (const key of [country.code, iso3!]) this.countryByCode.set(key, country);
      return country;
    });
    this.regions = rows(tables.regions).map(([key, country, name, english]) => ({
      key: key!,
      country: country!,
      name: name!,
      english: english || name!,
    }));
    for (const region of this.regions) {
      this.regionByKey.set(region.key, region);
      const names = [region.name, region.english];
      for (const name of new Set([...names.map(fold), ...names.map(plainRegion)]))
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

  /** A country by its code of two or three letters, by a short form such as USA or England, or by its name in any of many languages; or undefined. */
  countryNamed(text: string): Country | undefined {
    const code = this.countryByCode.get(text.trim().toUpperCase());
    if (code) return code;
    this.countryNames ??= namesOfCountries(this.countries);
    return this.countryByCode.get(this.countryNames.get(plainCountry(text)) ?? '');
  }

  /**
   * A region by key or by local or English name, within a country if one is given; there by its code too, such as OR in
   * the United States. Words such as "region" and "kraj" may be there or not. Without a country, the first of its name.
   */
  regionNamed(text: string, country?: string): Region | undefined {
    return this.regionsNamed(text, country)[0];
  }

  /** All regions that a text names, as `regionNamed` finds them. */
  regionsNamed(text: string, country?: string): Region[] {
    const key = text.trim().toUpperCase().replaceAll('.', '');
    const named = this.regionByKey.get(text.trim()) ?? this.regionByKey.get(key);
    if (named) return !country || named.country === country ? [named] : [];
    const inside = (found: readonly Region[] | undefined) =>
      (found ?? []).filter((region) => !country || region.country === country);
    const exact = inside(this.regionsByName.get(fold(text.trim())));
    if (exact.length) return exact;
    const coded =
      country && this.regionByKey.get(`${country}-${OTHER_REGION_CODES[`${country}-${key}`] ?? key}`);
    if (coded) return [coded];
    const plain = inside(this.regionsByName.get(plainRegion(text)));
    const around = country && plain.length === 0 ? regionOfProvince(text, country) : null;
    return around ? [this.regionByKey.get(around)!] : plain;
  }

  /** The towns spelled exactly so, within a country or region if one is given; the largest first. */
  townsNamed(text: string, within: { country?: string; region?: string } = {}): Town[] {
    return this.read()
      .spelled(fold(text.trim()))
      .filter(
        ({ country, region }) =>
          (!within.country || country === within.country) && (!within.region || region === within.region),
      )
      .sort((a, b) => b.population - a.population);
  }

  /** The largest town spelled exactly so, within a country or region if one is given. */
  townNamed(text: string, within: { country?: string; region?: string } = {}): Town | undefined {
    return this.townsNamed(text, within)[0];
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

  /** Key of the region that a postcode lies in, as far as its beginning says; null where it does not. */
  regionOfPostcode(country: string, postcode: string): string | null {
    this.postcodesRead ??= new PostcodeRegions(this.tables.postcodes ?? '');
    return this.postcodesRead.regionOf(country, postcode);
  }

  private read(): Towns {
    return (this.townsRead ??= new Towns(this.tables.towns, this.tables.spellings ?? null));
  }
}

function rows(tsv: string): string[][] {
  return tsv
    .split('\n')
    .slice(1)
    .filter(Boolean)
    .map((row) => row.split('\t'));
}
