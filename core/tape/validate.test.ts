import { describe, expect, test } from '@jest/globals';
import { SMALL_LOOKUP } from '../testing/small-lookup.ts';
import { Problem } from './problem.ts';
import { validateSort, validateTape } from './validate.ts';

const lookup = SMALL_LOOKUP;
const tape = (lines: unknown, more: object = {}) => ({
  format: 'just-tally.tape',
  version: 1,
  subject: 'companies',
  lines,
  ...more,
});
const line = (field: string, test: unknown, more: object = {}) => ({ id: 'a', field, test, ...more });
const wrong = (input: unknown): { code: string; field?: string } => {
  try {
    validateTape(input, lookup);
  } catch (error) {
    if (error instanceof Problem) return { code: error.code, field: error.field };
    throw error;
  }
  throw new Error('nothing was wrong');
};

test('a right tape comes back as it was, frozen', () => {
  const lines = [
    line('industry', { scheme: 'nace-2.1', any: ['25'], rank: 'main' }, { must: true }),
    {
      id: 'b',
      either: [
        { id: 'b1', field: 'place', test: { countries: ['CZ'], regions: ['CZ-64'], towns: ['Brno, CZ-64'] } },
        { id: 'b2', field: 'words', test: { text: 'oak*', in: 'name' }, not: true },
      ],
      unknown: 'keep',
    },
    {
      ...line('revenue', { from: 1, currency: 'EUR', per: 'month' }, { estimates: true, parked: true }),
      id: 'c',
    },
  ];
  const input = tape(lines, { name: 'Mine', sort: [{ by: 'revenue', descending: true }], first: 500 });
  const read = validateTape(input, lookup);
  expect(read).toEqual(input);
  expect(Object.isFrozen(read.lines[1]) && Object.isFrozen((read.lines[0] as { test: object }).test)).toBe(
    true,
  );
  expect(validateTape(JSON.parse(JSON.stringify(read)), lookup)).toEqual(read);
});

test('marks that are false are left out', () => {
  expect(
    validateTape(tape([line('headcount', { from: 1 }, { not: false, must: false })]), lookup).lines[0],
  ).toEqual(line('headcount', { from: 1 }));
});

describe('what is wrong is told by its place', () => {
  test.each<[string, unknown, string, string]>([
    ['no object', 'tape', 'wrong-shape', 'tape'],
    ['another version', tape([], { version: 2 }), 'tape-version', 'version'],
    ['an unknown key', tape([], { colour: 1 }), 'unknown-key', 'tape.colour'],
    ['lines that are no list', tape({}), 'wrong-shape', 'lines'],
    ['far too many lines', tape(Array.from({ length: 201 }, () => ({}))), 'too-many', 'lines'],
    ['a line without an id', tape([{ field: 'headcount', test: { from: 1 } }]), 'wrong-shape', 'lines[0].id'],
    ['an empty block', tape([{ id: 'a', either: [] }]), 'empty-block', 'lines[0].either'],
    [
      'a policy inside a block',
      tape([{ id: 'a', either: [line('headcount', { from: 1 }, { id: 'b', unknown: 'keep' })] }]),
      'unknown-key',
      'lines[0].either[0].unknown',
    ],
    [
      'a policy that is none',
      tape([line('headcount', { from: 1 }, { unknown: 'maybe' })]),
      'wrong-value',
      'lines[0].unknown',
    ],
    [
      'a mark that is no flag',
      tape([line('headcount', { from: 1 }, { not: 'yes' })]),
      'wrong-shape',
      'lines[0].not',
    ],
    [
      'estimates on a field without',
      tape([line('founded', { from: 1 }, { estimates: true })]),
      'no-estimates',
      'lines[0].estimates',
    ],
    [
      'a column that is no condition',
      tape([line('phone', { text: 'x' })]),
      'unknown-field',
      'lines[0].field',
    ],
    [
      'no codes',
      tape([line('industry', { scheme: 'nace-2.1', any: [] })]),
      'wrong-value',
      'lines[0].test.any',
    ],
    [
      'an exception that is no code',
      tape([line('industry', { scheme: 'nace-2.1', any: ['25'], except: ['26'] })]),
      'unknown-code',
      'lines[0].test.except[0]',
    ],
    [
      'a rank that is none',
      tape([line('industry', { scheme: 'nace-2.1', any: ['25'], rank: 'second' })]),
      'wrong-value',
      'lines[0].test.rank',
    ],
    [
      'an unknown country',
      tape([line('place', { countries: ['XX'] })]),
      'unknown-country',
      'lines[0].test.countries[0]',
    ],
    [
      'an unknown region',
      tape([line('place', { regions: ['CZ-99'] })]),
      'unknown-region',
      'lines[0].test.regions[0]',
    ],
    [
      'a town without its region',
      tape([line('place', { towns: ['Brno'] })]),
      'wrong-value',
      'lines[0].test.towns[0]',
    ],
    [
      'a point off the Earth',
      tape([line('place', { near: { lat: 95, lon: 0, km: 1 } })]),
      'wrong-value',
      'lines[0].test.near.lat',
    ],
    [
      'two distances',
      tape([line('place', { near: { lat: 5, lon: 0, km: 1, miles: 1 } })]),
      'wrong-value',
      'lines[0].test.near',
    ],
    [
      'another site',
      tape([line('place', { countries: ['CZ'], site: 'moon' })]),
      'wrong-value',
      'lines[0].test.site',
    ],
    ['no place', tape([line('place', { site: 'head' })]), 'wrong-value', 'lines[0].test'],
    ['money without currency', tape([line('revenue', { from: 1 })]), 'wrong-value', 'lines[0].test.currency'],
    [
      'money by the week',
      tape([line('revenue', { from: 1, currency: 'EUR', per: 'week' })]),
      'wrong-value',
      'lines[0].test.per',
    ],
    ['a number that is none', tape([line('headcount', { from: NaN })]), 'wrong-value', 'lines[0].test.from'],
    [
      'all of a single value',
      tape([line('status', { all: ['active'] })]),
      'unknown-key',
      'lines[0].test.all',
    ],
    [
      'any and all',
      tape([line('technology', { any: ['rutavel'], all: ['rutavel'] })]),
      'wrong-value',
      'lines[0].test',
    ],
    [
      'an unknown product',
      tape([line('technology', { any: ['abacus'] })]),
      'unknown-value',
      'lines[0].test.any[0]',
    ],
    [
      'two ways of dates',
      tape([line('checked', { past: '1 year', year: 2026 })]),
      'wrong-value',
      'lines[0].test',
    ],
    [
      'a span that is none',
      tape([line('checked', { past: 'a while' })]),
      'wrong-value',
      'lines[0].test.past',
    ],
    [
      'a day that is none',
      tape([line('checked', { from: '2026-02-30' })]),
      'wrong-value',
      'lines[0].test.from',
    ],
    [
      'reversed dates',
      tape([line('checked', { from: '2026-02-03', to: '2026-01-01' })]),
      'reversed-range',
      'lines[0].test',
    ],
    [
      'words that do not read',
      tape([line('words', { text: 'oak and' })]),
      'words-grammar',
      'lines[0].test.text',
    ],
    [
      'words in the margin',
      tape([line('words', { text: 'oak', in: 'margin' })]),
      'wrong-value',
      'lines[0].test.in',
    ],
    ['an order by what has none', tape([], { sort: [{ by: 'technology' }] }), 'unknown-sort', 'sort[0].by'],
    ['a first that is no number', tape([], { first: 0 }), 'wrong-shape', 'first'],
  ])('%s', (_, input, code, field) => {
    expect(wrong(input)).toEqual({ code, field });
  });
});

test('an order is by known columns', () => {
  expect(
    validateSort([{ by: 'name' }, { by: 'revenue', descending: true }], { subject: 'companies', lines: [] }),
  ).toEqual([{ by: 'name' }, { by: 'revenue', descending: true }]);
  expect(() => validateSort([{ by: 'mood' }], { subject: 'companies', lines: [] })).toThrow(
    'There is no order by "mood".',
  );
});
