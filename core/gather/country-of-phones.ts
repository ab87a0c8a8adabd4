import { getCountries, getCountryCallingCode, type CountryCode } from 'libphonenumber-js';

/** Of phones with a country's code, so many must have the same one. */
const MOST_OF_THEM = 0.6;

let byCode: Map<string, CountryCode> | null = null;

/** Countries by their calling code; codes of several countries say none. */
function countriesByCode(): ReadonlyMap<string, CountryCode> {
  if (byCode) return byCode;
  const all = new Map<string, CountryCode[]>();
  for (const country of getCountries()) {
    const code = getCountryCallingCode(country);
    all.set(code, [...(all.get(code) ?? []), country]);
  }
  byCode = new Map(
    [...all].flatMap(([code, countries]) => (countries.length === 1 ? [[code, countries[0]!]] : [])),
  );
  return byCode;
}

/** The country that most of some phones are of, as an ISO code; null where they do not say it, or several. */
export function countryOfPhones(phones: readonly string[]): string | null {
  const codes = countriesByCode();
  const counts = new Map<string, number>();
  let coded = 0;
  for (const phone of phones) {
    const figures = /^(?:\+|00)(\d{1,20})/.exec(phone.replace(/[^\d+]/g, ''))?.[1];
    if (figures === undefined) continue;
    const code = [3, 2, 1].map((length) => figures.slice(0, length)).find((begin) => codes.has(begin));
    if (code === undefined) continue;
    coded++;
    counts.set(code, (counts.get(code) ?? 0) + 1);
  }
  const [most] = [...counts].sort((a, b) => b[1] - a[1]);
  return most && most[1] >= MOST_OF_THEM * coded ? codes.get(most[0])! : null;
}
