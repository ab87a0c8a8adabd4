import type { CodeTree, Scheme } from '../../core/codes/tree.ts';
import type { Field } from '../../core/fields/field.ts';
import { SUBJECTS } from '../../core/fields/registry.ts';
import { pointGrid } from '../../core/geo/grid.ts';
import { wordsFor, type Bits } from '../../core/tally/bits.ts';
import type {
  CategoryColumn,
  CodesColumn,
  DateColumn,
  ManyColumn,
  PlaceColumn,
  RangeColumn,
} from '../../core/tally/columns.ts';
import type { Db } from '../db/open.ts';
import { revisionOf } from '../tables/revision.ts';
import {
  readCategories,
  readDates,
  readNumbers,
  readPlaces,
  readRanges,
  type CompanyReader,
  type Value,
} from './company-readers.ts';
import { readCodes, readMany, type Plan } from './list-readers.ts';
import {
  narrowed,
  sharedFloat64,
  sharedInt32,
  sharedUint16,
  sharedUint32,
  sharedUint8,
} from './shared-arrays.ts';
import { recordsById, type StoredColumn, type StoredUniverse } from './stored-universe.ts';

/** Companies brought over from the database at a time. */
const ROWS_A_READ = 2000;

/** All companies as columns, read from the database. */
export function buildUniverse(
  db: Db,
  trees: ReadonlyMap<Scheme, CodeTree>,
  plan: BuildPlan = planAll(db),
): StoredUniverse {
  return assembled(
    db,
    plan,
    buildColumns(
      db,
      plan,
      trees,
      lineFields().map((field) => field.id),
    ),
  );
}

export function assembled(db: Db, plan: BuildPlan, columns: Map<string, StoredColumn>): StoredUniverse {
  return { ...revisionOf(db), size: plan.size, ids: plan.ids, columns };
}

/** What a build covers. */
export interface BuildPlan extends Plan {
  ids: Uint32Array;
  /** The universe whose columns are taken over where nothing changed. */
  earlier: StoredUniverse | null;
}

export function planAll(db: Db): BuildPlan {
  const { size, first, last } = db
    .prepare<[], { size: number; first: number | null; last: number | null }>(
      'SELECT count(*) AS size, min(id) AS first, max(id) AS last FROM company',
    )
    .get()!;
  const ids = sharedUint32(size);
  if (size > 0 && last! - first! + 1 === size) for (let r = 0; r < size; r++) ids[r] = first! + r;
  else ids.set(db.prepare<[], number>('SELECT id FROM company ORDER BY id').pluck().all());
  return { size, ids, recordOf: recordsById(ids), from: null, read: null, earlier: null };
}

/** The fields that can be lines; these have columns. */
export function lineFields(): Field[] {
  return SUBJECTS.get('companies')!.fields.filter((field) => field.openers.length > 0);
}

/** The columns of some fields: one pass over `company` for all of one value a company, one over each table of lists. */
export function buildColumns(
  db: Db,
  plan: BuildPlan,
  trees: ReadonlyMap<Scheme, CodeTree>,
  fields: readonly string[],
): Map<string, StoredColumn> {
  const copy = new Copier(plan);
  const columns = new Map<string, StoredColumn>();
  const readers: CompanyReader[] = [];
  const categories: [expression: string, column: CategoryColumn][] = [];
  const known: [expression: string, set: Bits][] = [];
  let place: PlaceColumn | null = null;
  for (const field of lineFields()) {
    if (!fields.includes(field.id)) continue;
    const { store } = field;
    const before = plan.earlier?.columns.get(field.id);
    switch (store.at) {
      case 'column':
        if (field.kind === 'date') {
          const column: DateColumn = { kind: 'date', days: copy.int32((before as DateColumn)?.days) };
          readers.push(readDates(store.column, column));
          columns.set(field.id, column);
        } else if (field.kind === 'number') {
          const column = copy.exactNumbers(before as RangeColumn | undefined);
          readers.push(readNumbers(store.column, column));
          columns.set(field.id, column);
        } else {
          const column = copy.category(before as CategoryColumn | undefined);
          categories.push([store.column, column]);
          columns.set(field.id, column);
        }
        break;
      case 'range': {
        const column = copy.range(before as RangeColumn | undefined);
        readers.push(readRanges(store.stem, field.kind === 'money', column));
        columns.set(field.id, column);
        break;
      }
      case 'place':
        place = copy.place(before as PlaceColumn | undefined);
        readers.push(readPlaces(place));
        columns.set(field.id, place);
        break;
      case 'words': {
        const described = copy.bits((before as { described: Bits } | undefined)?.described);
        known.push(['description', described]);
        columns.set(field.id, { kind: 'text', described });
        break;
      }
      case 'many': {
        const column = readMany(db, plan, store, store.known === null, before as ManyColumn | undefined);
        if (store.known !== null) {
          column.known = copy.bits((before as ManyColumn | undefined)?.known);
          known.push([store.known, column.known]);
        }
        columns.set(field.id, column);
        break;
      }
      case 'codes':
        columns.set(field.id, readCodes(db, plan, trees, before as Map<Scheme, CodesColumn> | undefined));
        break;
    }
  }
  if (categories.length || known.length) readers.push(readCategories(categories, known));
  if (readers.length) readCompanies(db, readers, plan);
  for (const [, column] of categories) narrow(column);
  if (place) {
    for (const column of [place.country, place.region, place.town]) narrow(column);
    place.grid = pointGrid(place.lat, place.lon, sharedUint32);
  }
  return columns;
}

/** Leaves out values that no company has any more, and keeps the rest in the narrowest array. */
function narrow(column: CategoryColumn): void {
  const wide = column.values as Uint32Array;
  const used = new Uint8Array(column.dictionary.length + 1);
  for (let r = 0; r < wide.length; r++) used[wide[r]!] = 1;
  const renumbered = new Uint32Array(used.length);
  const dictionary = column.dictionary.filter((_, i) => used[i + 1]);
  for (let i = 1, next = 0; i < used.length; i++) if (used[i]) renumbered[i] = ++next;
  if (dictionary.length < column.dictionary.length) {
    for (let r = 0; r < wide.length; r++) wide[r] = renumbered[wide[r]!]!;
    column.dictionary = dictionary;
  }
  column.values = narrowed(wide, dictionary.length);
}

function readCompanies(db: Db, readers: readonly CompanyReader[], plan: Plan): void {
  const starts: number[] = [];
  let next = 0;
  for (const reader of readers) {
    starts.push(next);
    next += reader.expressions.length;
  }
  const expressions = readers.flatMap((reader) => reader.expressions).join(', ');
  const take = (r: number, row: Value[]) => {
    for (let i = 0; i < readers.length; i++) readers[i]!.take(r, row, starts[i]!);
  };
  const query = `SELECT ${expressions}, id FROM company WHERE`;
  if (plan.read) {
    const some = db.prepare<[string], Value[]>(`${query} id IN (SELECT value FROM json_each(?))`).raw();
    for (let at = 0; at < plan.read.length; at += ROWS_A_READ)
      for (const row of some.all(JSON.stringify(plan.read.slice(at, at + ROWS_A_READ))))
        take(plan.recordOf[row[next] as number]!, row);
    return;
  }
  const following = db.prepare<[number], Value[]>(`${query} id > ? ORDER BY id LIMIT ${ROWS_A_READ}`).raw();
  for (let r = 0, last = -1; r < plan.size;) {
    const rows = following.all(last);
    for (const row of rows) take(r++, row);
    last = rows.at(-1)![next] as number;
  }
}

/** Fresh arrays for columns, filled with what an earlier universe had of the same companies. */
class Copier {
  private readonly size: number;
  private readonly from: Int32Array | null;

  constructor(plan: BuildPlan) {
    this.size = plan.size;
    this.from = plan.from;
  }

  private filled<T extends { length: number; [r: number]: number }>(
    target: T,
    before: ArrayLike<number> | undefined,
  ): T {
    if (this.from && before)
      for (let r = 0; r < this.size; r++) if (this.from[r]! >= 0) target[r] = before[this.from[r]!]!;
    return target;
  }

  int32(before?: Int32Array): Int32Array {
    return this.filled(sharedInt32(this.size), before);
  }

  float64(before?: Float64Array): Float64Array {
    return this.filled(sharedFloat64(this.size), before);
  }

  bits(before?: Bits): Bits {
    const bits = sharedUint32(wordsFor(this.size));
    if (this.from && before)
      for (let r = 0; r < this.size; r++) {
        const from = this.from[r]!;
        if (from >= 0 && (before[from >> 5]! >>> (from & 31)) & 1) bits[r >> 5]! |= 1 << (r & 31);
      }
    return bits;
  }

  /** Wide until all values are known. */
  category(before?: CategoryColumn): CategoryColumn {
    return {
      kind: 'category',
      dictionary: before ? [...before.dictionary] : [],
      values: this.filled(new Uint32Array(this.size), before?.values),
    };
  }

  range(before?: RangeColumn): RangeColumn {
    return {
      ...this.exactNumbers(before),
      rangeLow: this.float64(before?.rangeLow),
      rangeHigh: this.float64(before?.rangeHigh),
    };
  }

  /** Without ranges of their own, which only estimates have. */
  exactNumbers(before?: RangeColumn): RangeColumn {
    const low = this.float64(before?.low);
    const high = this.float64(before?.high);
    return {
      kind: 'range',
      low,
      high,
      rangeLow: low,
      rangeHigh: high,
      basis: this.filled(sharedUint8(this.size), before?.basis),
      why: this.filled(sharedUint8(this.size), before?.why),
      year: this.filled(sharedUint16(this.size), before?.year),
    };
  }

  place(before?: PlaceColumn): PlaceColumn {
    const none = new Uint32Array(0);
    return {
      kind: 'place',
      country: this.category(before?.country),
      region: this.category(before?.region),
      town: this.category(before?.town),
      lat: this.float64(before?.lat),
      lon: this.float64(before?.lon),
      grid: { starts: none, records: none },
    };
  }
}
