import { describe, expect, test } from '@jest/globals';
import { CodeTree, type Scheme } from '../codes/tree.ts';
import { Gazetteer } from '../geo/gazetteer.ts';
import { PLAIN_MAPPING } from '../testing/plain-mapping.ts';
import type { Mapping } from './mapping.ts';
import { rowReader } from './read-row.ts';

const trees = new Map<Scheme, CodeTree>([
  [
    'nace-2.1',
    new CodeTree('nace-2.1', [
      { code: '25', level: 2, parent: '', title: 'Metal' },
      { code: '25.5', level: 3, parent: '25', title: 'Treatment' },
      { code: '25.51', level: 4, parent: '25.5', title: 'Coating' },
      { code: '25.53', level: 4, parent: '25.5', title: 'Machining' },
    ]),
  ],
]);
const places = new Gazetteer({
  countries: 'iso2\nCZ\tCZE\t203\tCzechia\tČesko\tCZK\tEurope\tEastern\t+420',
  regions: 'key\nCZ-64\tCZ\tJihomoravský kraj\tSouth Moravia',
  towns: 'id\n1\tBrno\tBrno\t\t\tCZ\tCZ-64\t49.195\t16.608\t380000',
});
const AS_OF = 20_726;

function read(row: Record<string, string>, mapping: Partial<Mapping> = {}) {
  const columns = ['name', ...Object.keys(row).filter((id) => id !== 'name')];
  const reader = rowReader(columns, { ...PLAIN_MAPPING, columns, ...mapping }, trees, places, AS_OF);
  return reader.read(columns.map((id) => row[id] ?? 'Firm'));
}
const record = (row: Record<string, string>, mapping?: Partial<Mapping>) => {
  const answer = read(row, mapping);
  if ('problems' in answer) throw new Error(JSON.stringify(answer.problems));
  return answer.record;
};
const problems = (row: Record<string, string>, mapping?: Partial<Mapping>) => {
  const answer = read(row, mapping);
  return 'problems' in answer ? answer.problems : [];
};

describe('a row', () => {
  test('with a name alone is a company of which nothing else is known', () => {
    const { name, ...rest } = record({});
    expect(name).toBe('Firm');
    for (const value of Object.values(rest)) expect([null, []]).toContainEqual(value);
  });
  test('gets region and coordinates of its town where it has none of its own', () => {
    expect(record({ country: 'Czechia', town: 'brno' })).toMatchObject({
      country: 'CZ',
      region: 'CZ-64',
      town: 'Brno',
      lat: 49.195,
      lon: 16.608,
    });
    expect(record({ country: 'CZ', town: 'Brno', latitude: '49.2', longitude: '16.6' })).toMatchObject({
      lat: 49.2,
      lon: 16.6,
    });
    expect(record({ country: 'CZ', town: 'Zapomenutá Lhota' })).toMatchObject({
      town: 'Zapomenutá Lhota',
      region: null,
      lat: null,
    });
    expect(record({ town: 'Brno' }, { country: 'CZ' })).toMatchObject({ country: 'CZ', region: 'CZ-64' });
  });
  test('reads codes loosely written, the first of the main column as the main one', () => {
    expect(record({ 'main-code': '2551, 25.53', 'other-codes': 'C25' }).codes).toEqual([
      { scheme: 'nace-2.1', code: '25.51', main: true },
      { scheme: 'nace-2.1', code: '25.53', main: false },
      { scheme: 'nace-2.1', code: '25', main: false },
    ]);
  });
  test('takes currency, year and unit of money from its cells, else from the mapping', () => {
    expect(record({ revenue: '2.5' }, { revenueUnit: 1e6 }).revenue).toEqual({
      basis: 'reported',
      low: 2.5e6,
      high: 2.5e6,
      point: 2.5e6,
      currency: 'EUR',
      year: 2025,
    });
    expect(
      record({ revenue: '900 CZK', 'revenue-currency': 'czk', 'revenue-year': '2023' }).revenue,
    ).toMatchObject({ point: 900, currency: 'CZK', year: 2023 });
  });
  test('counts as surveyed where technologies are named, on the day of the source if no other is given', () => {
    expect(record({ technologies: 'Rutavel; Dipzaal, ' })).toMatchObject({
      technologies: ['Rutavel', 'Dipzaal'].map((label) => ({ label, first: null, last: null })),
      surveyedOn: AS_OF,
    });
    expect(record({ technologies: '', surveyed: '2026-09-01' })).toMatchObject({
      technologies: [],
      surveyedOn: 20_697,
    });
  });
  test('keeps the reason for what is missing', () => {
    expect(record({ headcount: '', 'headcount-unknown': 'Withheld' })).toMatchObject({
      headcount: null,
      headcountWhy: 'withheld',
    });
  });
  test('has several values in one cell where a column holds lists', () => {
    expect(
      record({
        technologies: 'Rutavel [2024-03-01..2026-02-11]; Kontovar [2025-01-31..]',
        departments: 'Production 40/38/31; sales 6',
        'headcount-history': '2025:≈130; 2024:120',
        'revenue-months': '2024-01: 12000 13000.5',
        certificates: 'none',
        offers: 'Quote form, shop',
        dwelling: 'Nein',
        followers: '1,250',
        profit: '-120000',
      }),
    ).toMatchObject({
      technologies: [
        { label: 'Rutavel', first: 19_783, last: 20_495 },
        { label: 'Kontovar', first: 20_119, last: null },
      ],
      departments: [
        { key: 'production', now: 40, before1: 38, before3: 31 },
        { key: 'sales', now: 6, before1: null, before3: null },
      ],
      headcountHistory: [
        { year: 2024, value: 120, estimate: false },
        { year: 2025, value: 130, estimate: true },
      ],
      revenueMonths: { start: '2024-01', values: [12_000, 13_000.5] },
      certificates: [],
      offers: ['quote-form', 'shop'],
      dwelling: false,
      followers: 1250,
      profit: { basis: 'reported', point: -120_000, currency: 'EUR', year: 2025 },
    });
  });
  test('has its web address without scheme and closing slash', () => {
    expect(record({ web: 'https://firm.example/' }).web).toBe('firm.example');
  });
});

describe('a row that cannot be read', () => {
  test('says column, value and rule, for every cell that is wrong', () => {
    expect(problems({ country: 'Nowhere', headcount: 'many', 'main-code': '99.99', founded: '94' })).toEqual([
      { column: 'country', value: 'Nowhere', rule: 'a country, as a name or an ISO code' },
      { column: 'founded', value: '94', rule: 'a year of four figures' },
      { column: 'main-code', value: '99.99', rule: 'a code of NACE 2.1; “99.99” is none' },
      { column: 'headcount', value: 'many', rule: 'a number with decimal point' },
    ]);
  });
  test.each([
    [{ name: ' ' }, 'a name; a row without one cannot be loaded'],
    [{ latitude: '91' }, 'degrees from -90 to 90'],
    [{ 'revenue-currency': 'XXX' }, 'a currency code with rates'],
    [{ status: 'asleep' }, 'active, dormant or closed'],
    [{ checked: '31.2.2026' }, 'a calendar date such as 2026-09-30 or 30.9.2026'],
    [{ 'checked-how': 'pigeon' }, 'phone, register or web'],
    [{ 'headcount-unknown': 'lost' }, 'one of not collected, withheld'],
    [{ technologies: 'Rutavel [soon]' }, 'products with days such as'],
    [{ departments: 'kitchen 4' }, 'departments and staff such as production 40'],
    [{ 'headcount-history': '2024:1; 2024:2' }, 'one figure for each year'],
    [{ 'revenue-months': 'January 5' }, 'a month and figures such as'],
    [{ offers: 'cake' }, 'none, or some of quote-form'],
    [{ dwelling: 'perhaps' }, 'yes or no'],
    [{ followers: '-3' }, 'a whole number'],
    [{ revenue: '-5' }, 'a number that is not negative'],
    [{ headcount: '9-2' }, 'a band whose lower end is not above its upper end'],
  ])('%j', (row, rule) => {
    expect(problems(row)[0]?.rule).toContain(rule);
  });
  test('for too many cells says how many the header has', () => {
    const reader = rowReader(['Name'], { ...PLAIN_MAPPING, columns: ['name'] }, trees, places, AS_OF);
    expect(reader.read(['Firm', 'more'])).toEqual({
      problems: [{ column: 'row', value: '2 cells', rule: 'at most 1 cells, as the header has' }],
    });
    expect(reader.read(['Firm', '', ''])).toHaveProperty('record');
  });
});
