import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNotEmpty,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import type { Roll } from '../core/lists/roll.ts';
import { HAPPENINGS, type WatchedKind } from '../core/runs/happenings.ts';
import {
  CHANGE_KINDS,
  PLAN_KINDS,
  RATES,
  type ChangeKind,
  type PlanKind,
  type Rate,
} from '../core/runs/kinds.ts';
import type { Schedule } from '../core/runs/when.ts';

/** Plans and their runs, batches, watches and what one is told: requests and answers. */

export type RunCause = 'hand' | 'clock' | 'after';
export type RunState = 'waits' | 'running' | 'done' | 'failed' | 'cancelled';
export const RESULTS_INTO = ['one-list', 'list-each', 'file'] as const;

const NAME = 120;
const KEY = 200;
const PATH = 1000;
const WAYS = 12;
const MOST_FIELDS = 30;
export const MOST_CAP = 1_000_000;
/** Rows of a sheet of searches. */
export const MOST_SEARCH_ROWS = 5000;
const MOST_SHEET = 1_000_000;

/** A column of a batch whose values fill a line of each search. */
export class BatchFieldBody {
  @IsInt()
  @Min(0)
  @Max(500)
  column!: number;

  /** Opener of the line, as it is typed: "country", "headcount from", "headcount to". */
  @IsString()
  @IsNotEmpty()
  @MaxLength(NAME)
  as!: string;
}

/** What runs; which of these are needed is told by the kind of plan. */
export class TargetBody {
  @IsOptional() @IsString() @MaxLength(KEY) tape?: string;
  @IsOptional() @IsString() @MaxLength(KEY) gatherer?: string;
  @IsOptional() @IsString() @MaxLength(KEY) export?: string;
  /** Of an export made again: all of it, all with what changed, or only what is new. */
  @IsOptional() @IsIn(['plain', 'all', 'changes']) rows?: 'plain' | 'all' | 'changes';
  @IsOptional() @IsString() @MaxLength(KEY) source?: string;
  /** A file that was matched, to be matched again. */
  @IsOptional() @IsString() @MaxLength(KEY) match?: string;
  /** The file that a source is refreshed from, read anew at each run. */
  @IsOptional() @IsString() @MaxLength(PATH) path?: string;

  @IsOptional() @IsString() @MaxLength(KEY) batch?: string;
  /** The column that holds the search; for a gatherer the one with the words. */
  @IsOptional() @IsInt() @Min(0) @Max(500) search?: number;
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(MOST_FIELDS)
  @ValidateNested({ each: true })
  @Type(() => BatchFieldBody)
  fields?: BatchFieldBody[];
  /** At most so many records of each search; as many as there are where left out. */
  @IsOptional() @IsInt() @Min(1) @Max(MOST_CAP) rowsEach?: number;
  /** At most so many searches a run; the next goes on with the one after. */
  @IsOptional() @IsInt() @Min(1) @Max(MOST_SEARCH_ROWS) searchesEach?: number;
  @IsOptional() @IsIn(RESULTS_INTO) into?: (typeof RESULTS_INTO)[number];
  /** Name of the list or file; of lists each it comes before the search. */
  @IsOptional() @IsString() @MaxLength(NAME) results?: string;
}
export type Target = TargetBody;

export class ScheduleBody {
  @IsIn(['hand', 'once', 'repeats', 'after'])
  how!: 'hand' | 'once' | 'repeats' | 'after';

  /** "every Monday at 7"; left out where a pattern of cron is given. */
  @IsOptional() @IsString() @MaxLength(NAME) words?: string;
  @IsOptional() @IsString() @MaxLength(NAME) cron?: string;
  @IsOptional()
  @Matches(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/, {
    message: 'at must be a day and time such as 2026-12-01T07:00',
  })
  at?: string;
  @IsOptional() @IsString() @MaxLength(60) zone?: string;
  /** What becomes of a time that passed while the program was off. */
  @IsOptional() @IsIn(['run', 'skip']) missed?: 'run' | 'skip';
  @IsOptional() @IsString() @MaxLength(KEY) plan?: string;
  @IsOptional() @IsIn(['done', 'changed', 'any']) outcome?: 'done' | 'changed' | 'any';
}

export class TellBody {
  @IsBoolean() success!: boolean;
  @IsBoolean() failure!: boolean;
  /** Told where more than so many joined, left or moved; null where changes alone are not told. */
  @IsOptional() @IsInt() @Min(0) @Max(1e9) changes?: number | null;
  @IsIn(RATES) rate!: Rate;
  /** "bell", "mail", "feed", or the id of a webhook. */
  @IsArray() @ArrayMaxSize(WAYS) @IsString({ each: true }) @MaxLength(KEY, { each: true }) ways!: string[];
}
export type TellWish = TellBody;

export class PlanBody {
  @IsIn(PLAN_KINDS) kind!: PlanKind;
  @IsString() @IsNotEmpty() @MaxLength(NAME) name!: string;
  @IsObject() @ValidateNested() @Type(() => TargetBody) target!: TargetBody;
  @IsObject() @ValidateNested() @Type(() => ScheduleBody) schedule!: ScheduleBody;
  @IsObject() @ValidateNested() @Type(() => TellBody) tell!: TellBody;
}

export class CompareBody {
  @IsString() @MaxLength(KEY) first!: string;
  @IsString() @MaxLength(KEY) second!: string;
}

export class RunListBody {
  @IsIn(CHANGE_KINDS) what!: ChangeKind;
  @IsString() @IsNotEmpty() @MaxLength(NAME) name!: string;
}

/** A sheet of searches that was pasted: with tabs, semicolons or commas between. */
export class PastedBatchBody {
  @IsString() @IsNotEmpty() @MaxLength(MOST_SHEET) text!: string;
}

export class BatchPreviewBody {
  @IsObject() @ValidateNested() @Type(() => TargetBody) target!: TargetBody;
}

export class WatchBody {
  @IsIn(['companies', 'people', 'lists', 'tapes']) subject!: WatchSubject;
  @IsString() @IsNotEmpty() @MaxLength(KEY) key!: string;
  @IsArray() @ArrayMaxSize(HAPPENINGS.length) @IsIn(HAPPENINGS, { each: true }) kinds!: WatchedKind[];
  /** Percent beyond which growing or shrinking is told. */
  @IsOptional() @IsNumber() @Min(0) @Max(10_000) growth?: number | null;
  @IsIn(RATES) rate!: Rate;
  @IsArray() @ArrayMaxSize(WAYS) @IsString({ each: true }) @MaxLength(KEY, { each: true }) ways!: string[];
}
export type WatchSubject = 'companies' | 'people' | 'lists' | 'tapes';

export class ReadNoticesBody {
  /** Ids of notices; all where left out. */
  @IsOptional() @IsArray() @ArrayMaxSize(1000) @IsString({ each: true }) ids?: string[];
}

export class TellSettingsBody {
  /** Address that digests go to; none are sent where empty. */
  @IsString()
  @MaxLength(NAME)
  @Matches(/^$|^[^\s@<>"]+@[^\s@<>"]+$/, { message: 'mail must be an address, or empty' })
  mail!: string;
  /** Hour of the day, in the zone of this machine, at which digests go out; weekly ones on Mondays. */
  @IsInt() @Min(0) @Max(23) hour!: number;
}

export class MonthBody {
  /** The month that the scenario is to come to, such as 2026-11; the next one where left out. */
  @IsOptional()
  @Matches(/^\d{4}-\d{2}$/, { message: 'month must be a month such as 2026-11' })
  month?: string;
}

export interface RunView {
  id: string;
  plan: string;
  nth: number;
  cause: RunCause;
  state: RunState;
  message: string | null;
  dueAt: string;
  startedAt: string | null;
  endedAt: string | null;
  /** Ms. */
  took: number | null;
  carriedBy: { job?: string; export?: string; gathered?: string; list?: string } | null;
  count: number | null;
  before: number | null;
  joined: number | null;
  left: number | null;
  moved: number | null;
  comparedTo: string | null;
  subject: string | null;
  /** Day. */
  asOf: number | null;
  roll: Roll | null;
  moves: MoveFigure[];
  log: string[];
}

export interface MoveFigure {
  reason: string;
  label: string;
  count: number;
}

export interface ChangeRow {
  what: ChangeKind;
  /** What it came of: new, gone, "line <id>", "field <name>", tape, time or other. */
  reason: string;
  key: string;
  name: string;
  /** Town and country. */
  place: string | null;
  why: string;
  was: string | null;
  now: string | null;
  /** Whether the universe has it. */
  there: boolean;
}

export interface PlanView {
  key: string;
  kind: PlanKind;
  name: string;
  target: Target;
  /** What runs, in words. */
  what: string;
  schedule: Schedule;
  /** When it runs, in words. */
  when: string;
  tell: TellWish;
  person: string;
  /** The next five times. */
  next: string[];
  last: RunView | null;
  runs: number;
  /** Why it cannot run; null where it can. */
  trouble: string | null;
}

/** Something that ran, by a plan or without: a tape, a batch, a load, a match, an export, a gatherer. */
export interface PastRunView {
  id: string;
  kind: PlanKind | 'load' | 'remove' | 'match' | 'demo' | 'addresses';
  name: string;
  state: RunState;
  startedAt: string;
  took: number | null;
  /** What came of it, in words. */
  outcome: string;
  progress: { done: number; total: number | null } | null;
  /** The job that it is, where it can be cancelled. */
  job: string | null;
  /** Where its result is seen. */
  link: string | null;
}

export interface RunsAnswer {
  plans: PlanView[];
  /** What ran, the latest first. */
  past: PastRunView[];
  /** Whether the universe is the demo's, whose next month can be had. */
  month: { next: string } | null;
}

export interface PlanAnswer {
  plan: PlanView;
  runs: RunView[];
}

export interface ChangesAnswer {
  /** The run, or where two were compared what parts them. */
  run: RunView;
  changes: ChangeRow[];
  total: number;
}

export interface WhenAnswer {
  words: string;
  cron: string | null;
  next: string[];
}

export interface BatchView {
  id: string;
  fileName: string;
  header: string[];
  /** Of its rows. */
  rows: number;
  first: string[][];
  /** The row that the next run goes on with. */
  at: number;
  /** The column that looks like the search, and what the others look like. */
  guess: { search: number; fields: BatchFieldBody[] };
}

export interface BatchPreviewAnswer {
  searches: BatchSearchView[];
  /** Of all its rows. */
  ready: number;
  refused: number;
}

export interface BatchSearchView {
  row: number;
  search: string;
  state: 'ready' | 'done' | 'empty' | 'refused';
  /** The search in words, or why it is refused. */
  said: string;
  found: number | null;
  taken: number | null;
  added: number | null;
}

export interface WatchView extends WatchBody {
  id: string;
  name: string;
  growth: number | null;
  madeAt: string;
}

export interface NoticeView {
  id: string;
  at: string;
  kind: 'run' | 'failure' | 'changes' | 'watch';
  title: string;
  why: string;
  items: string[];
  link: string;
  read: boolean;
  /** Told by mail or webhook; null where it waits or is not to be. */
  toldAt: string | null;
  trouble: string | null;
}

export interface NoticesAnswer {
  notices: NoticeView[];
  unread: number;
  settings: { mail: string; hour: number };
  /** Where a reader of feeds finds them. */
  feed: string;
}
