import type { CodeTree, Scheme } from '../codes/tree.ts';
import type { CellStyle } from '../values/cell.ts';
import { plainHeading } from './plain-heading.ts';
import { guessStyles, MONEY_COLUMNS, type ColumnStyle, type Undecided } from './column-styles.ts';
import { LOOKED_UP } from './columns-by-cells.ts';
import { countryOfFile, countryOfNumbers, countryOfStates, countryOfTowns } from './file-country.ts';
import { guessColumns } from './headings.ts';
import { yearIn } from './plain-heading.ts';

/** How a file's columns are read. */
export interface Mapping extends CellStyle {
  /** For each column of the file, the id of the file column it is read as, or null where it is left out. */
  columns: (string | null)[];
  /** Scheme of the industry codes. */
  scheme: Scheme;
  /** ISO code taken where a row names no country; null where then it is unknown. */
  country: string | null;
  /** Currency and year taken where a row names none. */
  currency: string;
  year: number;
  /** What money is counted in where its column does not say, one of `UNITS`. */
  revenueUnit: number;
  /** For each column how it is written, where that is not as the rest of the file. */
  styles?: ColumnStyle[];
  /** For each column what is read instead of a cell of it: another text, "" for nothing, null where the row is refused. */
  answers?: (Record<string, string | null> | null)[];
  /** What becomes of a cell that is not understood: it is left empty, or its row is refused. Names and numbers of the register always refuse theirs. */
  unreadable?: 'empty' | 'refuse';
  /** What has to be said before the file is loaded. */
  undecided?: Undecided[];
}

export interface MappingDefaults {
  currency: string;
  year: number;
}

/** What else is known of a file when its columns are recognised. */
export interface MappingHints {
  delimiter?: string;
  /** How many of the last columns are made of others. */
  made?: number;
  /** Whether a code means the same in NACE 2 and NACE 2.1. */
  sameCode?: (code: string) => boolean;
  isCountry?: (text: string) => boolean;
  /** Whether a country, or any, has a town of that name. */
  isTown?: (town: string, country: string | null) => boolean;
  /** Whether a country has a region of that name or code. */
  isRegion?: (text: string, country: string) => boolean;
  /** Codes of the countries that have a town of a name. */
  countriesOf?: (town: string) => readonly string[];
  /** ISO code of the money of a country; null where it is not known. */
  currencyOf?: (country: string) => string | null;
}

/** The mapping that a header and some rows suggest: by heading in several languages, then by content. */
export function guessMapping(
  header: readonly string[],
  rows: readonly (readonly string[])[],
  trees: ReadonlyMap<Scheme, CodeTree>,
  defaults: MappingDefaults,
  subject = 'companies',
  {
    delimiter,
    made = 0,
    sameCode = () => true,
    isCountry = () => false,
    isTown = () => false,
    isRegion = () => false,
    countriesOf = () => [],
    currencyOf = () => null,
  }: MappingHints = {},
): Mapping {
  const columns = withTown(
    withCountry(guessColumns(header, rows, subject, made), rows, isCountry),
    header,
    rows,
    subject,
    isTown,
  );
  const namesNone = !columns.includes('country') && !columns.includes('company-country');
  const towns = rows.map((row) => row[columns.indexOf('town')] ?? '');
  const states = columns.indexOf('region');
  const numbers = rows.map((row) => row[columns.indexOf('registration')] ?? '');
  const country =
    namesNone && subject === 'companies'
      ? (countryOfFile(header, towns, isTown) ??
        countryOfNumbers(numbers) ??
        countryOfStates(
          header[states] ?? '',
          rows.map((row) => row[states] ?? ''),
          towns,
          (text) => isRegion(text, 'US'),
          isTown,
        ) ??
        countryOfTowns(towns, countriesOf))
      : null;
  const { styles, undecided, decimal } = guessStyles(header, rows, columns, trees, {
    ...(delimiter === undefined ? {} : { delimiter }),
    sameCode,
    country,
  });
  const code = styles.find((style) => style.scheme)?.scheme;
  const money = styles.filter((_, at) => MONEY_COLUMNS.has(columns[at] ?? ''));
  const dates = styles.find((style) => style.dates)?.dates;
  return {
    columns,
    decimal,
    dates: dates ?? 'dmy',
    scheme: code ?? 'nace-2.1',
    country,
    currency:
      money.find((style) => style.currency)?.currency ??
      (country === null ? null : currencyOf(country)) ??
      defaults.currency,
    year: yearOfMoney(header, columns) ?? defaults.year,
    revenueUnit: money.find((style) => style.unit)?.unit ?? 1,
    styles,
    unreadable: 'empty',
    ...(undecided.length ? { undecided } : {}),
  };
}

/** The year that the heading of revenue names, else that of other money. */
function yearOfMoney(header: readonly string[], columns: readonly (string | null)[]): number | null {
  const at = [columns.indexOf('revenue'), ...columns.keys()].find(
    (column) => MONEY_COLUMNS.has(columns[column] ?? '') && yearIn(header[column]!) !== null,
  );
  return at === undefined ? null : yearIn(header[at]!);
}

/** A postcode with its town behind it: "8000 Aarhus C", "L-1234 Luxembourg". */
const POSTCODE_AND_TOWN = /^(?:[A-Z]{1,2}-)?(?:\d{4,5}|\d{3} \d{2}|\d{2}-\d{3}) +\p{L}{2}/u;

const POSTCODE = /^(?:[A-Z]{1,2}-)?\d{4,5}$/;

/**
 * A column of postcodes that has the towns behind them is read as towns, which knows what stands before them. Where no heading says
 * where the towns are, they are known by their names, and the postcodes beside them by their figures.
 */
function withTown(
  columns: (string | null)[],
  header: readonly string[],
  rows: readonly (readonly string[])[],
  subject: string,
  isTown: (town: string, country: string | null) => boolean,
): (string | null)[] {
  if (columns.includes('town') || subject !== 'companies') return columns;
  const looked = rows.slice(0, LOOKED_UP.rows);
  const mostly = (at: number, fits: (cell: string) => boolean) => {
    const cells = looked.map((row) => (row[at] ?? '').slice(0, 100).trim()).filter(Boolean);
    return cells.length > 0 && cells.filter(fits).length >= cells.length * SAMPLE_SHARE;
  };
  // A "kraj" is a region in Czech and Slovak, and a town in Slovene.
  const kraj = header.findIndex((heading, i) => columns[i] === 'region' && plainHeading(heading) === 'kraj');
  if (kraj >= 0 && mostly(kraj, (cell) => isTown(cell, 'SI')))
    return columns.map((id, at) => (at === kraj ? 'town' : id));
  const coded = columns.indexOf('postcode');
  if (coded >= 0 && mostly(coded, (cell) => POSTCODE_AND_TOWN.test(cell)))
    return columns.map((id) => (id === 'postcode' ? 'town' : id));
  const isName = (cell: string) => /^\p{L}/u.test(cell) && isTown(cell, null);
  const at = columns.findIndex(
    (id, column) => id === null && column < LOOKED_UP.columns && mostly(column, isName),
  );
  if (at < 0) return columns;
  const found = columns.map((id, column) => (column === at ? 'town' : id));
  const beside = [at - 1, at + 1].find(
    (column) => found[column] === null && mostly(column, (cell) => POSTCODE.test(cell)),
  );
  if (beside !== undefined && coded < 0) found[beside] = 'postcode';
  return found;
}

const SAMPLE_SHARE = 0.8;

/** The same word is a region in one language and a country in another, and where somebody sits may be a town or a country: the cells say which. */
function withCountry(
  columns: (string | null)[],
  rows: readonly (readonly string[])[],
  isCountry: (text: string) => boolean,
): (string | null)[] {
  if (columns.includes('country')) return columns;
  for (const id of ['region', 'town']) {
    const at = columns.indexOf(id);
    const cells = at < 0 ? [] : rows.map((row) => row[at]?.trim() ?? '').filter(Boolean);
    const named = cells.filter(isCountry).length;
    if (cells.length && named >= cells.length * SAMPLE_SHARE)
      return columns.map((one) => (one === id ? 'country' : one));
  }
  return columns;
}
