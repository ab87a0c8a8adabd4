import { fold } from '../text/fold.ts';

/** Names of countries and regions as people write them. */

/** Languages in which countries are known by name: those of the countries themselves, as far as the platform has them. */
const LANGUAGES = (
  'en de fr es it pt nl pl cs sk hu ro bg hr sl sr bs mk sq el tr ru uk be lt lv et fi sv da nb is ga mt lb eu ca gl ' +
  'ar he fa ur hi bn ta th vi id ms fil ja ko zh zh-Hant ka hy az kk uz ky mn sw am af'
).split(' ');

/** Short and older forms that no table of names has. */
const SHORT_FORMS: Readonly<Record<string, string>> = {
  usa: 'US',
  'u s a': 'US',
  'u s': 'US',
  america: 'US',
  'united states of america': 'US',
  uk: 'GB',
  'u k': 'GB',
  'great britain': 'GB',
  britain: 'GB',
  england: 'GB',
  scotland: 'GB',
  wales: 'GB',
  'northern ireland': 'GB',
  grossbritannien: 'GB',
  'velka britanie': 'GB',
  'wielka brytania': 'GB',
  holland: 'NL',
  holandsko: 'NL',
  holandia: 'NL',
  'the netherlands': 'NL',
  eire: 'IE',
  'republic of ireland': 'IE',
  'czech republic': 'CZ',
  'ceska republika': 'CZ',
  'czech rep': 'CZ',
  cr: 'CZ',
  'tschechische republik': 'CZ',
  'republika czeska': 'CZ',
  'slovak republic': 'SK',
  'slovenska republika': 'SK',
  'slowakische republik': 'SK',
  brd: 'DE',
  'bundesrepublik deutschland': 'DE',
  'federal republic of germany': 'DE',
  'russian federation': 'RU',
  korea: 'KR',
  weissrussland: 'BY',
  'ivory coast': 'CI',
  bosnia: 'BA',
  macedonia: 'MK',
  turkey: 'TR',
  burma: 'MM',
  uae: 'AE',
  'u a e': 'AE',
};

/** Codes of regions in use beside those of the table. */
export const OTHER_REGION_CODES: Readonly<Record<string, string>> = Object.fromEntries(
  'DS02 KP04 LU06 LB08 LD10 MA12 MZ14 OP16 PK18 PD20 PM22 SL24 SK26 WN28 WP30 ZP32'
    .split(' ')
    .map((pair) => [`PL-${pair.slice(0, 2)}`, pair.slice(2)]),
);

/** Words that say that a region is one. */
const REGION_WORDS =
  /\b(region|greater|kraj|county|province|provincia|provincie|wojewodztwo|woj|bundesland|land|canton|kanton|departement|megye|oblast|state|of|the|voivodeship|regione|comunidad|lan|fylke|judet|judetul|maakunta)\b/g;

/** A region's name as names are compared: folded, without words that say that it is one. */
export function plainRegion(text: string): string {
  const folded = fold(text)
    .replace(/[^a-z0-9]+/g, ' ')
    .trim();
  return folded.replace(REGION_WORDS, ' ').replace(/ +/g, ' ').trim() || folded;
}

/** A country's name as names are compared: folded, without an article and punctuation. */
export function plainCountry(text: string): string {
  return fold(text)
    .replace(/[^\p{L}\d]+/gu, ' ')
    .trim()
    .replace(/^the /, '');
}

/** Plain names of countries with their codes; where two share one, the first of the table has it. */
export function namesOfCountries(
  countries: readonly { code: string; name: string; local: string }[],
): Map<string, string> {
  const known = new Set(countries.map(({ code }) => code));
  const names = new Map(Object.entries(SHORT_FORMS).filter(([, code]) => known.has(code)));
  const add = (name: string | undefined, code: string) => {
    const plain = name === undefined ? '' : plainCountry(name);
    if (plain !== '' && !names.has(plain)) names.set(plain, code);
  };
  for (const { code, name } of countries) add(name, code);
  for (const { code, local } of countries) for (const name of local.split(' | ')) add(name, code);
  for (const language of LANGUAGES) {
    const named = new Intl.DisplayNames([language], { type: 'region' });
    for (const { code } of countries) add(/^[A-Z]{2}$/.test(code) ? named.of(code) : undefined, code);
  }
  return names;
}
