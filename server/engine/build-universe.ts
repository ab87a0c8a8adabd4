import type { CodeTree, Scheme } from '../../core/codes/tree.ts';
import { SUBJECTS } from '../../core/fields/registry.ts';
import { noBits, setBit } from '../../core/tally/bits.ts';
import {
  Basis,
  NO_DAY,
  REASONS,
  type CategoryColumn,
  type CodesColumn,
  type Column,
  type DateColumn,
  type ManyColumn,
  type PlaceColumn,
  type RangeColumn,
  type Reason,
  type TextColumn,
  type Universe,
} from '../../core/tally/columns.ts';
import { ftsTerm } from '../../core/tape/words-query.ts';
import type { Db } from '../db/open.ts';

/** The companies of a database as columns, and the way between record numbers and company ids. */
export interface Built {
  universe: Universe;
  /** Company id of each record, ascending. */
  ids: Uint32Array;
  /** Record of each company id, or -1. */
  recordOf: Int32Array;
}

const BASES: Record<string, Basis> = { reported: Basis.Reported, band: Basis.Band, estimate: Basis.Estimate };

/** Builds the columns of all companies from the tables, one pass a field. */
export function buildUniverse(db: Db, trees: ReadonlyMap<Scheme, CodeTree>): Built {
  const ids = Uint32Array.from(db.prepare<[], number>('SELECT id FROM company ORDER BY id').pluck().all());
  const size = ids.length;
  const recordOf = new Int32Array((ids.at(-1) ?? 0) + 1).fill(-1);
  ids.forEach((id, r) => (recordOf[id] = r));
  const columns = new Map<string, Column>();
  for (const field of SUBJECTS.get('companies')!.fields) {
    if (field.openers.length === 0) continue;
    const { store } = field;
    switch (store.at) {
      case 'column':
        columns.set(
          field.id,
          field.kind === 'date'
            ? dates(db, store.column, size)
            : field.kind === 'number'
              ? plainNumbers(db, store.column, size)
              : categories(db, store.column, size),
        );
        break;
      case 'range':
        columns.set(field.id, ranges(db, store.stem, field.kind === 'money', size));
        break;
      case 'many':
        columns.set(field.id, many(db, store.table, store.value, store.known, recordOf, size));
        break;
      case 'codes':
        columns.set(field.id, codes(db, trees, recordOf, size));
        break;
      case 'place':
        columns.set(field.id, places(db, size));
        break;
      case 'words':
        columns.set(field.id, words(db, recordOf, size));
        break;
    }
  }
  return { universe: { size, columns }, ids, recordOf };
}

/** Values of a column in the order of the records. */
function valuesOf(db: Db, expression: string): IterableIterator<string | number | null> {
  return db
    .prepare<[], string | number | null>(`SELECT ${expression} FROM company ORDER BY id`)
    .pluck()
    .iterate();
}

function categories(db: Db, expression: string, size: number): CategoryColumn {
  const dictionary: string[] = [];
  const codeOf = new Map<string, number>();
  const values = new Uint32Array(size);
  let r = 0;
  for (const value of valuesOf(db, expression)) {
    if (value !== null) {
      const key = String(value);
      let code = codeOf.get(key);
      if (code === undefined) codeOf.set(key, (code = dictionary.push(key)));
      values[r] = code;
    }
    r++;
  }
  return { kind: 'category', dictionary, values };
}

function dates(db: Db, column: string, size: number): DateColumn {
  const days = new Int32Array(size);
  let r = 0;
  for (const day of valuesOf(db, column)) days[r++] = day === null ? NO_DAY : Number(day);
  return { kind: 'date', days };
}

function emptyRange(size: number): RangeColumn {
  const low = new Float64Array(size);
  const high = new Float64Array(size);
  return {
    kind: 'range',
    low,
    high,
    rangeLow: low.slice(),
    rangeHigh: high.slice(),
    basis: new Uint8Array(size),
    why: new Uint8Array(size),
    year: new Uint16Array(size),
  };
}

function plainNumbers(db: Db, column: string, size: number): RangeColumn {
  const range = emptyRange(size);
  let r = 0;
  for (const value of valuesOf(db, column)) {
    if (value !== null) {
      range.low[r] = range.high[r] = range.rangeLow[r] = range.rangeHigh[r] = Number(value);
      range.basis[r] = Basis.Reported;
    }
    r++;
  }
  return range;
}

function ranges(db: Db, stem: string, money: boolean, size: number): RangeColumn {
  const range = emptyRange(size);
  const value = money ? `${stem}_eur` : stem;
  const rows = db
    .prepare<[], [number | null, number | null, number | null, string | null, number | null, string | null]>(
      `SELECT ${value}_low, ${value}_high, ${value}_point, ${stem}_basis, ${stem}_year, ${stem}_why FROM company ORDER BY id`,
    )
    .raw()
    .iterate();
  let r = 0;
  for (const [low, high, point, basis, year, why] of rows) {
    if (low === null || high === null || basis === null)
      range.why[r] = Math.max(0, REASONS.indexOf((why ?? 'not collected') as Reason));
    else {
      range.basis[r] = BASES[basis]!;
      range.rangeLow[r] = low;
      range.rangeHigh[r] = high;
      range.low[r] = basis === 'estimate' ? point! : low;
      range.high[r] = basis === 'estimate' ? point! : high;
      range.year[r] = year ?? 0;
    }
    r++;
  }
  return range;
}

function many(
  db: Db,
  table: string,
  value: string,
  known: string | null,
  recordOf: Int32Array,
  size: number,
): ManyColumn {
  const dictionary = db
    .prepare<[], string>(`SELECT DISTINCT ${value} FROM ${table} ORDER BY 1`)
    .pluck()
    .all();
  const codeOf = new Map(dictionary.map((key, i) => [key, i]));
  const count = db.prepare<[], number>(`SELECT count(*) FROM ${table}`).pluck().get()!;
  const offsets = new Uint32Array(size + 1);
  const values = new Uint32Array(count);
  const knownBits = noBits(size);
  let at = 0;
  let last = 0;
  for (const [company, key] of db
    .prepare<[], [number, string]>(`SELECT company_id, ${value} FROM ${table} ORDER BY company_id, ${value}`)
    .raw()
    .iterate()) {
    const r = recordOf[company]!;
    while (last < r) offsets[++last] = at;
    values[at++] = codeOf.get(key)!;
    if (known === null) setBit(knownBits, r);
  }
  while (last < size) offsets[++last] = at;
  if (known !== null) {
    let r = 0;
    for (const since of valuesOf(db, known)) {
      if (since !== null) setBit(knownBits, r);
      r++;
    }
  }
  return { kind: 'many', dictionary, offsets, values, known: knownBits };
}

function codes(
  db: Db,
  trees: ReadonlyMap<Scheme, CodeTree>,
  recordOf: Int32Array,
  size: number,
): Map<Scheme, CodesColumn> {
  const columns = new Map<Scheme, CodesColumn>();
  const counts = db
    .prepare<[], { scheme: Scheme; n: number }>(
      'SELECT scheme, count(*) AS n FROM company_code GROUP BY scheme ORDER BY scheme',
    )
    .all();
  for (const { scheme, n } of counts) {
    const tree = trees.get(scheme)!;
    const offsets = new Uint32Array(size + 1);
    const nodes = new Uint16Array(n);
    const hasMain = noBits(size);
    let at = 0;
    let last = 0;
    const rows = db
      .prepare<[string], [number, string, number]>(
        'SELECT company_id, code, rank FROM company_code WHERE scheme = ? ORDER BY company_id, rank',
      )
      .raw();
    for (const [company, code, rank] of rows.iterate(scheme)) {
      const r = recordOf[company]!;
      while (last < r) offsets[++last] = at;
      nodes[at++] = tree.nodeOf(code);
      if (rank === 0) setBit(hasMain, r);
    }
    while (last < size) offsets[++last] = at;
    columns.set(scheme, { kind: 'codes', scheme, offsets, nodes, hasMain });
  }
  return columns;
}

function places(db: Db, size: number): PlaceColumn {
  const degrees = (column: string) => {
    const values = new Float64Array(size);
    let r = 0;
    for (const value of valuesOf(db, column)) values[r++] = value === null ? NaN : Number(value);
    return values;
  };
  return {
    kind: 'place',
    country: categories(db, 'country', size),
    region: categories(db, 'region', size),
    town: categories(db, `town || ', ' || COALESCE(region, country)`, size),
    lat: degrees('lat'),
    lon: degrees('lon'),
  };
}

function words(db: Db, recordOf: Int32Array, size: number): TextColumn {
  const described = noBits(size);
  let r = 0;
  for (const has of valuesOf(db, 'description IS NOT NULL')) {
    if (has) setBit(described, r);
    r++;
  }
  const match = db
    .prepare<[string], number>('SELECT rowid FROM company_words WHERE company_words MATCH ?')
    .pluck();
  return {
    kind: 'text',
    described,
    *find(term, where) {
      for (const company of match.iterate(ftsTerm(term, where))) yield recordOf[company]!;
    },
  };
}
