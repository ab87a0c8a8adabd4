import type { Chart } from '../charts/chart.ts';
import type { Weights } from '../peers/parts.ts';
import type { Scheme } from '../codes/tree.ts';

/** The tape as small frozen nodes. `validateTape` makes them; nothing else does. */

export interface CodesTest {
  readonly scheme: Scheme;
  readonly any: readonly string[];
  readonly except?: readonly string[];
  readonly rank?: 'main' | 'any';
  /** Whether companies without a code of the scheme are judged by those they have in others: by sure links alone, or by possible ones too. */
  readonly kin?: 'sure' | 'possible';
}

export interface NearTest {
  readonly lat: number;
  readonly lon: number;
  /** Exactly one of the two. */
  readonly km?: number;
  readonly miles?: number;
  readonly label?: string;
}

/** A drawn area: corners as latitude and longitude in degrees, joined in order and back to the first. */
export interface AreaTest {
  readonly points: readonly (readonly [lat: number, lon: number])[];
  readonly label?: string;
}

/** A company passes if it lies in any of the named places, within the distance or in the drawn area. */
export interface PlaceTest {
  /** ISO 3166-1 alpha-2, or the key of a group of countries such as "german-speaking". */
  readonly countries?: readonly string[];
  /** Region keys, such as CZ-64. */
  readonly regions?: readonly string[];
  /** "Brno, CZ-64": name and region key, or name and country where the region is not known. */
  readonly towns?: readonly string[];
  /** Towns with their surroundings, named like towns. */
  readonly metro?: readonly string[];
  /** "602 00", "CZ 602*", "CZ 60000..61999": one, a prefix or a range, of one country or of any. */
  readonly postcodes?: readonly string[];
  readonly within?: AreaTest;
  readonly near?: NearTest;
  /** Of the head office, as where it is left out, or of any site. */
  readonly site?: 'head' | 'any';
}

/** Both ends included; an end left out is open. */
export interface NumberTest {
  readonly from?: number;
  readonly to?: number;
}

export interface MoneyTest extends NumberTest {
  readonly currency: string;
  readonly per?: 'year' | 'month';
}

export interface CategoryTest {
  readonly any?: readonly string[];
  readonly all?: readonly string[];
  /** Where days are recorded: first seen, or done, within this span back from the as-of date, or since this day (ISO). */
  readonly seen?: string;
}

/** Certain records, by key. */
export interface RecordTest {
  readonly any: readonly string[];
}

/** The companies most alike some companies, or the members of a list. */
export interface PeersTest {
  /** Exactly one of the two: keys of companies, or a list: its members judged in, or all but those out where none is yet. */
  readonly like?: readonly string[];
  readonly list?: string;
  /** How alike at least, from 0 to 1. */
  readonly from: number;
  readonly weights?: Weights;
}

export interface FlagTest {
  readonly is: boolean;
}

/** A measure by key, such as headcount in purchasing. */
export interface KeyedTest extends NumberTest {
  readonly key: string;
}

/** In percent; below zero is shrinking. */
export interface GrowthTest extends NumberTest {
  /** "headcount", "revenue" or a department. */
  readonly of: string;
  readonly over: '1y' | '3y';
}

/** Places in an order, the largest at 1. */
export interface RankTest extends NumberTest {
  readonly by: 'revenue' | 'headcount';
  readonly among: 'country' | 'industry' | 'all';
}

/** What a person says of a member of a list; nothing yet is a verdict too. */
export const VERDICTS = ['in', 'out', 'unsure', 'not-judged'] as const;
export type ListVerdict = (typeof VERDICTS)[number];

/** Members of one of some lists, each of one list that meets all that is asked of it. */
export interface ListTest {
  readonly any: readonly string[];
  /** Any where left out. */
  readonly verdict?: readonly ListVerdict[];
  /** Why they are out. */
  readonly reason?: readonly string[];
  readonly tag?: readonly string[];
  readonly assigned?: readonly string[];
  /** Put on the list, or judged, within this span back from the as-of date. */
  readonly added?: string;
  readonly judged?: string;
  /** The records behind a step of the list's roll, such as "origin-3"; those since taken off are among them. */
  readonly step?: string;
  readonly carried?: CarriedTest;
}

/** What a file that put members on a list says under one of its headings: one of `any`, `words` that all occur, or a range. */
export interface CarriedTest {
  readonly column: string;
  readonly any?: readonly string[];
  readonly words?: string;
  readonly from?: number;
  readonly to?: number;
}

/** One of: from/to (ISO dates), past ("12 months"), year (2025, "this", "last"). */
export interface DateTest {
  readonly from?: string;
  readonly to?: string;
  readonly past?: string;
  readonly year?: number | 'this' | 'last';
}

export interface TextTest {
  readonly text: string;
  readonly in?: 'name' | 'description' | 'both';
}

export type Test =
  | CodesTest
  | PlaceTest
  | NumberTest
  | MoneyTest
  | CategoryTest
  | FlagTest
  | KeyedTest
  | GrowthTest
  | RankTest
  | DateTest
  | TextTest
  | ListTest
  | RecordTest
  | PeersTest;

interface Marks {
  readonly id: string;
  readonly not?: true;
  readonly must?: true;
  readonly parked?: true;
  /** What happens to records that the line cannot decide. A keeping line drops them, a *not* line keeps them, unless this says otherwise. */
  readonly unknown?: 'keep' | 'drop';
}

export interface FieldLine extends Marks {
  readonly field: string;
  readonly test: Test;
  /** Numbers and money: whether estimates count by their point. */
  readonly estimates?: true;
  /** Values no older than this span, such as "24 months"; what is older, or of no known day, is unknown. */
  readonly fresh?: string;
}

/**
 * A small tape on related records: how many of those that hang on a record must pass it. In its own lines logic is pure
 * Kleene, unless a line says what happens to its unknowns.
 */
export interface HasLine extends Marks {
  /** A subject whose records hang on companies, or "company" from one of those. */
  readonly has: string;
  /** What the company is to the related record; any where left out. */
  readonly as?: string;
  /** How many; at least one where left out. Whole numbers. */
  readonly count?: NumberTest;
  readonly lines: readonly Line[];
}

/** A line that is one condition. */
export type Leaf = FieldLine | HasLine;

export interface EitherBlock extends Marks {
  readonly either: readonly Leaf[];
}

export type Line = Leaf | EitherBlock;

/** By a column, or by how many related records a has-line counts, as "count:l9". */
export interface SortKey {
  readonly by: string;
  readonly descending?: true;
}

export interface Tape {
  readonly format: 'just-tally.tape';
  readonly version: 1;
  readonly name?: string;
  readonly description?: string;
  readonly subject: string;
  readonly lines: readonly Line[];
  readonly sort?: readonly SortKey[];
  readonly first?: number;
  /** Charts of one's own; they count nothing out. */
  readonly charts?: readonly Chart[];
}

export function isBlock(line: Line): line is EitherBlock {
  return 'either' in line;
}

export function isHas(line: Line): line is HasLine {
  return 'has' in line;
}

/** How many related records a has-line asks for. */
export function wantedCount({ count }: Pick<HasLine, 'count'>): { from: number; to: number } {
  return count ? { from: count.from ?? 0, to: count.to ?? Infinity } : { from: 1, to: Infinity };
}

/** What a line is made of: itself, and below it branches and the lines of has-lines, at any depth. */
export function* withInner(lines: readonly Line[]): Generator<Line> {
  for (const line of lines) {
    yield line;
    if (isBlock(line)) yield* withInner(line.either);
    else if (isHas(line)) yield* withInner(line.lines);
  }
}

/** Whether records that a line cannot decide pass it. */
export function passesUnknown(line: Line): boolean {
  return line.unknown ? line.unknown === 'keep' : line.not === true;
}

/** Whether a test asks more of members than a list and a verdict. */
export function asksMore({ any: _any, verdict: _verdict, ...more }: ListTest): boolean {
  return Object.keys(more).length > 0;
}

/** The branches of a block that count; none means that the block is absent. */
export function liveBranches(block: EitherBlock): readonly Leaf[] {
  return block.either.filter((branch) => !branch.parked);
}

/** Whether a line is a block of which every branch is parked, which is as if it were not there. */
export function isAbsent(line: Line): boolean {
  return isBlock(line) && liveBranches(line).length === 0;
}

/** Whether a line narrows at all: neither parked nor absent. */
export function isLive(line: Line): boolean {
  return !line.parked && !isAbsent(line);
}

/** The column that counts the related records of a has-line. */
export const COUNT_COLUMN = 'count:';

/** The has-line that a column or sort key counts, or undefined where it is none of the tape's. */
export function countedLine(tape: Pick<Tape, 'lines'>, column: string): HasLine | undefined {
  if (!column.startsWith(COUNT_COLUMN)) return undefined;
  const id = column.slice(COUNT_COLUMN.length);
  return tape.lines
    .flatMap((line) => (isBlock(line) ? line.either : [line]))
    .find((line): line is HasLine => isHas(line) && line.id === id);
}

/** The lines of some that narrow at all. */
export function liveLines(lines: readonly Line[]): readonly Line[] {
  return lines.filter(isLive);
}

/** The tape that keeps everything. */
export function emptyTape(subject = 'companies'): Tape {
  return { format: 'just-tally.tape', version: 1, subject, lines: [] };
}
