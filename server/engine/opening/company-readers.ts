import { plainPostcode } from '../../../core/geo/postcodes.ts';
import type { Bits } from '../../../core/tally/bits.ts';
import { Basis, NO_DAY, REASONS } from '../../../core/tally/columns.ts';
import type { UnindexedRange } from '../../../core/tally/range-index.ts';
import type { UnindexedCategory, UnindexedPlace } from './column-copier.ts';

export type Value = string | number | null;

/**
 * Fills columns from the `company` table: names the expressions it needs and takes their values for
 * each record, so that all columns are filled in one pass over the table. A value costs more to
 * bring over from SQLite than to compute there, so readers ask for few: small things packed into
 * one number, texts that go together as one.
 */
export interface CompanyReader {
  expressions: readonly string[];
  /** The values of record `r` begin at `row[at]`. */
  take(r: number, row: readonly Value[], at: number): void;
}

const SEPARATOR = '\u001f';

/** Texts joined into one, null as nothing. */
function joined(expressions: readonly string[]): string {
  return `concat_ws(char(31), ${expressions.map((one) => `COALESCE(${one}, '')`).join(', ')})`;
}

/** The code of a value in a growing dictionary; 0 for nothing. */
function coder(dictionary: string[]): (value: string) => number {
  const codeOf = new Map(dictionary.map((value, i) => [value, i + 1]));
  return (value) => {
    if (value === '') return 0;
    let code = codeOf.get(value);
    if (code === undefined) codeOf.set(value, (code = dictionary.push(value)));
    return code;
  };
}

/** Fields of one value each, such as status and legal form, and the sets of companies of which an expression is not null. */
export function readCategories(
  categories: readonly [expression: string, column: UnindexedCategory][],
  known: readonly [expression: string, set: Bits][],
): CompanyReader {
  const coders = categories.map(([, column]) => coder(column.dictionary));
  const seen = new Map<string, number[]>();
  const read = (text: string) =>
    text.split(SEPARATOR).map((value, i) => (i < coders.length ? coders[i]!(value) : Number(value)));
  return {
    expressions: [
      joined([
        ...categories.map(([expression]) => expression),
        ...known.map(([expression]) => `(${expression} IS NOT NULL)`),
      ]),
    ],
    take(r, row, at) {
      const text = row[at] as string;
      let codes = seen.get(text);
      if (!codes) seen.set(text, (codes = read(text)));
      let i = 0;
      for (const [, column] of categories) column.values[r] = codes[i++]!;
      for (const [, set] of known) {
        if (codes[i++] === 1) set[r >> 5]! |= 1 << (r & 31);
        else set[r >> 5]! &= ~(1 << (r & 31));
      }
    },
  };
}

export function readPlaces(column: UnindexedPlace): CompanyReader {
  const { country, region, town, postcode, lat, lon } = column;
  const [countryCode, regionCode, townCode] = [country, region, town].map((one) => coder(one.dictionary));
  const postcodeCode = coder(postcode.dictionary);
  const known = new Map<string, [country: number, region: number, town: number]>();
  const codesOf = (text: string): [number, number, number] => {
    const [inCountry, inRegion, inTown] = text.split(SEPARATOR) as [string, string, string];
    const where = inRegion || inCountry;
    return [
      countryCode!(inCountry),
      regionCode!(inRegion),
      inTown === '' || where === '' ? 0 : townCode!(`${inTown}, ${where}`),
    ];
  };
  return {
    expressions: [joined(['country', 'region', 'town']), 'lat', 'lon', 'postcode'],
    take(r, row, at) {
      const text = row[at] as string;
      let codes = known.get(text);
      if (!codes) known.set(text, (codes = codesOf(text)));
      country.values[r] = codes[0];
      region.values[r] = codes[1];
      town.values[r] = codes[2];
      const written = row[at + 3] as string | null;
      postcode.values[r] =
        written === null
          ? 0
          : postcodeCode(`${text.slice(0, text.indexOf(SEPARATOR))} ${plainPostcode(written)}`);
      lat[r] = (row[at + 1] as number | null) ?? NaN;
      lon[r] = (row[at + 2] as number | null) ?? NaN;
    },
  };
}

export function readDates(expression: string, days: Int32Array): CompanyReader {
  return {
    expressions: [expression],
    take(r, row, at) {
      days[r] = (row[at] as number | null) ?? NO_DAY;
    },
  };
}

/** Exact numbers, such as years. */
export function readNumbers(expression: string, column: UnindexedRange): CompanyReader {
  return {
    expressions: [expression],
    take(r, row, at) {
      const value = row[at] as number | null;
      column.basis[r] = value === null ? Basis.Unknown : Basis.Reported;
      column.low[r] = column.high[r] = value ?? 0;
    },
  };
}

/**
 * What a value is, packed into one number: below zero why it is unknown, else its basis, year and currency as digits of
 * different weight. A currency is its three letters as a number.
 */
const BASES = 4;
const YEARS = 10_000;
const LETTERS = 128;

const currencySql = (stem: string) =>
  ['1', '2', '3']
    .map((at) => `unicode(substr(${stem}_currency, ${at}, 1))`)
    .reduce((sum, one) => `(${sum} * ${LETTERS} + ${one})`);

function currencyOf(packed: number): string {
  return String.fromCharCode(
    Math.floor(packed / LETTERS ** 2),
    Math.floor(packed / LETTERS) % LETTERS,
    packed % LETTERS,
  );
}

/** Numbers that may be exact, banded or estimated, and money in its own currency. A reported one comes as a number, others as a text of low, high and point. */
export function readRanges(stem: string, column: UnindexedRange): CompanyReader {
  const why = REASONS.map((reason, i) => `WHEN '${reason}' THEN ${-1 - i}`).join(' ');
  const basis = `CASE ${stem}_basis WHEN 'reported' THEN ${Basis.Reported} WHEN 'band' THEN ${Basis.Band} ELSE ${Basis.Estimate} END`;
  const currency = column.currency ? ` + ${BASES * YEARS} * ${currencySql(stem)}` : '';
  const numbers = new Map<number, number>();
  const currencyNumber = (packed: number): number => {
    let number = numbers.get(packed);
    if (number === undefined) {
      const code = currencyOf(packed);
      const known = column.currencies.indexOf(code);
      numbers.set(packed, (number = known < 0 ? column.currencies.push(code) - 1 : known));
    }
    return number;
  };
  return {
    expressions: [
      `CASE WHEN ${stem}_low IS NULL THEN CASE ${stem}_why ${why} ELSE -1 END
        ELSE ${basis} + ${BASES} * COALESCE(${stem}_year, 0)${currency} END`,
      `CASE ${stem}_basis WHEN 'reported' THEN ${stem}_low
        ELSE ${stem}_low || ' ' || ${stem}_high || ' ' || COALESCE(${stem}_point, '') END`,
    ],
    take(r, row, at) {
      const packed = row[at] as number;
      if (packed < 0) {
        column.low[r] = column.high[r] = column.rangeLow[r] = column.rangeHigh[r] = 0;
        column.basis[r] = Basis.Unknown;
        column.why[r] = -1 - packed;
        column.year[r] = 0;
        return;
      }
      column.basis[r] = packed % BASES;
      column.why[r] = 0;
      column.year[r] = Math.floor(packed / BASES) % YEARS;
      if (column.currency) column.currency[r] = currencyNumber(Math.floor(packed / (BASES * YEARS)));
      const figures = row[at + 1] as number | string;
      if (typeof figures === 'number') {
        column.low[r] = column.high[r] = column.rangeLow[r] = column.rangeHigh[r] = figures;
        return;
      }
      const [low, high, point] = figures.split(' ').map(sqlNumber) as [number, number, number];
      const estimate = column.basis[r] === Basis.Estimate;
      column.rangeLow[r] = low;
      column.rangeHigh[r] = high;
      column.low[r] = estimate ? point : low;
      column.high[r] = estimate ? point : high;
    },
  };
}

/** A number as SQLite writes it; it writes all digits of a double, so nothing is lost. */
function sqlNumber(text: string): number {
  return text === 'Inf' ? Infinity : text === '-Inf' ? -Infinity : Number(text);
}
