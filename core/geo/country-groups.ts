/** Countries that are asked for together, under one name. */
export interface CountryGroup {
  key: string;
  label: string;
  /** ISO 3166-1 alpha-2. */
  countries: readonly string[];
}

const group = (key: string, label: string, countries: string): [string, CountryGroup] => [
  key,
  { key, label, countries: countries.split(' ') },
];

/**
 * Ready groups. The European Union and the euro area as of 2026 (Bulgaria took the euro that year);
 * language areas are countries in which the language is official nationwide or for a large part.
 */
export const READY_GROUPS: ReadonlyMap<string, CountryGroup> = new Map([
  group(
    'eu',
    'European Union',
    'AT BE BG CY CZ DE DK EE ES FI FR GR HR HU IE IT LT LU LV MT NL PL PT RO SE SI SK',
  ),
  group(
    'eea',
    'European Economic Area',
    'AT BE BG CY CZ DE DK EE ES FI FR GR HR HU IE IS IT LI LT LU LV MT NL NO PL PT RO SE SI SK',
  ),
  group(
    'eu-customs-union',
    'EU customs union with Türkiye',
    'AT BE BG CY CZ DE DK EE ES FI FR GR HR HU IE IT LT LU LV MC MT NL PL PT RO SE SI SK TR',
  ),
  group('efta', 'EFTA', 'CH IS LI NO'),
  group('euro-area', 'Euro area', 'AT BE BG CY DE EE ES FI FR GR HR IE IT LT LU LV MT NL PT SI SK'),
  group('german-speaking', 'German-speaking', 'AT CH DE LI LU'),
  group('french-speaking', 'French-speaking', 'BE CH FR LU MC'),
  group('dutch-speaking', 'Dutch-speaking', 'BE NL'),
  group('italian-speaking', 'Italian-speaking', 'CH IT SM'),
  group('english-speaking', 'English-speaking', 'AU CA GB IE MT NZ US ZA'),
  group('nordic', 'Nordic', 'DK FI IS NO SE'),
  group('baltic', 'Baltic', 'EE LT LV'),
  group('benelux', 'Benelux', 'BE LU NL'),
  group('central-europe', 'Central Europe', 'AT CH CZ DE HU LI PL SI SK'),
  group('iberian', 'Iberian', 'ES PT'),
]);

/** ISO codes of countries and keys of groups as countries alone, each once. Keys that no group has are left out. */
export function expandCountries(
  keys: readonly string[],
  groups: ReadonlyMap<string, CountryGroup>,
): string[] {
  return [
    ...new Set(keys.flatMap((key) => (isCountryCode(key) ? [key] : (groups.get(key)?.countries ?? [])))),
  ];
}

/** Whether a key is shaped like an ISO code; keys of groups never are. */
export function isCountryCode(key: string): boolean {
  return /^[A-Z]{2}$/.test(key);
}
