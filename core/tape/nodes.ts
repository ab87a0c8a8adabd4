import type { Scheme } from '../codes/tree.ts';

/** The tape as small frozen nodes. `validateTape` makes them; nothing else does. */

export interface CodesTest {
  readonly scheme: Scheme;
  readonly any: readonly string[];
  readonly except?: readonly string[];
  readonly rank?: 'main' | 'any';
}

export interface NearTest {
  readonly lat: number;
  readonly lon: number;
  /** Exactly one of the two. */
  readonly km?: number;
  readonly miles?: number;
  readonly label?: string;
}

/** A company passes if it lies in any of the named places or within the distance. */
export interface PlaceTest {
  /** ISO 3166-1 alpha-2. */
  readonly countries?: readonly string[];
  /** Region keys, such as CZ-64. */
  readonly regions?: readonly string[];
  /** "Brno, CZ-64": name and region key, or name and country where the region is not known. */
  readonly towns?: readonly string[];
  readonly near?: NearTest;
  readonly site?: 'head';
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

export type Test = CodesTest | PlaceTest | NumberTest | MoneyTest | CategoryTest | DateTest | TextTest;

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
}

export interface EitherBlock extends Marks {
  readonly either: readonly FieldLine[];
}

export type Line = FieldLine | EitherBlock;

export interface SortKey {
  readonly by: string;
  readonly descending?: true;
}

export interface Tape {
  readonly format: 'just-tally.tape';
  readonly version: 1;
  readonly name?: string;
  readonly subject: string;
  readonly lines: readonly Line[];
  readonly sort?: readonly SortKey[];
  readonly first?: number;
}

export function isBlock(line: Line): line is EitherBlock {
  return 'either' in line;
}

/** Whether records that a line cannot decide pass it. */
export function passesUnknown(line: Line): boolean {
  return line.unknown ? line.unknown === 'keep' : line.not === true;
}

/** The branches of a block that count; none means that the block is absent. */
export function liveBranches(block: EitherBlock): readonly FieldLine[] {
  return block.either.filter((branch) => !branch.parked);
}

/** Whether a line narrows at all: not parked and, for a block, not all branches parked. */
export function isLive(line: Line): boolean {
  return !line.parked && (!isBlock(line) || liveBranches(line).length > 0);
}

/** The tape that keeps everything. */
export function emptyTape(subject = 'companies'): Tape {
  return { format: 'just-tally.tape', version: 1, subject, lines: [] };
}
