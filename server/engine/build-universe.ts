import type { CodeTree, Scheme } from '../../core/codes/tree.ts';
import { SUBJECTS } from '../../core/fields/registry.ts';
import { noBits, setBit, type Bits } from '../../core/tally/bits.ts';
import type { CodesColumn, Column, ManyColumn, TextColumn, Universe } from '../../core/tally/columns.ts';
import { ftsTerm } from '../../core/tape/words-query.ts';
import type { Db } from '../db/open.ts';
import {
  readCategories,
  readDates,
  readKnown,
  readNumbers,
  readPlaces,
  readRanges,
  type CompanyReader,
} from './company-readers.ts';

/** The companies of a database as columns, and the way between record numbers and company ids. */
export interface Built {
  universe: Universe;
  /** Company id of each record, ascending. */
  ids: Uint32Array;
  /** Record of each company id, or -1. */
  recordOf: Int32Array;
}

/** Builds the columns of all companies: one pass over `company`, and one over each table of many values. */
export function buildUniverse(db: Db, trees: ReadonlyMap<Scheme, CodeTree>): Built {
  const ids = Uint32Array.from(db.prepare<[], number>('SELECT id FROM company ORDER BY id').pluck().all());
  const size = ids.length;
  const recordOf = new Int32Array((ids.at(-1) ?? 0) + 1).fill(-1);
  ids.forEach((id, r) => (recordOf[id] = r));

  const columns = new Map<string, Column>();
  const readers: CompanyReader[] = [];
  const read = <C extends Column | Bits>(reader: CompanyReader<C>): C => {
    readers.push(reader);
    return reader.column;
  };
  for (const field of SUBJECTS.get('companies')!.fields) {
    if (field.openers.length === 0) continue;
    const { store } = field;
    switch (store.at) {
      case 'column': {
        const reader =
          field.kind === 'date' ? readDates : field.kind === 'number' ? readNumbers : readCategories;
        columns.set(field.id, read<Column>(reader(store.column, size)));
        break;
      }
      case 'range':
        columns.set(field.id, read(readRanges(store.stem, field.kind === 'money', size)));
        break;
      case 'many': {
        const known = store.known === null ? noBits(size) : read(readKnown(store.known, size));
        columns.set(
          field.id,
          many(db, store.table, store.value, known, store.known === null, recordOf, size),
        );
        break;
      }
      case 'codes':
        columns.set(field.id, codes(db, trees, recordOf, size));
        break;
      case 'place':
        columns.set(field.id, read(readPlaces(size)));
        break;
      case 'words':
        columns.set(field.id, words(db, read(readKnown('description', size)), recordOf));
        break;
    }
  }
  readCompanies(db, readers);
  return { universe: { size, columns }, ids, recordOf };
}

function readCompanies(db: Db, readers: readonly CompanyReader[]): void {
  const expressions = readers.flatMap((reader) => reader.expressions);
  const starts: number[] = [];
  let next = 0;
  for (const reader of readers) {
    starts.push(next);
    next += reader.expressions.length;
  }
  const rows = db
    .prepare<[], (string | number | null)[]>(`SELECT ${expressions.join(', ')} FROM company ORDER BY id`)
    .raw();
  let r = 0;
  for (const row of rows.iterate()) {
    for (let i = 0; i < readers.length; i++) readers[i]!.take(r, row, starts[i]!);
    r++;
  }
}

/** Any number of values a company. Where `ownKnown`, a company is known by having any. */
function many(
  db: Db,
  table: string,
  value: string,
  known: Bits,
  ownKnown: boolean,
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
  let at = 0;
  let last = 0;
  const rows = db.prepare<[], [number, string]>(
    `SELECT company_id, ${value} FROM ${table} ORDER BY company_id, ${value}`,
  );
  for (const [company, key] of rows.raw().iterate()) {
    const r = recordOf[company]!;
    while (last < r) offsets[++last] = at;
    values[at++] = codeOf.get(key)!;
    if (ownKnown) setBit(known, r);
  }
  while (last < size) offsets[++last] = at;
  return { kind: 'many', dictionary, offsets, values, known };
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
    const rows = db.prepare<[string], [number, string, number]>(
      'SELECT company_id, code, rank FROM company_code WHERE scheme = ? ORDER BY company_id, rank',
    );
    for (const [company, code, rank] of rows.raw().iterate(scheme)) {
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

function words(db: Db, described: Bits, recordOf: Int32Array): TextColumn {
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
