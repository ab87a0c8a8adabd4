import { expect, test } from '@jest/globals';
import { cellsOfWritten, subjectOfWritten } from './row-cells.ts';

/** Records as the API gives them, read as the table that an export would be. */

const FIRM = {
  key: 'CZ-1',
  name: 'Alder s.r.o.',
  industry: [
    { scheme: 'nace-2.1', code: '25.51', title: 'Coating of metals', main: true },
    { scheme: 'naics-2022', code: '332812', title: 'Coating', main: true },
  ],
  place: {
    ...{ town: 'Brno', region: 'South Moravia', country: 'CZ', countryName: 'Czechia' },
    ...{ townKey: 'Brno, CZ-64', lat: 49.19, lon: 16.6 },
  },
  headcount: { basis: 'band', low: 10, high: 49, amount: null, year: 2025 },
  revenue: { basis: 'estimate', low: 1, high: 3, amount: 2, year: 2024, currency: 'CZK' },
  profit: null,
  certificates: [],
  why: { profit: 'withheld' },
};

test('whose records they are is told by their keys', () => {
  expect(subjectOfWritten(FIRM)).toBe('companies');
  expect(subjectOfWritten({ key: 'p', name: 'Anna', title: 'Buyer', earlier: null, since: null })).toBe(
    'people',
  );
  expect(subjectOfWritten({ ...FIRM, key: undefined })).toBeNull();
  expect(subjectOfWritten({ key: 'x' })).toBeNull();
  expect(subjectOfWritten({ key: 'x', name: 'Alder', kunde: 1, umsatz: 2, notiz: '' })).toBeNull();
});

test('figures have year, currency, basis and why they are unknown; codes their scheme; none is not unknown', () => {
  expect(cellsOfWritten(FIRM, 'companies')).toMatchObject({
    'Company key': 'CZ-1',
    Company: 'Alder s.r.o.',
    'Main industry code': '25.51',
    'Industry scheme': 'NACE 2.1',
    'All industry codes': '25.51; NAICS 2022 332812 main',
    ...{ Town: 'Brno', Region: 'South Moravia', Country: 'Czechia', Latitude: 49.19, Longitude: 16.6 },
    ...{ Headcount: '10-49', 'Headcount year': 2025, 'Headcount basis': 'band' },
    ...{ Revenue: 2, 'Revenue currency': 'CZK', 'Revenue year': 2024, 'Revenue basis': 'estimate (1-3)' },
    ...{ Profit: null, 'Profit basis': 'unknown: withheld', Certificates: 'none' },
  });
});

test('what hangs on a company names it by key, and columns of one’s own stay', () => {
  const person = { key: 'p', company: 'CZ-1', name: 'Anna', title: null, 'Made up': 3, why: undefined };
  expect(cellsOfWritten(person, 'people')).toEqual({
    ...{ 'Company key': 'CZ-1', Name: 'Anna', Title: null, 'Made up': 3 },
  });
});

test('a file of somebody else that calls its columns as ours keeps what it holds', () => {
  const other = { key: 'x', name: 'Alder', industry: 'wood', headcount: 12, place: 'Brno', revenue: null };
  expect(subjectOfWritten(other)).toBe('companies');
  expect(cellsOfWritten(other, 'companies')).toMatchObject({
    ...{ Company: 'Alder', 'Main industry': 'wood', Headcount: 12, Town: 'Brno', Revenue: null },
  });
});
