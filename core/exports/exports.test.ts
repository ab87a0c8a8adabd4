import { expect, test } from '@jest/globals';
import type { Row } from '../cells.ts';
import { columnFields } from '../fields/registry.ts';
import { exportColumns } from './columns.ts';
import { howMadeRows } from './how-made.ts';

const row = (cells: Row['cells'], why?: Row['why']): Row => ({ key: 'x', cells, ...(why ? { why } : {}) });
const values = (fields: string[], one: Row, currency = 'EUR') =>
  Object.fromEntries(
    exportColumns('companies', fields, currency).map((column) => [column.heading, column.value(one)]),
  );

test('numbers stay numbers, bands and reasons are words', () => {
  const quantity = { basis: 'reported', low: 40, high: 40, amount: 40, year: 2025 } as const;
  expect(values(['headcount'], row({ headcount: quantity }))).toEqual({
    Headcount: 40,
    'Headcount year': 2025,
    'Headcount basis': 'reported',
  });
  expect(
    values(
      ['headcount'],
      row({ headcount: { ...quantity, basis: 'band', low: 250, high: null, amount: null } }),
    ),
  ).toEqual({ Headcount: '250+', 'Headcount year': 2025, 'Headcount basis': 'band' });
  expect(values(['headcount'], row({ headcount: null }, { headcount: 'withheld' }))).toEqual({
    Headcount: null,
    'Headcount year': null,
    'Headcount basis': 'unknown: withheld',
  });
});

test('money is converted at the rate of its year', () => {
  const revenue = {
    basis: 'band',
    low: 2_512_000,
    high: 25_120_000,
    amount: null,
    year: 2024,
    currency: 'CZK',
  } as const;
  expect(values(['revenue'], row({ revenue }))).toEqual({
    'Revenue, EUR': '100000-1000000',
    'Revenue year': 2024,
    'Revenue basis': 'band',
  });
  const own = exportColumns('companies', ['revenue'], 'EUR', {}, { ownCurrency: true });
  expect(Object.fromEntries(own.map((column) => [column.heading, column.value(row({ revenue }))]))).toEqual({
    Revenue: '2512000-25120000',
    'Revenue currency': 'CZK',
    'Revenue year': 2024,
    'Revenue basis': 'band',
  });
  expect(
    values(['revenue'], row({ revenue: { ...revenue, basis: 'reported', amount: 2_512_000 } }), 'CZK')[
      'Revenue, CZK'
    ],
  ).toBe(2_512_000);
  expect(values(['revenue'], row({ revenue: { ...revenue, year: 1990 } }))['Revenue, EUR']).toBeNull();
});

test('a place and a list of codes make several columns', () => {
  const place = {
    town: 'Brno',
    region: 'South Moravia',
    country: 'CZ',
    countryName: 'Czechia',
    townKey: null,
    lat: null,
    lon: null,
  };
  const industry = [
    { scheme: 'nace-2.1', code: '25.51', title: 'Coating of metals', main: true },
    { scheme: 'nace-2.1', code: '25.53', title: 'Machining of metals', main: false },
  ] as const;
  expect(values(['place', 'industry'], row({ place, industry: [...industry] }))).toEqual({
    Town: 'Brno',
    Region: 'South Moravia',
    Country: 'Czechia',
    'Main industry code': '25.51',
    'Main industry': 'Coating of metals',
    'Industry scheme': 'NACE 2.1',
    'All industry codes': '25.51; 25.53',
  });
});

test('every column of the registry can be exported, known or not', () => {
  for (const { id } of columnFields('companies')) {
    const columns = exportColumns('companies', [id], 'EUR');
    expect(columns.length).toBeGreaterThan(0);
    for (const column of columns)
      expect(column.value(row({ [id]: null })) ?? '').toEqual(expect.stringMatching(/^$|^unknown/));
  }
});

test('how a list was made names tape, sources and counts', () => {
  const how = {
    name: 'Mine',
    many: 'Companies',
    madeAt: '2026-09-30T10:11:12Z',
    asOf: '2026-09-30',
    count: 3,
    universe: 9,
    picked: 3,
    person: 'Hana',
    receiver: 'Print shop',
    columns: [{ heading: 'Company', meaning: 'its name' }],
    roll: [
      { label: 'All that pass', delta: 5, total: 5, note: '' },
      { label: 'On Customers', delta: -2, total: 3, note: 'suppression list' },
    ],
    along: [{ name: 'Partners', count: 1, reason: 'they asked' }],
    check: 'drawn 2026-09-30: 83 % fit',
    wording: ['Headcount 20 or more'],
    tape: '{}',
    sources: [{ name: 'Register', asOf: '2026-09-01', licence: null, rowsRead: 9 }],
  };
  const rows = howMadeRows(how);
  expect(rows).toEqual(
    expect.arrayContaining([
      ['Companies in this list', 3],
      ['Which companies', '3 picked by hand'],
      ['On Customers (suppression list)', -2, 3],
      ['On Partners, and taken along', '1, because: they asked'],
      ['For', 'Print shop'],
      ['Company', 'its name'],
      ['Spot check', 'drawn 2026-09-30: 83 % fit'],
      ['line 1', 'Headcount 20 or more'],
      ['Register', '2026-09-01', 9, 'not stated'],
    ]),
  );
  expect(howMadeRows({ ...how, picked: null, wording: [] })).toEqual(
    expect.arrayContaining([
      ['Which companies', 'all that pass the tape'],
      ['', 'no lines: the whole universe'],
    ]),
  );
});
