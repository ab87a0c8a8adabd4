import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsIn,
  IsInt,
  IsNotEmpty,
  IsNumber,
  IsOptional,
  IsString,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import type { ComparedField, Feature, Mark } from '../core/match/compare.ts';
import { PRECISION, type SureBy } from '../core/match/outcome.ts';
import type { ListView } from './lists.ts';
import { FileReadingBody } from './load-requests.ts';

/** Requests and answers about files lined up with the universe. */

export class MatchBody extends FileReadingBody {
  @IsString()
  upload!: string;

  @IsString()
  @IsNotEmpty({ message: 'name must not be empty: give the match a name' })
  @MaxLength(120)
  name!: string;

  /** What is asked of the sure ones: of a hundred, so many right. */
  @IsNumber()
  @Min(0.5)
  @Max(0.9999)
  precision = PRECISION;
}

/** How a row is settled: one of its candidates taken, none of them, or open again. */
export const SETTLED_AS = ['taken', 'none', 'open'] as const;
export type SettledAs = (typeof SETTLED_AS)[number];

export class SettleRowBody {
  @IsInt()
  @Min(1)
  row!: number;

  @IsIn(SETTLED_AS)
  as!: SettledAs;

  /** The company taken. */
  @IsOptional()
  @IsString()
  @MaxLength(200)
  key?: string;
}

const MOST_SETTLED = 20_000;

export class SettleBody {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(MOST_SETTLED)
  @ValidateNested({ each: true })
  @Type(() => SettleRowBody)
  rows!: SettleRowBody[];
}

/** A list that is made of the rows that were found, by a new name, or one that takes them on. */
export class MatchListBody {
  @IsOptional()
  @IsString()
  @IsNotEmpty({ message: 'name must not be empty' })
  @MaxLength(120)
  name?: string;

  @IsOptional()
  @IsString()
  list?: string;
}

/** What the rows of a match are put in order by. */
export const ROW_SORTS = ['row', 'name', 'state', 'certainty'] as const;
export type RowSort = (typeof ROW_SORTS)[number];

/** What becomes of a row, by the matcher or by hand. */
export const ROW_STATES = ['sure', 'settled', 'doubtful', 'none', 'twice', 'unreadable'] as const;
export type RowState = (typeof ROW_STATES)[number];

/** Which rows of a file go out. */
/** What the job is called that looks for companies that the universe has twice. */
export const DOUBLES_JOB = 'Look for doubles';

/** The header that says how many rows found a file that fills in leaves out, since their company is not there any more. */
export const LEFT_OUT = 'rows-left-out';

export const FILE_PARTS = ['all', 'found', 'left', 'fill'] as const;
export type FilePart = (typeof FILE_PARTS)[number];

export class MatchFileBody {
  @IsIn(FILE_PARTS)
  part!: FilePart;

  /** Columns of the universe that are put beside those of the file, by field. */
  @IsArray()
  @ArrayMaxSize(60)
  @IsString({ each: true })
  columns: string[] = [];
}

export interface MatchView {
  id: string;
  /** Rows of a file, or companies of the universe that may be there twice. */
  of: 'file' | 'doubles';
  name: string;
  fileName: string;
  person: string;
  madeAt: string;
  /** Asked of the sure ones. */
  precision: number;
  /** Companies of the universe it was matched against, and whether that has changed since. */
  companies: number;
  changed: boolean;
  rows: number;
  notData: number;
  /** Rows without a name, number, domain, mail address or phone. */
  unreadable: number;
  twice: number;
  /** rows less notData, unreadable and twice. */
  toMatch: number;
  sure: Record<SureBy, number>;
  settled: number;
  doubtful: number;
  none: number;
  /** The sure and the settled ones, and how many companies they are. */
  found: number;
  foundCompanies: number;
  /** Rows that came to something else when they were last matched again. */
  moved: number;
  /** The list that was made of it, if any. */
  list: string | null;
}

export interface MatchesAnswer {
  matches: MatchView[];
}

/** What one level of one feature weighs in this match, in bits; m and u as in docs/matching.md. */
export interface Weight {
  feature: Feature;
  level: string;
  m: number;
  u: number;
  bits: number;
}

/** Doubtful rows that have one candidate each, which agrees in these fields. */
export interface TakeTogether {
  fields: ComparedField[];
  rows: { row: number; key: string }[];
}

export interface MatchAnswer {
  match: MatchView;
  weights: Weight[];
  limits: { sure: number; doubtful: number };
  learning: { rows: number; pairs: number; rounds: number };
  together: TakeTogether | null;
}

export interface MatchRowView {
  row: number;
  state: RowState;
  by: SureBy | null;
  /** What the row calls itself. */
  name: string;
  place: string;
  company: { key: string; name: string; place: string } | null;
  chance: number | null;
  twiceOf: number | null;
  /** What it came to before it was last matched again, where that moved. */
  was: { state: RowState; name: string | null } | null;
}

export interface MatchRowsAnswer {
  total: number;
  rows: MatchRowView[];
}

export interface CandidateView {
  key: string;
  chance: number;
  name: string;
  group: string | null;
  fields: { field: ComparedField; value: string | null; mark: Mark }[];
  km: number | null;
  why: string;
  /** Whether the universe has no such company any more. */
  gone: boolean;
}

/** A row with its candidates, to be settled. */
export interface MatchPairAnswer {
  row: number;
  state: RowState;
  /** The company that it is taken for. */
  key: string | null;
  settledBy: string | null;
  fields: { field: ComparedField; value: string | null }[];
  /** Its other cells, by heading. */
  carried: { heading: string; value: string }[];
  candidates: CandidateView[];
  /** Doubtful rows: the place of this one among all that were not sure, and the next and last of them that is left. */
  nth: number;
  of: number;
  next: number | null;
  back: number | null;
}

export interface SettledAnswer {
  match: MatchView;
  /** How the rows stood before, by which this is taken back. */
  before: { row: number; as: SettledAs; key?: string }[];
}

export interface MatchListAnswer {
  list: ListView;
  added: number;
  of: number;
  origins: number[];
}

/** What is taken out of a company: the key under which it was joined. */
export class ApartBody {
  @IsString()
  @MaxLength(200)
  gone!: string;
}

export interface DoublesAnswer {
  /** Companies without a registration number: of the others none is there twice. */
  withoutNumber: number;
  /** How many companies were joined to others. */
  joined: number;
  /** The last search; null where there was none. */
  match: MatchView | null;
}

export interface JoinsAnswer {
  joins: { gone: string; how: SureBy | 'hand'; chance: number | null; person: string; at: string }[];
}
