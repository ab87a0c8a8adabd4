import type { Row } from '../core/cells.ts';
import type { Kin } from '../core/codes/crosswalk.ts';
import type { FiledTogether } from '../core/codes/together.ts';
import type { Scheme } from '../core/codes/tree.ts';
import type { ColumnSet } from '../core/fields/column-sets.ts';
import type { FileColumn } from '../core/fields/field.ts';
import type { CorrectionView } from './own-values.ts';
import type { RememberedReading } from './readings.ts';
import type { Mapping } from '../core/records/mapping.ts';
import type { Changes } from '../core/records/changes.ts';
import type { CompanyRecord } from '../core/records/record.ts';
import type { Reason } from '../core/tally/columns.ts';
import type { MadeColumn } from '../core/records/made-columns.ts';
import type { LineFigures, TallyAnswer } from '../core/tally/tally.ts';
import type { Line, NumberTest, Tape } from '../core/tape/nodes.ts';
import type { Dialect } from '../core/tape/sql/compile.ts';
import type { Completion } from '../core/tape/typed/complete.ts';
import type { Wording } from '../core/tape/wording.ts';

/** Answers of the API, as both sides know them. */

/** A line in words and as it would be typed; of blocks and has-lines also what they are made of. */
export interface WordedLine {
  words: Wording;
  typed: string;
  inner?: (WordedLine & { id: string })[];
}

export interface WordedTally extends TallyAnswer {
  /** Of the tally, those that suppression lists keep off every export. */
  suppressed: number;
  lines: (LineFigures & WordedLine)[];
  /** The tape as one sentence. */
  reads: string;
  /** Grows with every change of the universe. */
  generation: number;
}

export interface RowsAnswer {
  total: number;
  rows: Row[];
}

export interface CompletionsAnswer {
  completions: (Completion & { count: number })[];
}

export interface TypedAnswer {
  lines: Line[];
}

export interface ValueCount {
  key: string;
  label: string;
  count: number;
  group?: string;
}

export interface CategoryCounts {
  total: number;
  values: ValueCount[];
  unknown: number;
}

export interface CodeCount {
  code: string;
  title: string;
  level: number;
  parent: string | null;
  count: number;
  /** Whether there are codes below it. */
  below: boolean;
  /** Searching: set where the code itself was found; the keyword that matched, or empty where the title did. */
  by?: string;
}

export interface CodesCounts {
  total: number;
  scheme: Scheme;
  schemes: { key: Scheme; label: string; used: boolean }[];
  codes: CodeCount[];
  unknown: number;
}

/** A code by itself. */
export interface CodeAnswer {
  scheme: Scheme;
  code: string;
  title: string;
  /** What the office says it covers; `from` where it is the note of an exact kin in an earlier edition. */
  note: { text: string; from: string } | null;
  kin: (Kin & { title: string })[];
  together: FiledTogether[];
}

export interface AlternativesAnswer {
  counts: number[];
}

/** Records by bars. */
export interface RangeCounts {
  total: number;
  /** The range of each bar as a line asks it; what such a line keeps, estimates counted, is its count. */
  bars: NumberTest[];
  counts: number[];
  /** Of the counts, those that rest on an estimate. */
  estimated: number[];
  /** Records whose value lies in no single bar. */
  banded: number;
  unknown: number;
  reasons: Partial<Record<Reason, number>>;
  currency?: string;
}

export interface KeyedCounts extends RangeCounts {
  values: ValueCount[];
}

export interface PlaceCounts {
  total: number;
  groups: (ValueCount & { countries: string[] })[];
  countries: ValueCount[];
  regions: ValueCount[];
  unknown: number;
}

export interface TownCounts {
  total: number;
  /** With the distance of neighbours, and the radius of metropolitan areas. */
  values: (ValueCount & { km?: number })[];
  unknown: number;
}

export interface NearCounts {
  total: number;
  /** Distances in the unit asked for. */
  radii: { radius: number; count: number }[];
  unknown: number;
}

export interface PointsAnswer {
  /** Longitude and latitude in turn. */
  points: number[];
  located: number;
}

export interface TownsAnswer {
  towns: {
    key: string;
    name: string;
    country: string;
    region: string;
    regionName: string;
    lat: number;
    lon: number;
    population: number;
  }[];
}

export interface CitiesAnswer {
  cities: { name: string; lat: number; lon: number; population: number }[];
}

/** One record of a subject below companies, with the companies it hangs on. */
export interface RecordAnswer {
  subject: string;
  row: Row;
  parties: { role: string; name: string; key: string | null }[];
  /** Of a brand, its products by year, the earliest first; null where that is not recorded, and for other subjects. */
  products: { year: number; value: number }[] | null;
  /** Names and as-of dates of the sources it is from. */
  sources: { name: string; asOf: string }[];
}

/** What putting records on a list did. */
export interface JumpAnswer {
  related: { subject: string; key: string; name: string; about: string | null }[];
  companies: { key: string; name: string; town: string | null; country: string | null }[];
  /** Whether more companies have such a name. */
  more: boolean;
  tapes: { id: string; kind: 'tape' | 'part'; name: string; tape: Tape }[];
  lists: { key: string; name: string; subject: string; members: number }[];
}

export interface PositionAnswer {
  position: { at: number; total: number; previous: string | null; next: string | null } | null;
}

/** One company with everything known of it, and what each of its records says. */
export interface ProfileAnswer {
  row: Row;
  /** For each part of a record, the id of the record it is taken from. */
  from: Partial<Record<keyof CompanyRecord, number>>;
  /** By "scheme code": the codes of other schemes that share activities with it. */
  kin: Record<string, Kin[]>;
  records: { id: number; source: string; sourceKey: string; asOf: string; record: CompanyRecord }[];
  /** What was corrected by hand, over what the records say. */
  corrections: CorrectionView[];
}

/** A set of columns of one's own. */
export interface ColumnSetView extends ColumnSet {
  /** Whether the sheet of its subject opens with it. */
  usual: boolean;
}

/** Where names of a tape's records hold some words: positions in its order, the first ones. */
export interface FoundAnswer {
  total: number;
  /** Positions of at most 1,000 of them, from the first one asked for. */
  positions: number[];
}

/** One's own note on a record; the empty text where there is none. */
export interface NoteAnswer {
  text: string;
  changedAt: string | null;
}

export interface HealthAnswer {
  /** "counting again" while the threads that count are being started anew. */
  status: 'ok' | 'counting again';
  generation: number;
  /** Grows with each load and removal. */
  revision: number;
  asOf: string;
  universe: number;
  schemes: Scheme[];
  technologies: number;
  /** Records of each subject below companies. */
  related: Record<string, number>;
  /** Whether each counting thread can answer, and how many ended by themselves since the start. */
  threads: { first: boolean; second: boolean; deaths: number };
  /** Jobs that run. */
  jobs: number;
  /** Bytes free where the data is kept; null where the system does not say. */
  diskFree: number | null;
}

/** Somebody of an address book. */
export interface Contact {
  name: string;
  mail: string | null;
  phone: string | null;
  title: string | null;
  /** The company as the address book has it. */
  organisation: string | null;
  /** Key of the company where the person was found to work. */
  company: string | null;
}

/** Address books by name of their file. */
export interface ContactsAnswer {
  books: { book: string; contacts: number; found: number }[];
}

export interface SourceView {
  key: string;
  name: string;
  fileName: string | null;
  licence: string | null;
  asOf: string;
  loadedAt: string;
  rowsRead: number;
  rowsRefused: number;
  subject: string;
  companies: number;
  countries: { country: string; companies: number }[];
  /** What the last newer version did; null where there was none. */
  refreshed: Refreshed | null;
}

/** A refresh: companies of the source before, and new, gone and now; of those that stayed, changed. */
export interface Refreshed {
  on: string;
  before: number;
  added: number;
  gone: number;
  now: number;
  changed: number;
  /** Key of the source that keeps those that are gone; null where they left. */
  keptAs: string | null;
}

/** Companies that the last refresh of a source touched in one way. */
export interface SourceChangesAnswer {
  what: 'new' | 'changed' | 'gone';
  /** `there` says whether the universe has it now. */
  changes: { key: string; name: string; there: boolean; changes: Changes }[];
}

/** A tape as SQL that selects the ids of its companies. */
export interface SqlAnswer {
  dialect: Dialect;
  /** With placeholders, and their values in order. */
  text: string;
  values: readonly (string | number)[];
  /** The same with the values written in. */
  statement: string;
}

export interface UploadAnswer {
  upload: string;
  fileName: string;
  /** What it was before it was made a table, such as gzip of JSON Lines; null where it is as it came. */
  was: string | null;
  /** Key of the source that was loaded from this very file; null where none was. */
  sameAs: string | null;
  kind: 'csv' | 'xlsx' | 'ods';
  encoding: string;
  delimiter: string;
  hasHeader: boolean;
  /** Rows of headings, and rows above them. */
  headerRows?: 0 | 1 | 2;
  skip?: number;
  /** The first of the rows above. */
  above: string[][];
  /** Of a workbook: the sheet that is read, and all of them in their order. */
  sheet?: string | null;
  sheets: { name: string; hidden: boolean }[];
  /** Bytes that are no character in the encoding. */
  undecodable: number;
  /** Headings, those of the columns that are made last. */
  header: string[];
  /** Columns that are made of the file's own. */
  made: MadeColumn[];
  rows: string[][];
  bytes: number;
  /** What the rows are taken for. */
  subject: string;
  mapping: Mapping;
  /** How files with the same headings were read before, the latest first. */
  remembered: RememberedReading[];
  columns: FileColumn[];
}

export type JobState = 'running' | 'done' | 'failed' | 'cancelled';

export interface Job {
  id: string;
  kind:
    | 'load'
    | 'read'
    | 'remove'
    | 'export'
    | 'demo'
    | 'match'
    | 'join'
    | 'addresses'
    | 'check'
    | 'correct'
    | 'titles'
    | 'websites';
  title: string;
  state: JobState;
  done: number;
  /** Null where it is not known how much there is. */
  total: number | null;
  message: string | null;
  result: Record<string, unknown> | null;
  startedAt: string;
  endedAt: string | null;
}

export interface JobAnswer {
  job: Job;
  /** Whether a file of refused rows can be had. */
  refusals: boolean;
}

export interface ErrorAnswer {
  error: {
    code: string;
    message: string;
    field?: string;
    value?: unknown;
    rule?: string;
    /** Of a clash of two writers: what is there now. */
    current?: unknown;
  };
}

export interface SavedTapeView {
  id: string;
  kind: 'tape' | 'part';
  name: string;
  description: string | null;
  tape: Tape;
  /** The tape as one sentence. */
  reads: string;
  savedAt: string;
  /** What it left when it was saved; null where it was not counted. */
  then: number | null;
  /** What it leaves now; null where it names what is no longer there, which `trouble` says. */
  now: number | null;
  trouble: string | null;
}
