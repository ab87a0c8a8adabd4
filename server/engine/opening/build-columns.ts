import type { CodeTree, Scheme } from '../../../core/codes/tree.ts';
import type { Field, Store } from '../../../core/fields/field.ts';
import { subjectOf } from '../../../core/fields/registry.ts';
import { postingsOfOne } from '../../../core/tally/postings.ts';
import { pointGrid } from '../../../core/geo/grid.ts';
import { allBits, wordsFor, type Bits } from '../../../core/tally/bits.ts';
import type {
  CategoryColumn,
  CodesColumn,
  DateColumn,
  KeyedColumn,
  ManyColumn,
  PlaceColumn,
  RangeColumn,
} from '../../../core/tally/columns.ts';
import { dateIndex, rangeIndex } from '../../../core/tally/range-index.ts';
import { addRecords } from '../../../core/tally/sorted.ts';
import { FLAG_WORDS } from '../../../core/tally/test-category.ts';
import type { Db } from '../../db/open.ts';
import {
  readCategories,
  readDates,
  readNumbers,
  readPlaces,
  readRanges,
  type CompanyReader,
  type Value,
} from './company-readers.ts';
import { ColumnCopier, type UnindexedCategory, type UnindexedPlace } from './column-copier.ts';
import { readCodes, readKeyed, readMany, type Plan } from './list-readers.ts';
import { narrowed, sharedFloat32, sharedFloat64, sharedUint32 } from './shared-arrays.ts';
import { recordsById, type StoredColumn, type StoredUniverse } from './stored-universe.ts';

/** Records brought over from the database at a time. */
const ROWS_A_READ = 2000;

/** What a build covers. */
export interface BuildPlan extends Plan {
  subject: string;
  ids: Uint32Array;
  /** The universe whose columns are taken over where nothing changed. */
  earlier: StoredUniverse | null;
}

export function planAll(db: Db, subject = 'companies'): BuildPlan {
  const { table } = subjectOf(subject);
  const { size, first, last } = db
    .prepare<[], { size: number; first: number | null; last: number | null }>(
      `SELECT count(*) AS size, min(id) AS first, max(id) AS last FROM ${table}`,
    )
    .get()!;
  const ids = sharedUint32(size);
  if (size > 0 && last! - first! + 1 === size) for (let r = 0; r < size; r++) ids[r] = first! + r;
  else ids.set(db.prepare<[], number>(`SELECT id FROM ${table} ORDER BY id`).pluck().all());
  return { subject, table, size, ids, recordOf: recordsById(ids), from: null, read: null, earlier: null };
}

/** The fields that have columns of their own: those that can be lines and are not made of others. */
export function storedFields(subject = 'companies'): Field[] {
  return subjectOf(subject).fields.filter(
    ({ openers, store, yearsSince }) =>
      openers.length > 0 && !MADE_ELSEWHERE.has(store.at) && yearsSince === undefined,
  );
}

const MADE_ELSEWHERE: ReadonlySet<Store['at']> = new Set<Store['at']>([
  'rank',
  'lists',
  'key',
  'contacts',
  'handed',
  'joined',
  'parties',
]);

/** The columns of some fields: one pass over the subject's table for all of one value a record, one over each table of lists. */
export function buildColumns(
  db: Db,
  plan: BuildPlan,
  trees: ReadonlyMap<Scheme, CodeTree>,
  fields: readonly string[],
): Map<string, StoredColumn> {
  const copy = new ColumnCopier(plan.size, plan.from);
  const columns = new Map<string, StoredColumn>();
  const readers: CompanyReader[] = [];
  const categories: [expression: string, column: UnindexedCategory][] = [];
  const known: [expression: string, set: Bits][] = [];
  /** What is made of a column's own values once they are all read. */
  const endings: (() => void)[] = [];
  for (const { id, kind, store } of storedFields(plan.subject)) {
    if (!fields.includes(id)) continue;
    const before = plan.earlier?.columns.get(id);
    switch (store.at) {
      case 'column':
        if (kind === 'date') {
          const days = copy.int32((before as DateColumn | undefined)?.days);
          readers.push(readDates(store.column, days));
          endings.push(() => columns.set(id, { kind: 'date', days, ...dateIndex(days, ARRAYS) }));
        } else if (kind === 'number') {
          const column = copy.exactNumbers(before as RangeColumn | undefined);
          readers.push(readNumbers(store.column, column));
          endings.push(() => columns.set(id, { ...column, index: rangeIndex(column, ARRAYS) }));
        } else {
          const column = copy.category(before as CategoryColumn | undefined);
          categories.push([
            kind === 'flag'
              ? `CASE ${store.column} WHEN 1 THEN '${FLAG_WORDS.yes}' WHEN 0 THEN '${FLAG_WORDS.no}' END`
              : store.column,
            column,
          ]);
          endings.push(() => columns.set(id, narrowest(column)));
        }
        break;
      case 'range': {
        const money = kind === 'money';
        const column = money
          ? copy.money(before as RangeColumn | undefined)
          : copy.range(before as RangeColumn | undefined);
        readers.push(readRanges(store.stem, column));
        endings.push(() => columns.set(id, { ...column, index: rangeIndex(column, ARRAYS) }));
        break;
      }
      case 'place': {
        const place = copy.place(before as PlaceColumn | undefined);
        readers.push(readPlaces(place));
        endings.push(() => columns.set(id, placeColumn(place)));
        break;
      }
      case 'text': {
        const column = copy.category(before as CategoryColumn | undefined);
        categories.push([`${store.column}_words`, column]);
        endings.push(() => columns.set(id, narrowest(column)));
        break;
      }
      case 'words': {
        const described = copy.bits((before as { described: Bits } | undefined)?.described);
        known.push(['description', described]);
        columns.set(id, { kind: 'text', described });
        break;
      }
      case 'many': {
        const column = readMany(db, plan, store, store.known === null, before as ManyColumn | undefined);
        if (store.known !== null) {
          column.known = copy.bits((before as ManyColumn | undefined)?.known);
          known.push([store.known, column.known]);
        }
        // Of every record it is known whether something was done to it.
        if (store.days) column.known.set(allBits(plan.size));
        columns.set(id, column);
        break;
      }
      case 'keyed':
        columns.set(id, readKeyed(db, plan, store, before as KeyedColumn | undefined));
        break;
      case 'codes':
        columns.set(id, readCodes(db, plan, trees, before as Map<Scheme, CodesColumn> | undefined));
        break;
    }
  }
  if (categories.length || known.length) readers.push(readCategories(categories, known));
  if (readers.length) readRecords(db, readers, plan);
  for (const end of endings) end();
  return columns;
}

const ARRAYS = { uint32: sharedUint32, float32: sharedFloat32, float64: sharedFloat64 };

function placeColumn(place: UnindexedPlace): PlaceColumn {
  const grid = pointGrid(place.lat, place.lon, ARRAYS);
  const located = sharedUint32(wordsFor(place.lat.length));
  addRecords(located, grid.records, 0, grid.records.length);
  return {
    ...place,
    country: narrowest(place.country),
    region: narrowest(place.region),
    town: narrowest(place.town),
    postcode: narrowest(place.postcode),
    located,
    grid,
  };
}

/** The same column without values that no company has any more, and in the narrowest array. */
function narrowest({ dictionary, values }: UnindexedCategory): CategoryColumn {
  const used = new Uint8Array(dictionary.length + 1);
  for (let r = 0; r < values.length; r++) used[values[r]!] = 1;
  const renumbered = new Uint32Array(used.length);
  for (let i = 1, next = 0; i < used.length; i++) if (used[i]) renumbered[i] = ++next;
  const left = dictionary.filter((_, i) => used[i + 1]);
  const narrow = narrowed(
    left.length < dictionary.length ? values.map((v) => renumbered[v]!) : values,
    left.length,
  );
  const postings = postingsOfOne(narrow, left.length + 1, sharedUint32);
  return { kind: 'category', dictionary: left, values: narrow, postings };
}

function readRecords(db: Db, readers: readonly CompanyReader[], plan: Plan): void {
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
  const query = `SELECT ${expressions}, id FROM ${plan.table} WHERE`;
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
