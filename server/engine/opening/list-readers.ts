import type { CodeTree, Scheme } from '../../../core/codes/tree.ts';
import type { Bits } from '../../../core/tally/bits.ts';
import { hasBit, setBit, wordsFor } from '../../../core/tally/bits.ts';
import {
  NO_DAY,
  type CodesColumn,
  type KeyedColumn,
  type ManyColumn,
  type Postings,
} from '../../../core/tally/columns.ts';
import { orderBy } from '../../../core/tally/order.ts';
import { postingsOf } from '../../../core/tally/postings.ts';
import type { Db } from '../../db/open.ts';
import { narrowed, sharedFloat64, sharedInt32, sharedUint16, sharedUint32 } from './shared-arrays.ts';

/** Reads the tables that hold any number of values a company. */

/** Lists of small numbers, one list a record, put together record by record in ascending order. */
class Lists {
  readonly offsets: Uint32Array;
  values = new Uint32Array(1024);
  count = 0;
  private next = 0;

  constructor(size: number) {
    this.offsets = sharedUint32(size + 1);
  }

  /** Begins the list of a record; those left out have none. */
  begin(r: number): void {
    while (this.next <= r) this.offsets[this.next++] = this.count;
  }

  add(value: number): void {
    if (this.count === this.values.length) {
      const grown = new Uint32Array(this.values.length * 2);
      grown.set(this.values);
      this.values = grown;
    }
    this.values[this.count++] = value;
  }

  end(): Uint32Array {
    this.begin(this.offsets.length - 1);
    return this.values.subarray(0, this.count);
  }
}

/** The records to build, and where each is from: the record of an earlier column, or -1 where the database is to be read. */
export interface Plan {
  /** The table of the subject; tables of lists name its records by `<table>_id`. */
  table: string;
  size: number;
  /** Record of each id, or -1. */
  recordOf: Int32Array;
  /** Null where all is read from the database. */
  from: Int32Array | null;
  /** Ids of the records to read; null for all. */
  read: readonly number[] | null;
}

/** Companies whose values SQLite hands over as one text: a row each would cost several times as much. */
const COMPANIES_A_READ = 1000;

/** Calls `take` with every value of the companies to be read, by company, ascending. */
function eachValue(
  db: Db,
  plan: Plan,
  table: string,
  value: string,
  take: (r: number, text: string) => void,
  only = 'TRUE',
) {
  const id = `${plan.table}_id`;
  const text = `SELECT group_concat(${id} || ' ' || ${value}, char(31)) FROM ${table} WHERE ${only} AND ${id}`;
  const takeAll = (joined: string | null) => {
    for (const one of joined?.split('\u001f') ?? []) {
      const space = one.indexOf(' ');
      take(plan.recordOf[Number(one.slice(0, space))]!, one.slice(space + 1));
    }
  };
  if (plan.read) {
    const some = db.prepare<[string], string | null>(`${text} IN (SELECT value FROM json_each(?))`).pluck();
    const ids = [...plan.read].sort((a, b) => a - b);
    for (let at = 0; at < ids.length; at += COMPANIES_A_READ)
      takeAll(some.get(JSON.stringify(ids.slice(at, at + COMPANIES_A_READ))) ?? null);
    return;
  }
  const run = db.prepare<[number, number], string | null>(`${text} BETWEEN ? AND ?`).pluck();
  const last = plan.recordOf.length - 1;
  for (let id = 1; id <= last; id += COMPANIES_A_READ)
    takeAll(run.get(id, id + COMPANIES_A_READ - 1) ?? null);
}

/** As `eachValue`, for all records in ascending order: those taken over are handed to `keep`. */
function eachRecord(
  db: Db,
  plan: Plan,
  table: string,
  value: string,
  take: (r: number, text: string) => void,
  keep: (r: number, from: number) => void,
): void {
  if (!plan.from) {
    eachValue(db, plan, table, value, take);
    return;
  }
  const texts = new Map<number, string[]>();
  eachValue(db, plan, table, value, (r, text) => {
    const known = texts.get(r);
    if (known) known.push(text);
    else texts.set(r, [text]);
  });
  for (let r = 0; r < plan.size; r++) {
    if (plan.from[r]! >= 0) keep(r, plan.from[r]!);
    else for (const text of texts.get(r) ?? []) take(r, text);
  }
}

/** A many-valued field without its set of known records, which another pass reads unless it is `own`: then a company is known by having any. */
export function readMany(
  db: Db,
  plan: Plan,
  store: { table: string; value: string; seen?: string },
  own: boolean,
  earlier?: ManyColumn,
): ManyColumn {
  const dictionary = earlier ? [...earlier.dictionary] : [];
  const codeOf = new Map(dictionary.map((value, i) => [value, i]));
  const lists = new Lists(plan.size);
  const days: number[] = [];
  const daysBefore = earlier?.seen ? seenByRecord(earlier) : null;
  const known = new Uint32Array(new SharedArrayBuffer(4 * wordsFor(plan.size)));
  eachRecord(
    db,
    plan,
    store.table,
    // A day stands before its value, which may have spaces.
    store.seen ? `COALESCE(${store.seen}, '') || ' ' || ${store.value}` : store.value,
    (r, text) => {
      const space = store.seen ? text.indexOf(' ') : -1;
      const value = text.slice(space + 1);
      if (store.seen) days.push(space === 0 ? NO_DAY : Number(text.slice(0, space)));
      let code = codeOf.get(value);
      if (code === undefined) codeOf.set(value, (code = dictionary.push(value) - 1));
      lists.begin(r);
      lists.add(code);
      if (own) setBit(known, r);
    },
    (r, from) => {
      lists.begin(r);
      for (let i = earlier!.offsets[from]!; i < earlier!.offsets[from + 1]!; i++) {
        lists.add(earlier!.values[i]!);
        if (daysBefore) days.push(daysBefore[i]!);
      }
      if (own && earlier!.offsets[from]! < earlier!.offsets[from + 1]!) setBit(known, r);
    },
  );
  const values = narrowed(lists.end(), dictionary.length);
  const postings = postingsOf(lists.offsets, values, dictionary.length, sharedUint32);
  const seen = store.seen ? seenByPosting(lists.offsets, values, postings, days) : null;
  return { kind: 'many', dictionary, offsets: lists.offsets, values, postings, seen, known };
}

/** Days that stand beside values put beside the postings of the same values. */
function seenByPosting(
  offsets: Uint32Array,
  values: ArrayLike<number>,
  { starts, records }: Postings,
  days: ArrayLike<number>,
): Int32Array {
  const seen = sharedInt32(records.length);
  const next = starts.slice();
  for (let i = 0; i < offsets.at(-1)!; i++) seen[next[values[i]!]!++] = days[i]!;
  return seen;
}

/** The way back. */
function seenByRecord({ offsets, values, postings, seen }: ManyColumn): Int32Array {
  const days = new Int32Array(values.length);
  const next = postings.starts.slice();
  for (let i = 0; i < offsets.at(-1)!; i++) days[i] = seen![next[values[i]!]!++]!;
  return days;
}

/** Numbers by key: one measure of a table of measures. */
export function readKeyed(
  db: Db,
  plan: Plan,
  { measure, table }: { measure: string; table?: string },
  earlier?: KeyedColumn,
): KeyedColumn {
  const keys: string[] = [];
  const entries: { records: number[]; values: number[] }[] = [];
  const entriesOf = (key: string) => {
    let at = keys.indexOf(key);
    if (at < 0) {
      at = keys.push(key) - 1;
      entries.push({ records: [], values: [] });
    }
    return entries[at]!;
  };
  const add = (r: number, key: string, value: number) => {
    const { records, values } = entriesOf(key);
    records.push(r);
    values.push(value);
  };
  if (earlier && plan.from) {
    const now = new Int32Array(earlier.known.length * 32).fill(-1);
    for (let r = 0; r < plan.size; r++) if (plan.from[r]! >= 0) now[plan.from[r]!] = r;
    earlier.keys.forEach((key, k) => {
      for (let i = earlier.starts[k]!; i < earlier.starts[k + 1]!; i++) {
        const r = now[earlier.records[i]!]!;
        if (r >= 0) add(r, key, earlier.values[i]!);
      }
    });
  }
  eachValue(
    db,
    plan,
    table ?? `${plan.table}_measure`,
    `value || ' ' || key`,
    (r, text) => {
      const space = text.indexOf(' ');
      add(r, text.slice(space + 1), Number(text.slice(0, space)));
    },
    `measure = '${measure}'`,
  );
  return keyedColumn(plan.size, keys, entries);
}

function keyedColumn(
  size: number,
  keys: string[],
  entries: readonly { records: number[]; values: number[] }[],
): KeyedColumn {
  const count = entries.reduce((sum, { records }) => sum + records.length, 0);
  const starts = sharedUint32(keys.length + 1);
  const records = sharedUint32(count);
  const values = sharedFloat64(count);
  const known = sharedUint32(wordsFor(size));
  const order = [...keys.keys()].sort((a, b) => (keys[a]! < keys[b]! ? -1 : 1));
  let at = 0;
  order.forEach((k, i) => {
    const one = entries[k]!;
    for (const e of orderBy(
      [{ keys: Float64Array.from(one.values), descending: false }],
      one.values.length,
    )) {
      records[at] = one.records[e]!;
      values[at++] = one.values[e]!;
      setBit(known, one.records[e]!);
    }
    starts[i + 1] = at;
  });
  return { kind: 'keyed', keys: order.map((k) => keys[k]!), starts, records, values, known };
}

function remembered<T>(read: (text: string) => T): (text: string) => T {
  const known = new Map<string, T>();
  return (text) => {
    let value = known.get(text);
    if (value === undefined) known.set(text, (value = read(text)));
    return value;
  };
}

interface CodeLists {
  lists: Lists;
  hasMain: Bits;
  coded: Bits;
}

/** The codes of every scheme that any company is coded in. */
export function readCodes(
  db: Db,
  plan: Plan,
  trees: ReadonlyMap<Scheme, CodeTree>,
  earlier?: ReadonlyMap<Scheme, CodesColumn>,
): Map<Scheme, CodesColumn> {
  const bits = () => new Uint32Array(new SharedArrayBuffer(4 * wordsFor(plan.size)));
  const byScheme = new Map<Scheme, CodeLists>();
  const listsOf = (scheme: Scheme): CodeLists => {
    let found = byScheme.get(scheme);
    if (!found)
      byScheme.set(scheme, (found = { lists: new Lists(plan.size), hasMain: bits(), coded: bits() }));
    return found;
  };
  const read = remembered((text) => {
    const [scheme, code, rank] = text.split(' ') as [Scheme, string, string];
    return { into: listsOf(scheme), node: trees.get(scheme)!.nodeOf(code), main: rank === '0' };
  });
  const add = (into: CodeLists, r: number, node: number, main: boolean) => {
    into.lists.begin(r);
    into.lists.add(node);
    setBit(into.coded, r);
    if (main) setBit(into.hasMain, r);
  };
  eachRecord(
    db,
    plan,
    'company_code',
    `scheme || ' ' || code || ' ' || rank`,
    (r, text) => {
      const { into, node, main } = read(text);
      add(into, r, node, main);
    },
    (r, from) => {
      for (const [scheme, column] of earlier!)
        for (let i = column.offsets[from]!; i < column.offsets[from + 1]!; i++)
          add(
            listsOf(scheme),
            r,
            column.nodes[i]!,
            i === column.offsets[from] && ((column.hasMain[from >> 5]! >>> (from & 31)) & 1) === 1,
          );
    },
  );
  const columns = new Map<Scheme, CodesColumn>();
  for (const scheme of [...byScheme.keys()].sort()) {
    const { lists, hasMain, coded } = byScheme.get(scheme)!;
    const found = lists.end();
    if (found.length === 0) continue;
    const nodes = sharedUint16(found.length);
    nodes.set(found);
    const postings = postingsOf(lists.offsets, nodes, trees.get(scheme)!.size, sharedUint32);
    columns.set(scheme, {
      kind: 'codes',
      scheme,
      offsets: lists.offsets,
      nodes,
      postings,
      mainPostings: mainPostingsOf(lists.offsets, nodes, hasMain, trees.get(scheme)!.size),
      coded,
      hasMain,
    });
  }
  return columns;
}

/** The records by their main code alone. */
function mainPostingsOf(offsets: Uint32Array, nodes: Uint16Array, hasMain: Bits, treeSize: number): Postings {
  const mains = new Uint16Array(offsets.length);
  const mainOffsets = new Uint32Array(offsets.length);
  let count = 0;
  for (let r = 0; r < offsets.length - 1; r++) {
    if (hasBit(hasMain, r)) mains[count++] = nodes[offsets[r]!]!;
    mainOffsets[r + 1] = count;
  }
  return postingsOf(mainOffsets, mains, treeSize, sharedUint32);
}
