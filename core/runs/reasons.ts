import { classOf } from '../stats/classes.ts';
import { isBlock, isHas, type Line } from '../tape/nodes.ts';

/** Why a record came to a tape, left it, or is on it and yet not as it was: from what is known to have changed between two runs. */

/** Something that changed of a record: a word of core/records/changes.ts, what it was and what it is; sizes as numbers, too. */
export interface Happened {
  field: string;
  was: string | null;
  now: string | null;
  wasNumber: number | null;
  nowNumber: number | null;
}

/** A line of the tape as reasons need it. */
export interface ReasonLine {
  id: string;
  words: string;
  /** Fields that it rests on, those of records that hang on the company left out. */
  fields: ReadonlySet<string>;
  /** Whether it looks through to other records. */
  looksThrough: boolean;
  /** Lists that it names. */
  lists: readonly string[];
  /** Whether it counts back from the as-of date. */
  counts: boolean;
}

/** What is known of one record between two runs. */
export interface Known {
  happened: readonly Happened[];
  /** The change of the universe that it came with, in words; null where it was there before. */
  came: string | null;
  /** Lists that it was put on or taken off, by key. */
  lists: ReadonlyMap<string, 'put on' | 'taken off'>;
  /** Lines of the tape that it does not pass now, by their place. */
  failing: readonly number[];
}

/** What the two runs differ in beside the records. */
export interface Between {
  tapeChanged: boolean;
  asOfChanged: boolean;
}

export interface Reason {
  /** new, gone, "line <id>", "field <name>", tape, time or other. */
  reason: string;
  why: string;
  was: string | null;
  now: string | null;
}

/** Fields of the registry that rest on what is told of by a word. */
const RESTS: Readonly<Record<string, readonly string[]>> = {
  name: ['name', 'words'],
  description: ['words', 'description'],
  status: ['status'],
  'legal form': ['legal-form'],
  number: ['registration'],
  town: ['place'],
  street: ['place', 'street'],
  postcode: ['place', 'postcode'],
  country: ['place'],
  phone: ['phone'],
  mail: ['mail'],
  web: ['web'],
  headcount: ['headcount', 'growth', 'rank', 'revenue-per-head', 'departments'],
  revenue: ['revenue', 'revenue-per-head', 'rank', 'growth'],
  profit: ['profit'],
  assets: ['assets'],
  codes: ['industry'],
  ownership: ['ownership', 'listing'],
  group: ['group'],
  technologies: ['technology'],
  title: ['title', 'department', 'level'],
  department: ['department'],
  level: ['level'],
  since: ['since'],
};

/** What a line rests on. @param words the line in words */
export function reasonLine(line: Line, words: string): ReasonLine {
  const fields = new Set<string>();
  const lists: string[] = [];
  let [looksThrough, counts] = [false, false];
  const visit = (one: Line) => {
    if (isBlock(one)) return one.either.forEach(visit);
    if (isHas(one)) {
      looksThrough = true;
      return;
    }
    fields.add(one.field);
    const test = one.test as { any?: readonly string[]; past?: string; year?: unknown; seen?: string };
    if (one.field === 'list') lists.push(...(test.any ?? []));
    if (test.past !== undefined || test.year !== undefined || test.seen !== undefined || one.fresh)
      counts = true;
  };
  visit(line);
  // What becomes of unknown values is no reason.
  return { id: line.id, words: words.replace(/ \(unknown \w+\)$/, ''), fields, looksThrough, lists, counts };
}

function touched(line: ReasonLine, { happened, lists }: Known): Omit<Reason, 'reason' | 'why'> | null {
  const found = happened.find(({ field }) => RESTS[field]?.some((one) => line.fields.has(one)));
  if (found) return { was: found.was, now: found.now };
  for (const list of line.lists) {
    const done = lists.get(list);
    if (done)
      return done === 'put on' ? { was: 'not on it', now: 'on it' } : { was: 'on it', now: 'not on it' };
  }
  return null;
}

const of = (line: ReasonLine, values: Omit<Reason, 'reason' | 'why'>): Reason => ({
  reason: `line ${line.id}`,
  why: line.words,
  ...values,
});

const NOTHING = { was: null, now: null };

function withoutChange(lines: readonly ReasonLine[], between: Between): Reason {
  if (between.tapeChanged) return { reason: 'tape', why: 'the tape itself was changed', ...NOTHING };
  const through = lines.find(({ looksThrough }) => looksThrough);
  if (through) return of(through, NOTHING);
  const counting = lines.find(({ counts }) => counts);
  if (counting && between.asOfChanged)
    return { reason: 'time', why: `${counting.words}: the as-of date has moved on`, ...NOTHING };
  return { reason: 'other', why: 'values that no line of its history names', ...NOTHING };
}

/** Why a record passes now that did not. */
export function whyJoined(lines: readonly ReasonLine[], known: Known, between: Between): Reason {
  if (known.came !== null) return { reason: 'new', why: `new: ${known.came}`, ...NOTHING };
  for (const line of lines) {
    const values = touched(line, known);
    if (values) return of(line, values);
  }
  return withoutChange(lines, between);
}

/** Why a record that the universe still has passes no more. */
export function whyLeft(lines: readonly ReasonLine[], known: Known, between: Between): Reason {
  const failing = known.failing.map((at) => lines[at]!);
  for (const line of failing) {
    const values = touched(line, known);
    if (values) return of(line, values);
  }
  // Known of two older runs alone, since which lines it fails now says nothing of then.
  if (failing.length === 0)
    for (const line of lines) {
      const values = touched(line, known);
      if (values) return of(line, values);
    }
  const found = withoutChange(failing.length ? failing : lines, between);
  return found.reason === 'other' && failing[0] ? of(failing[0], NOTHING) : found;
}

/** Moves are told in these words; sizes only where the class changes. */
const MOVES: Readonly<Record<string, string>> = {
  headcount: 'headcount, another class',
  revenue: 'revenue, another class',
  codes: 'industry codes',
  town: 'address',
  street: 'address',
  postcode: 'address',
  country: 'address',
  ownership: 'owner',
  group: 'owner',
  status: 'status',
  name: 'name',
  title: 'post',
  company: 'employer',
};

/** Staff by the classes of business registers, and turnover in euros by those of enterprises (Recommendation 2003/361/EC) with steps between. */
export const SIZE_CLASSES: Readonly<Record<string, readonly number[]>> = {
  headcount: [0, 2, 5, 10, 20, 50, 100, 250, 500, 1000],
  revenue: [0, 500_000, 2e6, 5e6, 1e7, 2e7, 5e7, 1e8, 5e8],
};

/** How a record that passes as it did has moved, one reason for each way; empty where it has not. */
export function moves(happened: readonly Happened[]): Reason[] {
  const found = new Map<string, Reason>();
  for (const { field, was, now, wasNumber, nowNumber } of happened) {
    const label = MOVES[field];
    if (label === undefined || found.has(label)) continue;
    const classes = SIZE_CLASSES[field];
    if (classes) {
      if (wasNumber === null || nowNumber === null) continue;
      if (classOf(classes, wasNumber) === classOf(classes, nowNumber)) continue;
    }
    found.set(label, { reason: `field ${label}`, why: label, was, now });
  }
  return [...found.values()];
}

/** The changes of a record one after another as one each: what it was first and is last; those that came to nothing left out. */
export function together(happened: readonly Happened[]): Happened[] {
  const found = new Map<string, Happened>();
  for (const one of happened) {
    const before = found.get(one.field);
    found.set(one.field, before ? { ...one, was: before.was, wasNumber: before.wasNumber } : one);
  }
  // Who is gone had perhaps no value that could be told, and is gone all the same.
  return [...found.values()].filter(({ field, was, now }) => field === 'gone' || was !== now);
}
