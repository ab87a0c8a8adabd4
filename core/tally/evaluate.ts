import type { Scheme } from '../codes/tree.ts';
import { isoOf, parseSpan, sinceDay, spanStart, yearOf } from '../dates.ts';
import type { Field } from '../fields/field.ts';
import { fieldOf } from '../fields/registry.ts';
import { growthKey } from '../records/growth.ts';
import type { Lookup } from '../tape/lookup.ts';
import { asksMore, VERDICTS } from '../tape/nodes.ts';
import { addMembers } from './members.ts';
import type {
  CategoryTest,
  CodesTest,
  DateTest,
  FieldLine,
  FlagTest,
  KeyedTest,
  ListTest,
  MoneyTest,
  NumberTest,
  PeersTest,
  PlaceTest,
  RankTest,
  RecordTest,
  Test,
  TextTest,
} from '../tape/nodes.ts';
import { addBits, allBits, dropBits, keepBits, noBits, notBits, setBit, type Bits } from './bits.ts';
import type {
  CategoryColumn,
  CodesColumn,
  Column,
  DateColumn,
  KeyColumn,
  KeyedColumn,
  KnownColumn,
  ListColumn,
  ManyColumn,
  PlaceColumn,
  RangeColumn,
  TextColumn,
  Universe,
} from './columns.ts';
import { FLAG_WORDS, testCategory, testMany } from './test-category.ts';
import { testCodes, testWithKin } from './test-codes.ts';
import { testDate } from './test-date.ts';
import { testKeyed } from './test-keyed.ts';
import { testPlace } from './test-place.ts';
import { testRange } from './test-range.ts';
import { testRank } from './test-rank.ts';
import { testText } from './test-text.ts';
import type { Verdict } from './verdict.ts';

/** What a line's test, without its *not* and its policy, says of every record. */
export function evaluate(universe: Universe, subject: string, line: FieldLine, lookup: Lookup): Verdict {
  const field = fieldOf(subject, line.field)!;
  const verdict = test(universe, field, line, lookup);
  return line.fresh
    ? freshOnly(verdict, freshRecords(universe, field, line.fresh, lookup.asOf), universe.size)
    : verdict;
}

/** The column that a field is tested on. */
export function columnOf(universe: Universe, field: Field): Column {
  const column = universe.columns.get(field.yearsSince ?? field.id);
  if (!column) throw new Error(`The universe has no column for ${field.id}.`);
  return column;
}

function test(universe: Universe, field: Field, line: FieldLine, lookup: Lookup): Verdict {
  const { size } = universe;
  const estimates = line.estimates === true;
  if (field.kind === 'peers') {
    const { yes, unknown } = lookup.peers(line.test as PeersTest);
    return { yes, unknown };
  }
  if (field.kind === 'rank') return testRank(universe, line.test as RankTest, estimates, lookup.codes);
  const column = columnOf(universe, field);
  switch (field.kind) {
    case 'codes':
      return codes(column as Map<Scheme, CodesColumn>, line.test as CodesTest, lookup, size);
    case 'place':
      return testPlace(column as PlaceColumn, line.test as PlaceTest, lookup, size);
    case 'number':
      return testRange(
        column as RangeColumn,
        ownTest(field, line.test as NumberTest, lookup),
        estimates,
        size,
      );
    case 'money':
      return testRange(column as RangeColumn, line.test as MoneyTest, estimates, size);
    case 'category': {
      const wanted = line.test as CategoryTest;
      if ((column as ManyColumn | CategoryColumn).kind === 'category')
        return testCategory(column as CategoryColumn, wanted, size);
      const since = wanted.seen === undefined ? null : sinceDay(lookup.asOf, wanted.seen);
      return testMany(column as ManyColumn, wanted, groupsOf(lookup, field), size, since);
    }
    case 'flag': {
      // The address book knows of every company whether it is in there.
      if ((column as KnownColumn).kind === 'known')
        return testContacts(column as KnownColumn, line.test as FlagTest, size);
      const { is } = line.test as FlagTest;
      return testCategory(column as CategoryColumn, { any: [is ? FLAG_WORDS.yes : FLAG_WORDS.no] }, size);
    }
    case 'keyed':
    case 'growth': {
      const { absent } = field.store as { absent: 0 | null };
      return testKeyed(column as KeyedColumn, keyOf(line.test), line.test as NumberTest, absent, size);
    }
    case 'list':
      return testList(column as ListColumn, line.test as ListTest, size);
    case 'date':
      return testDate(column as DateColumn, line.test as DateTest, lookup.asOf, size);
    case 'record': {
      const yes = noBits(size);
      for (const key of (line.test as RecordTest).any) {
        const found = (column as KeyColumn).find(key);
        if (found !== undefined) setBit(yes, found);
      }
      return { yes, unknown: noBits(size) };
    }
    case 'text':
      return testText(column as TextColumn, line.test as TextTest, size);
    case 'label':
      throw new Error(`${field.id} cannot be a line.`);
  }
}

/** The key of a measure that a test is on: of growth, what grew and over which span. */
export function keyOf(test: Test): string {
  return 'over' in test ? growthKey(test.of, test.over) : (test as KeyedTest).key;
}

/** A test on years passed as the test on the calendar year they are counted from; other tests as they are. */
export function ownTest(field: Field, test: NumberTest, { asOf }: Pick<Lookup, 'asOf'>): NumberTest {
  if (!field.yearsSince) return test;
  const now = yearOf(asOf);
  return {
    ...(test.to === undefined ? {} : { from: now - test.to }),
    ...(test.from === undefined ? {} : { to: now - test.from }),
  };
}

/** A range of a number or money field as it is tested on its column. */
export function barTest(
  field: Field,
  range: NumberTest,
  currency: string,
  lookup: Pick<Lookup, 'asOf'>,
): NumberTest | MoneyTest {
  return field.kind === 'money' ? { ...range, currency } : ownTest(field, range, lookup);
}

function codes(
  columns: Map<Scheme, CodesColumn>,
  { scheme, any, except, rank, kin }: CodesTest,
  lookup: Lookup,
  size: number,
): Verdict {
  const mainOnly = rank === 'main';
  const pass = lookup.codes(scheme).passOf(any, except ?? []);
  const column = columns.get(scheme);
  const own = column ? testCodes(column, pass, mainOnly, size) : nothingKnown(size);
  if (!kin) return own;
  const others = [...columns.values()].filter((one) => one.scheme !== scheme);
  const passes = others.map((one) => lookup.crosswalk().passIn(one.scheme, scheme, pass, kin === 'possible'));
  return testWithKin(own, others, passes, mainOnly, size);
}

function testList({ lists, find }: ListColumn, test: ListTest, size: number): Verdict {
  if (asksMore(test)) return find(test);
  const yes = noBits(size);
  for (const key of test.any) addMembers(yes, lists.get(key)!, test.verdict ?? VERDICTS);
  return { yes, unknown: noBits(size) };
}

function testContacts({ known }: KnownColumn, { is }: FlagTest, size: number): Verdict {
  return { yes: is ? known.slice() : notBits(known, size), unknown: noBits(size) };
}

/** Records whose value of a field is no older than a span. A value of a year is as old as the end of that year. */
export function freshRecords(universe: Universe, field: Field, span: string, asOf: number): Bits {
  const since = spanStart(asOf, parseSpan(span)!);
  if (field.dated !== 'year')
    return testDate(
      universe.columns.get(field.dated!) as DateColumn,
      { from: isoOf(since) },
      asOf,
      universe.size,
    ).yes;
  const { year } = columnOf(universe, field) as RangeColumn;
  const first = yearOf(since);
  const fresh = noBits(universe.size);
  for (let r = 0; r < year.length; r++) if (year[r]! >= first) setBit(fresh, r);
  return fresh;
}

/** The same verdict with what is not fresh unknown. */
function freshOnly(verdict: Verdict, fresh: Bits, size: number): Verdict {
  const freshOf = (bits: Bits) => {
    const left = bits.slice();
    keepBits(left, fresh);
    return left;
  };
  const stale = notBits(fresh, size);
  dropBits(stale, verdict.unknown);
  const unknown = verdict.unknown.slice();
  addBits(unknown, stale);
  const { estimated, straddling, kin } = verdict;
  return {
    ...verdict,
    yes: freshOf(verdict.yes),
    unknown,
    stale,
    ...(estimated ? { estimated: freshOf(estimated) } : {}),
    ...(straddling ? { straddling: freshOf(straddling) } : {}),
    ...(kin ? { kin: freshOf(kin) } : {}),
  };
}

/** Group key → the keys of its members; the group itself is no value of a record. */
export function groupsOf(lookup: Lookup, field: Pick<Field, 'subject' | 'id'>): Map<string, string[]> {
  const groups = new Map<string, string[]>();
  for (const choice of lookup.choices(field))
    if (choice.group) groups.set(choice.group, [...(groups.get(choice.group) ?? []), choice.key]);
  return groups;
}

function nothingKnown(size: number): Verdict {
  return { yes: noBits(size), unknown: allBits(size), coarse: noBits(size) };
}
