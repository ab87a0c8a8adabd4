import { expect, test } from '@jest/globals';
import type { Row } from '../cells.ts';
import { columnFields, SUBJECTS } from '../fields/registry.ts';
import { exportColumns } from './columns.ts';
import { checkComputed, isFigure, readFor, type Computed } from './computed.ts';
import { HEADING_LANGUAGES, inLanguage, type HeadingLanguage } from './headings/languages.ts';
import { apart, fileName, machineNames } from './names.ts';

const money = (amount: number, basis: 'reported' | 'estimate' = 'reported', spread = 0) => ({
  basis,
  low: amount - spread,
  high: amount + spread,
  amount,
  year: 2024,
  currency: 'EUR',
});
const count = (amount: number) => ({
  basis: 'reported' as const,
  low: amount,
  high: amount,
  amount,
  year: 2024,
});
const row = (cells: Row['cells']): Row => ({ key: 'x', cells });
const of = (computed: Computed, one: Row) =>
  Object.fromEntries(
    exportColumns('companies', [computed.id], 'EUR', {}, { computed: [computed] }).map((column) => [
      column.heading,
      column.value(one),
    ]),
  );

test('a ratio names its unit, says what is estimated, and divides by nothing', () => {
  const ratio: Computed = {
    id: 'made:1',
    heading: 'Revenue a head',
    way: 'ratio',
    of: ['revenue', 'headcount'],
  };
  expect(of(ratio, row({ revenue: money(1000), headcount: count(4) }))).toEqual({
    'Revenue a head, EUR per staff': 250,
    'Revenue a head basis': 'reported',
  });
  expect(of(ratio, row({ revenue: money(1000, 'estimate', 10), headcount: count(3) }))).toEqual({
    'Revenue a head, EUR per staff': 333.33,
    'Revenue a head basis': 'estimate',
  });
  for (const cells of [
    { revenue: money(1000), headcount: count(0) },
    { revenue: null, headcount: count(4) },
    { revenue: { ...money(0), basis: 'band' as const, low: 1, high: 9, amount: null }, headcount: count(4) },
  ])
    expect(of(ratio, row(cells))).toEqual({
      'Revenue a head, EUR per staff': null,
      'Revenue a head basis': 'unknown',
    });
});

test('a percentage and a difference want the same unit, and money in one currency', () => {
  const margin: Computed = { id: 'made:2', heading: 'Margin', way: 'percent', of: ['profit', 'revenue'] };
  expect(
    of(margin, row({ profit: { ...money(251.2), currency: 'CZK' }, revenue: money(100) }))['Margin, %'],
  ).toBe(10);
  const mixed = { ...margin, of: ['profit', 'headcount'] };
  expect(() => checkComputed(mixed, 'companies')).toThrow(/takes staff from EUR/);
  expect(() => checkComputed({ ...mixed, way: 'ratio' }, 'companies')).not.toThrow();
  expect(() => checkComputed({ ...margin, of: ['name', 'revenue'] }, 'companies')).toThrow(
    /name, which has no figures/,
  );
  expect(() => checkComputed({ ...margin, of: ['revenue'] }, 'companies')).toThrow(/reckoned of 1 columns/);
  expect(() => checkComputed({ ...margin, id: 'revenue' }, 'companies')).toThrow(/cannot be called/);
  for (const id of ['count:l3', 'review:doubt:*', 'group:revenue'])
    expect(isFigure('companies', id)).toBe(true);
  for (const id of ['review:doubts:*', 'member:note:*']) expect(isFigure('companies', id)).toBe(false);
  expect(isFigure('companies', 'place')).toBe(false);
});

test('texts are joined by what one says, unknown ones left out', () => {
  const join: Computed = {
    id: 'made:3',
    heading: 'Where',
    way: 'join',
    of: ['street', 'postcode', 'place'],
    between: ' / ',
  };
  const place = {
    town: 'Brno',
    region: null,
    country: 'CZ',
    countryName: 'Czechia',
    townKey: null,
    lat: null,
    lon: null,
  };
  expect(of(join, row({ street: 'Long 1', postcode: null, place }))).toEqual({ Where: 'Long 1 / Brno' });
  expect(of(join, row({ street: null, postcode: null, place: null }))).toEqual({ Where: null });
  expect(readFor(['name', 'made:3'], [join])).toEqual(['name', 'street', 'postcode', 'place']);
  expect(() => checkComputed({ ...join, of: ['street'] }, 'companies')).toThrow(/fewer than two/);
});

test('columns of a tape’s own are numbers with their digits, or texts where they are in words', () => {
  const ids = [
    'count:l1',
    'score:l2',
    'why:l2',
    'km:l3',
    'member:note:*',
    'review:doubt:*',
    'review:doubts:*',
  ];
  const made = exportColumns('companies', ids, 'EUR', Object.fromEntries(ids.map((id) => [id, id])));
  expect(made.map(({ id, kind, digits }) => [id, kind, digits])).toEqual([
    ['count:l1', 'number', undefined],
    ['score:l2', 'number', 2],
    ['why:l2', 'text', undefined],
    ['km:l3', 'number', 1],
    ['member:note:*', 'text', undefined],
    ['review:doubt:*', 'number', undefined],
    ['review:doubts:*', 'text', undefined],
  ]);
  expect(made[6]!.value(row({ 'review:doubts:*': '3 of 9 fields not known' }))).toBe(
    '3 of 9 fields not known',
  );
});

test('headings of one’s own stand before what a field further says', () => {
  const headings = exportColumns(
    'companies',
    ['revenue', 'place', 'name'],
    'EUR',
    {},
    {
      custom: { revenue: 'Turnover', place: 'City', name: '' },
    },
  ).map(({ heading }) => heading);
  expect(headings).toEqual([
    'Turnover',
    'Turnover: year',
    'Turnover: basis',
    'City',
    'City: Region',
    'City: Country',
    'Company',
  ]);
});

test('every heading has its word in every language, with unit and part', () => {
  const missing = Object.keys(HEADING_LANGUAGES).flatMap((language) =>
    language === 'en'
      ? []
      : [...SUBJECTS.keys()].flatMap((subject) =>
          exportColumns(
            subject,
            columnFields(subject).map(({ id }) => id),
            'EUR',
          )
            .filter(({ plain }) => {
              const word = inLanguage(plain, language as HeadingLanguage);
              return word === plain && !SAME.has(plain);
            })
            .map(({ plain }) => `${language}: ${plain}`),
        ),
  );
  expect(missing).toEqual([]);
  expect(inLanguage('Revenue, EUR', 'de')).toBe('Umsatz, EUR');
  expect(inLanguage('Revenue year', 'cs')).toBe('Tržby, rok');
  expect(inLanguage('Revenue currency', 'de')).toBe('Umsatz, Währung');
  expect(inLanguage('Mail, sales', 'fr')).toBe('E-mail, ventes');
  expect(inLanguage('Number of deals', 'de')).toBe('Number of deals');
});
/** Words that are the same in some other language. */
const SAME = new Set([
  ...['Web', 'Name', 'Region', 'Description', 'Sources', 'Source', 'Date', 'Follower'],
  ...['Latitude', 'Longitude', 'Parties'],
]);

test('bands keep their ends and estimates their range', () => {
  const [revenue] = exportColumns('companies', ['revenue'], 'EUR');
  expect(revenue!.range!(row({ revenue: money(100) }))).toBeNull();
  expect(revenue!.range!(row({ revenue: money(100, 'estimate', 20) }))).toEqual([80, 120]);
  expect(
    revenue!.range!(row({ revenue: { ...money(0), basis: 'band', low: 10, high: null, amount: null } })),
  ).toEqual([10, null]);
  expect(revenue!.range!(row({ revenue: null }))).toBeNull();
});

test('machines get names of their own, people headings that differ, and files names that every system takes', () => {
  const columns = exportColumns('companies', ['revenue', 'growth', 'place'], 'EUR');
  expect(machineNames(columns)).toEqual([
    'revenue_eur',
    'revenue_year',
    'revenue_basis',
    'growth_1_year_percent',
    'town',
    'region',
    'country',
  ]);
  expect(machineNames([{ plain: 'A' }, { plain: 'a' }, { plain: '%' }, { plain: '–' }])).toEqual([
    'a',
    'a_2',
    'percent',
    'column',
  ]);
  expect(apart(['Town', 'Town', 'Name'])).toEqual(['Town', 'Town (2)', 'Name']);
  expect(fileName('Joineries: near/Brno {date}', '2026-11-29')).toBe('Joineries near Brno 2026-11-29');
  expect(fileName('...', '2026-11-29')).toBe('export');
  expect(fileName('con', '2026-11-29')).toBe('export con');
});
