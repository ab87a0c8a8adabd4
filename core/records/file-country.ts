import { foldedWords } from '../text/fold.ts';
import { splitCamel } from './plain-heading.ts';

/**
 * Words of headings that are used in some countries alone: names of registers' and tax numbers, of national classifications of
 * industries, and of what a country is parted into. The first kind says by itself where the companies of a file are registered.
 */
const REGISTERS: readonly (readonly [words: string, countries: string])[] = [
  ['partita iva|codice fiscale|p iva|ateco|codice ateco|numero rea', 'IT'],
  ['cif|cnae', 'ES RO BR'],
  ['razon social', 'ES'],
  ['nipc|nif|cae|cae rev 3', 'PT'],
  ['siren|siret|naf|code naf|code ape|ape', 'FR'],
  ['kvk|kvk nummer|kvk nr|sbi|sbi code|rsin', 'NL'],
  ['ondernemingsnummer|numero d entreprise|bce|kbo', 'BE'],
  ['cvr|cvr nr|cvr nummer', 'DK'],
  ['organisationsnummer|orgnr|org nr|sni|sni kod', 'SE'],
  ['organisasjonsnummer|orgnummer', 'NO'],
  ['y tunnus|ytunnus', 'FI'],
  ['nip|regon|krs|pkd|kod pkd', 'PL'],
  ['ico|dic', 'CZ SK'],
  ['cznace|cz nace', 'CZ'],
  ['sknace|sk nace', 'SK'],
  ['adoszam|cegjegyzekszam|teaor', 'HU'],
  ['cui|caen|cod caen|cod fiscal', 'RO'],
  ['oib', 'HR'],
  ['bulstat|eik', 'BG'],
  ['firmenbuchnummer|firmenbuch|fn nummer|onace', 'AT'],
  ['noga|noga code|uid nummer|che nummer', 'CH'],
  ['ogrn|огрн', 'RU'],
  ['едрпоу|єдрпоу', 'UA'],
  ['αφμ|γεμη', 'GR'],
  ['hrb|hra|hrb nr|handelsregisternummer|handelsregister nr|wz|wz code|wz 2008|wz 2025', 'DE'],
  ['ein|fein|employer identification number', 'US'],
  ['naics|naics code|primary naics', 'US CA MX'],
  ['companies house number|crn|uk sic|uk sic code', 'GB'],
  ['registrikood|ariregistri kood|kmkr|emtak', 'EE'],
  ['vergi no|vergi numarasi|mersis', 'TR'],
];
const PARTS: readonly (readonly [words: string, countries: string])[] = [
  ['lan', 'SE'],
  ['fylke', 'NO'],
  ['bundesland', 'DE AT'],
  ['kanton', 'CH'],
  ['wojewodztwo|gmina|powiat', 'PL'],
  ['kraj|okres', 'CZ SK'],
  ['provincia', 'IT ES'],
  ['comune', 'IT'],
  ['departement', 'FR'],
  ['concelho|distrito|freguesia', 'PT'],
  ['maakunta|kunta', 'FI'],
  ['megye', 'HU'],
  ['judet', 'RO'],
  ['state|zip|zip code', 'US'],
  ['omsattning|foretagsnamn', 'SE'],
  ['omsaetning', 'DK'],
  ['omsetning', 'NO'],
];

const byWord = (table: typeof REGISTERS): ReadonlyMap<string, ReadonlySet<string>> =>
  new Map(
    table.flatMap(([words, countries]) =>
      words.split('|').map((word) => [word, new Set(countries.split(' '))] as const),
    ),
  );
const OF_REGISTERS = byWord(REGISTERS);
const OF_PARTS = byWord(PARTS);

/** Towns of a file that are looked up. */
const MOST_TOWNS = 200;
/** Share of its towns that are in a country at least, where the file is of it. */
const TOWNS_THERE = 0.5;

/**
 * The one country whose companies a file has that names none, by what only that country calls a register, a classification or its
 * parts: null where no heading says so of a register, where several countries are meant, or where most towns are not there.
 * @param towns of its rows, as they came
 * @param isTown whether a country has a town of that name
 */
export function countryOfFile(
  header: readonly string[],
  towns: readonly string[],
  isTown: (town: string, country: string) => boolean,
): string | null {
  const headings = header.map((heading) => foldedWords(heading.slice(0, 100)));
  const registers = meant(headings, OF_REGISTERS);
  if (registers.length === 0) return null;
  let left = new Set(registers[0]);
  for (const countries of registers) left = both(left, countries);
  for (const countries of meant(headings, OF_PARTS))
    // Of two countries that share what a register is called the parts say which.
    if (left.size > 1) left = both(left, countries);
  if (left.size !== 1) return null;
  const [country] = left;
  return liesThere(towns, country!, isTown) ? country! : null;
}

/** Whether half of the towns of a file, or all of none, are in a country. */
function liesThere(
  towns: readonly string[],
  country: string,
  isTown: (town: string, country: string) => boolean,
): boolean {
  const looked = towns.filter((town) => town.trim() !== '').slice(0, MOST_TOWNS);
  return looked.filter((town) => isTown(town, country)).length >= looked.length * TOWNS_THERE;
}

/** The United States where a column headed "State" has their two letters and most towns are there; null where it is not so. */
export function countryOfStates(
  heading: string,
  states: readonly string[],
  towns: readonly string[],
  isState: (text: string) => boolean,
  isTown: (town: string, country: string) => boolean,
): string | null {
  const words = foldedWords(splitCamel(heading));
  if (!words.some((word) => word === 'state' || word === 'st')) return null;
  const filled = states.map((state) => state.trim()).filter(Boolean);
  const fits = filled.filter((state) => /^[A-Z]{2}$/.test(state) && isState(state)).length;
  return fits > 0 && fits >= filled.length * STATES_THERE && liesThere(towns, 'US', isTown) ? 'US' : null;
}

/** Share of the cells of states that have to be such. */
const STATES_THERE = 0.8;

/** Different towns by which a country is told, how many of them have to be known, and how many of these there. */
const TOWNS_TOLD = { least: 4, known: 0.6, there: 0.9 } as const;
/** A second country that has so many of the same towns, too, makes the first no clearer. */
const SECOND_COUNTRY = 0.6;

/**
 * The country in which nearly all towns of a file lie that says of no country, null where they are few, or another has most of them, too.
 * @param countriesOf codes of the countries that have a town of a name
 */
export function countryOfTowns(
  towns: readonly string[],
  countriesOf: (town: string) => readonly string[],
): string | null {
  const different = [...new Set(towns.map((town) => town.trim()).filter(Boolean))].slice(0, MOST_TOWNS);
  const known = different.map((town) => new Set(countriesOf(town))).filter((countries) => countries.size > 0);
  if (known.length < TOWNS_TOLD.least || known.length < different.length * TOWNS_TOLD.known) return null;
  const counts = new Map<string, number>();
  for (const countries of known)
    for (const country of countries) counts.set(country, (counts.get(country) ?? 0) + 1);
  const [first, second] = [...counts].sort((a, b) => b[1] - a[1]);
  const isClear =
    first![1] >= known.length * TOWNS_TOLD.there && (second?.[1] ?? 0) <= first![1] * SECOND_COUNTRY;
  return isClear ? first![0] : null;
}

/** The country whose letters nearly all registration numbers of a file begin with: CHE-123.456.789, PL1234567890. */
export function countryOfNumbers(numbers: readonly string[]): string | null {
  const filled = numbers.map((number) => number.trim()).filter(Boolean);
  const signs = new Set(filled.map((number) => /^(CH(?=E)|[A-Z]{2})E?[- ]?\d[\d. -]{5,}/.exec(number)?.[1]));
  const [sign] = signs;
  return signs.size === 1 && sign !== undefined ? (VAT_SIGNS[sign] ?? sign) : null;
}

/** Countries whose VAT numbers begin with other letters than their ISO code. */
const VAT_SIGNS: Readonly<Record<string, string>> = { EL: 'GR', XI: 'GB' };

const both = (a: ReadonlySet<string>, b: ReadonlySet<string>) => new Set([...a].filter((one) => b.has(one)));

/** For each heading of which a word, or several side by side, are in a table, the countries there. */
function meant(
  headings: readonly (readonly string[])[],
  table: ReadonlyMap<string, ReadonlySet<string>>,
): ReadonlySet<string>[] {
  return headings.flatMap((words) => {
    for (let from = 0; from < words.length; from++)
      for (let to = Math.min(words.length, from + 3); to > from; to--) {
        const found = table.get(words.slice(from, to).join(' '));
        if (found) return [found];
      }
    return [];
  });
}
