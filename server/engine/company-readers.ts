import { noBits, setBit } from '../../core/tally/bits.ts';
import {
  Basis,
  NO_DAY,
  REASONS,
  type CategoryColumn,
  type Column,
  type DateColumn,
  type PlaceColumn,
  type RangeColumn,
  type Reason,
} from '../../core/tally/columns.ts';
import type { Bits } from '../../core/tally/bits.ts';

type Value = string | number | null;

/**
 * Fills one column from the `company` table: names the expressions it needs and takes their values
 * for each record, so that all columns are filled in one pass over the table.
 */
export interface CompanyReader<C extends Column | Bits = Column | Bits> {
  column: C;
  expressions: readonly string[];
  /** The values of record `r` begin at `row[at]`. */
  take(r: number, row: readonly Value[], at: number): void;
}

const BASES: Record<string, Basis> = {
  reported: Basis.Reported,
  band: Basis.Band,
  estimate: Basis.Estimate,
};

export function readCategories(expression: string, size: number): CompanyReader<CategoryColumn> {
  const dictionary: string[] = [];
  const codeOf = new Map<string, number>();
  const values = new Uint32Array(size);
  return {
    column: { kind: 'category', dictionary, values },
    expressions: [expression],
    take(r, row, at) {
      const value = row[at] as string | null;
      if (value === null) return;
      let code = codeOf.get(value);
      if (code === undefined) codeOf.set(value, (code = dictionary.push(value)));
      values[r] = code;
    },
  };
}

export function readDates(expression: string, size: number): CompanyReader<DateColumn> {
  const days = new Int32Array(size);
  return {
    column: { kind: 'date', days },
    expressions: [expression],
    take(r, row, at) {
      days[r] = (row[at] as number | null) ?? NO_DAY;
    },
  };
}

function emptyRange(size: number): RangeColumn {
  const numbers = () => new Float64Array(size);
  return {
    kind: 'range',
    low: numbers(),
    high: numbers(),
    rangeLow: numbers(),
    rangeHigh: numbers(),
    basis: new Uint8Array(size),
    why: new Uint8Array(size),
    year: new Uint16Array(size),
  };
}

/** Exact numbers, such as years. */
export function readNumbers(expression: string, size: number): CompanyReader<RangeColumn> {
  const column = emptyRange(size);
  return {
    column,
    expressions: [expression],
    take(r, row, at) {
      const value = row[at] as number | null;
      if (value === null) return;
      column.low[r] = column.high[r] = column.rangeLow[r] = column.rangeHigh[r] = value;
      column.basis[r] = Basis.Reported;
    },
  };
}

/** Numbers that may be exact, banded or estimated; money in euros. */
export function readRanges(stem: string, money: boolean, size: number): CompanyReader<RangeColumn> {
  const column = emptyRange(size);
  const value = money ? `${stem}_eur` : stem;
  return {
    column,
    expressions: [
      ...['low', 'high', 'point'].map((end) => `${value}_${end}`),
      ...['basis', 'year', 'why'].map((part) => `${stem}_${part}`),
    ],
    take(r, row, at) {
      const low = row[at] as number | null;
      const high = row[at + 1] as number | null;
      const basis = row[at + 3] as string | null;
      if (low === null || high === null || basis === null) {
        column.why[r] = Math.max(0, REASONS.indexOf((row[at + 5] ?? 'not collected') as Reason));
        return;
      }
      const point = row[at + 2] as number | null;
      const estimated = basis === 'estimate';
      column.basis[r] = BASES[basis]!;
      column.rangeLow[r] = low;
      column.rangeHigh[r] = high;
      column.low[r] = estimated ? point! : low;
      column.high[r] = estimated ? point! : high;
      column.year[r] = (row[at + 4] as number | null) ?? 0;
    },
  };
}

export function readPlaces(size: number): CompanyReader<PlaceColumn> {
  const country = readCategories('country', size);
  const region = readCategories('region', size);
  const town = readCategories(`town || ', ' || COALESCE(region, country)`, size);
  const lat = new Float64Array(size);
  const lon = new Float64Array(size);
  return {
    column: { kind: 'place', country: country.column, region: region.column, town: town.column, lat, lon },
    expressions: [...country.expressions, ...region.expressions, ...town.expressions, 'lat', 'lon'],
    take(r, row, at) {
      country.take(r, row, at);
      region.take(r, row, at + 1);
      town.take(r, row, at + 2);
      lat[r] = (row[at + 3] as number | null) ?? NaN;
      lon[r] = (row[at + 4] as number | null) ?? NaN;
    },
  };
}

/** The records of which an expression is not null. */
export function readKnown(expression: string, size: number): CompanyReader<Bits> {
  const bits = noBits(size);
  return {
    column: bits,
    expressions: [`${expression} IS NOT NULL`],
    take(r, row, at) {
      if (row[at] === 1) setBit(bits, r);
    },
  };
}
