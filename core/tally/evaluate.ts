import { fieldOf } from '../fields/registry.ts';
import type { Lookup } from '../tape/lookup.ts';
import type {
  CategoryTest,
  CodesTest,
  DateTest,
  FieldLine,
  MoneyTest,
  NumberTest,
  PlaceTest,
  TextTest,
} from '../tape/nodes.ts';
import type {
  CategoryColumn,
  CodesColumn,
  DateColumn,
  ManyColumn,
  PlaceColumn,
  RangeColumn,
  TextColumn,
  Universe,
} from './columns.ts';
import { testCategory, testMany } from './test-category.ts';
import { testCodes } from './test-codes.ts';
import { testDate } from './test-date.ts';
import { testPlace } from './test-place.ts';
import { testRange } from './test-range.ts';
import { testText } from './test-text.ts';
import { allBits, noBits } from './bits.ts';
import type { Verdict } from './verdict.ts';
import type { Scheme } from '../codes/tree.ts';

/** What a line's test, without its *not* and its policy, says of every record. */
export function evaluate(universe: Universe, subject: string, line: FieldLine, lookup: Lookup): Verdict {
  const field = fieldOf(subject, line.field)!;
  const column = universe.columns.get(line.field);
  if (!column) throw new Error(`The universe has no column for ${line.field}.`);
  switch (field.kind) {
    case 'codes': {
      const test = line.test as CodesTest;
      const codes = (column as Map<Scheme, CodesColumn>).get(test.scheme);
      if (!codes) return nothingKnown(universe.size);
      return testCodes(
        codes,
        lookup.codes(test.scheme).passOf(test.any, test.except ?? []),
        test.rank === 'main',
        universe.size,
      );
    }
    case 'place':
      return testPlace(column as PlaceColumn, line.test as PlaceTest, lookup.places, universe.size);
    case 'number':
      return testRange(
        column as RangeColumn,
        line.test as NumberTest,
        line.estimates === true,
        universe.size,
      );
    case 'money':
      return testRange(column as RangeColumn, line.test as MoneyTest, line.estimates === true, universe.size);
    case 'category': {
      const groups = groupsOf(lookup, line.field);
      return (column as ManyColumn | CategoryColumn).kind === 'many'
        ? testMany(column as ManyColumn, line.test as CategoryTest, groups, universe.size)
        : testCategory(column as CategoryColumn, line.test as CategoryTest, universe.size);
    }
    case 'date':
      return testDate(column as DateColumn, line.test as DateTest, lookup.asOf, universe.size);
    case 'text':
      return testText(column as TextColumn, line.test as TextTest, universe.size);
    case 'label':
      throw new Error(`${field.id} cannot be a line.`);
  }
}

/** Group key → the keys of its members; the group itself is no value of a record. */
export function groupsOf(lookup: Lookup, field: string): Map<string, string[]> {
  const groups = new Map<string, string[]>();
  for (const choice of lookup.choices(field))
    if (choice.group) groups.set(choice.group, [...(groups.get(choice.group) ?? []), choice.key]);
  return groups;
}

function nothingKnown(size: number): Verdict {
  return { yes: noBits(size), unknown: allBits(size) };
}
