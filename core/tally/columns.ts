import type { Scheme } from '../codes/tree.ts';
import type { PointGrid } from '../geo/grid.ts';
import type { ListTest } from '../tape/nodes.ts';
import type { Bits } from './bits.ts';
import type { Hanging, Links } from './links.ts';

/** Small whole numbers, in the narrowest array that holds them. */
export type SmallNumbers = Uint8Array | Uint16Array | Uint32Array;

/** One value of a fixed few per record: 0 is unknown, n is `dictionary[n - 1]`. */
export interface CategoryColumn {
  kind: 'category';
  dictionary: string[];
  values: SmallNumbers;
  /** By value, the unknown ones at 0. */
  postings: Postings;
}

/** The same values the other way round: the records of value v are `records[starts[v] … starts[v + 1]]`, ascending. */
export interface Postings {
  starts: Uint32Array;
  records: Uint32Array;
}

/** Any number of values per record: those of record r are `values[offsets[r] … offsets[r + 1]]`, indexes of `dictionary`. */
export interface ManyColumn {
  kind: 'many';
  dictionary: string[];
  offsets: Uint32Array;
  values: SmallNumbers;
  postings: Postings;
  /** Days on which values were first seen, beside `postings.records`; NO_DAY where that is not recorded. Null for fields without days. */
  seen: Int32Array | null;
  /** Records of which anything was ever recorded. */
  known: Bits;
}

/**
 * Numbers by key: those of key k are `values[starts[k] … starts[k + 1]]`, ascending, with their records beside
 * them. What a key that a record does not have means is the field's to say.
 */
export interface KeyedColumn {
  kind: 'keyed';
  keys: string[];
  starts: Uint32Array;
  records: Uint32Array;
  values: Float64Array;
  /** Records with any key. */
  known: Bits;
}

/** The members of a list that the universe has, ascending, each with its verdict as a place of VERDICTS. */
export interface Members {
  records: Uint32Array;
  verdicts: Uint8Array;
}

/** The lists of the workspace; no record is ever unknown to them. */
/** A cell that a file carried along with a member. */
export interface Said {
  record: number;
  /** As the file has it, and as it is compared. */
  text: string;
  folded: string;
  /** Null where the heading is none of numbers. */
  number: number | null;
}

export interface ListColumn {
  kind: 'list';
  lists: ReadonlyMap<string, Members>;
  /** The members that meet, and those that may meet, a test which asks more than a verdict; looked up outside the core. */
  find(test: ListTest): { yes: Bits; unknown: Bits };
  /** What files say under a heading of the members that meet a test; looked up outside the core. */
  said(test: ListTest, heading: string): Said[];
}

/** The address book of the workspace, which knows of every company whether it is in there. */
export interface KnownColumn {
  kind: 'known';
  known: Bits;
}

/** The keys of records, looked up outside the core. */
export interface KeyColumn {
  kind: 'key';
  /** The record of a key, or undefined where there is none. */
  find(key: string): number | undefined;
}

/** What a number rests on. */
export const enum Basis {
  Unknown = 0,
  Reported = 1,
  Band = 2,
  Estimate = 3,
}

/** Why a value is unknown, in the order of the codes in a column's `why`. */
export const REASONS = [
  'not collected',
  'withheld',
  'too old',
  'too coarse',
  'not applicable',
  'no exchange rate',
] as const;
export type Reason = (typeof REASONS)[number];

/**
 * Numbers that may be exact (low = high), banded (low to high, either may be infinite) or estimated.
 * `low` and `high` decide; for an estimate both are its point, and its range is `rangeLow` to `rangeHigh`.
 * Money stands in the currency it came in; `core/tally/amounts.ts` reads it in another.
 */
export interface RangeColumn {
  kind: 'range';
  low: Float64Array;
  high: Float64Array;
  rangeLow: Float64Array;
  rangeHigh: Float64Array;
  basis: Uint8Array;
  /** Index into REASONS where the basis is unknown. */
  why: Uint8Array;
  /** Calendar year of the value; 0 where it has none. Only money compares by it. */
  year: Uint16Array;
  /** Money: the currency of each value, an index of `currencies`. Null for plain numbers. */
  currency: Uint8Array | null;
  currencies: string[];
  index: RangeIndex;
}

/**
 * A number column the other way round, so that a test on it touches what it keeps and not every
 * record: single values sorted, bands by their ends, and unknowns by reason. Comparing record by
 * record would guess wrong at every other branch, which costs more than all the rest.
 */
export interface RangeIndex {
  /**
   * Stretches of `values` and `records`, each of one basis and, for money, one currency and year; values ascend within.
   * `members` are all its records, null where they are few.
   */
  runs: {
    basis: Basis;
    currency: number;
    year: number;
    start: number;
    end: number;
    members: Bits | null;
  }[];
  values: Float64Array;
  records: Uint32Array;
  /** The ranges of estimates, whose runs come last: the first is that of position `firstEstimate`. */
  firstEstimate: number;
  rangeLow: Float64Array;
  rangeHigh: Float64Array;
  /** Records of one band each, as stretches of `bandRecords`. */
  bands: { currency: number; year: number; low: number; high: number; start: number; end: number }[];
  bandRecords: Uint32Array;
  /** Records without a value, and by the order of REASONS those unknown for each; null where none is. */
  unknown: Bits;
  reasons: (Bits | null)[];
  /** Records that rest on an estimate. */
  estimated: Bits;
}

/** Days since 1970-01-01, or NO_DAY. */
export interface DateColumn {
  kind: 'date';
  days: Int32Array;
  /** Records with a day, by day. */
  records: Uint32Array;
  /** Records without one. */
  undated: Bits;
}
export const NO_DAY = -0x80000000;

/** Codes of one scheme: nodes of record r are `nodes[offsets[r] … offsets[r + 1]]`, the main one first where `hasMain` says so. */
export interface CodesColumn {
  kind: 'codes';
  scheme: Scheme;
  offsets: Uint32Array;
  nodes: Uint16Array;
  /** By node; those of main codes alone beside all. */
  postings: Postings;
  mainPostings: Postings;
  /** Records with any code of the scheme. */
  coded: Bits;
  hasMain: Bits;
}

export interface PlaceColumn {
  kind: 'place';
  country: CategoryColumn;
  region: CategoryColumn;
  /** "Brno, CZ-64". */
  town: CategoryColumn;
  /** "CZ 60200": country and plain postcode; " 60200" where the country is not known. */
  postcode: CategoryColumn;
  /** Degrees; NaN where unknown. */
  lat: Float64Array;
  lon: Float64Array;
  /** Records with both. */
  located: Bits;
  grid: PointGrid;
}

/** Texts are searched outside the core, in an index on disk. */
export interface TextColumn {
  kind: 'text';
  /** Records with a description. A name every record has. */
  described: Bits;
  /** The records that hold a term, in any order. */
  find(term: { words: string[]; prefix: boolean }, where: 'name' | 'description' | 'both'): Uint32Array;
}

export type Column =
  | CategoryColumn
  | ManyColumn
  | KeyedColumn
  | ListColumn
  | KnownColumn
  | RangeColumn
  | DateColumn
  | PlaceColumn
  | TextColumn
  | KeyColumn
  | Map<Scheme, CodesColumn>;

/** What has-lines of one subject see of another. */
export interface Relation {
  /** Subject of the related records. */
  subject: string;
  related: Universe;
  /** True from companies to what hangs on them, false the other way. */
  down: boolean;
  /** By role; any role under "". */
  links: ReadonlyMap<string, Links>;
  /** The same from companies down, by role; only where it looks down. */
  hanging: ReadonlyMap<string, Hanging>;
  /** The companies for which some source covers the subject; null looking up, where a record knows what it hangs on. */
  known: Bits | null;
}

/** All records of one subject, as columns by field id. */
export interface Universe {
  size: number;
  columns: ReadonlyMap<string, Column>;
  /** By the name that has-lines say. */
  relations?: ReadonlyMap<string, Relation>;
}
