import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readCodeTable } from '../codes/tree.ts';
import { Gazetteer } from '../geo/gazetteer.ts';
import { PLAIN_MAPPING } from '../testing/plain-mapping.ts';
import { companyKey } from './company-key.ts';
import { rowReader } from './read-row.ts';

/** Keys that last: what a user wrote of a company never comes to another one. */

const COLUMNS = ['name', 'country', 'registration', 'web', 'town', 'phone', 'street', 'headcount'];
const reader = rowReader(
  COLUMNS,
  { ...PLAIN_MAPPING, columns: COLUMNS },
  new Map([['nace-2.1', readCodeTable('nace-2.1', 'h')]]),
  new Gazetteer({
    countries: 'h\nCZ\tCZE\t203\tCzechia\t\tCZK\t\t\t+420\nAT\tAUT\t40\tAustria\t\tEUR\t\t\t+43',
    regions: 'h',
    towns: 'h',
  }),
  20_000,
);
const keyOf = (cells: string[]) => {
  const read = reader.read(cells);
  if ('problems' in read) throw new Error(JSON.stringify(read.problems));
  return companyKey(read.record, cells);
};
const firm = (more: Partial<Record<string, string>> = {}) =>
  keyOf(COLUMNS.map((id) => more[id] ?? (id === 'name' ? 'Alderway Coatings' : '')));

describe('the key of a company', () => {
  test('is its number, however it was written and whatever else changes', () => {
    const numbered = { country: 'CZ', registration: '01234567' };
    expect(firm(numbered)).toBe('CZ-01234567');
    for (const registration of ['1234567', 'CZ 012 34 567', '1234567.0'])
      expect(firm({ ...numbered, registration, name: 'Renamed' })).toBe('CZ-01234567');
  });
  test('else its name and domain, else its name and where it is reached, whatever the figures', () => {
    const web = { web: 'https://www.alderway.example/?utm_source=x' };
    expect(firm({ ...web, headcount: '10', town: 'Brno' })).toBe(
      firm({ web: 'alderway.example', headcount: '99', name: 'ALDERWAY  Coatings' }),
    );
    const place = { country: 'CZ', town: 'Brno', phone: '+420 777 123 456' };
    expect(firm({ ...place, headcount: '10' })).toBe(
      firm({ ...place, phone: '+420777123456', headcount: '' }),
    );
    expect(firm(place)).not.toBe(firm({ ...place, phone: '+420 777 123 457' }));
    expect(firm(web)).not.toBe(firm({ ...web, name: 'Brackfold' }));
  });
  test('else the row itself: a name alone is no key', () => {
    expect(firm({ town: 'Brno' })).not.toBe(firm({ town: 'Zlín' }));
    expect(firm({ headcount: '10' })).not.toBe(firm({ headcount: '11' }));
    expect(firm()).toBe(firm());
  });
});

const cell = (...values: string[]) => fc.constantFrom('', ...values);
const anyRow = fc.tuple(
  fc.constantFrom('Alder', 'Birch', 'Cedar', 'Alder s.r.o.'),
  cell('CZ', 'AT'),
  cell('1', '2', '12345678'),
  cell('alder.example', 'birch.example'),
  cell('Brno', 'Zlín'),
  cell('777', '+420 888'),
  cell('Long 1', 'Short 2'),
  cell('10', '20-30'),
);

test('rows put in, taken out, sorted or with other figures keep their keys; rows of different names never share one but by number', () => {
  fc.assert(
    fc.property(
      fc.array(anyRow, { minLength: 1, maxLength: 30 }),
      fc.array(anyRow, { maxLength: 10 }),
      fc.nat(),
      (rows, others, turn) => {
        const before = new Map(rows.map((row) => [row.join('|'), keyOf(row)]));
        const after = [...others, ...rows.slice(turn % rows.length), ...rows.slice(0, turn % rows.length)];
        for (const row of after) {
          const known = before.get(row.join('|'));
          if (known !== undefined) expect(keyOf(row)).toBe(known);
          // Figures are brought up to date where something else says who it is.
          if (row[2] !== '' && row[1] !== '') expect(keyOf([...row.slice(0, 7), '77'])).toBe(keyOf(row));
          if (row[3] !== '' || row[5] !== '' || row[6] !== '')
            expect(keyOf([...row.slice(0, 7), '77'])).toBe(keyOf(row));
        }
        const names = new Map<string, string>();
        for (const row of after) {
          const key = keyOf(row);
          if (!key.startsWith('x-')) continue;
          expect(names.get(key) ?? row[0]).toBe(row[0]);
          names.set(key, row[0]);
        }
      },
    ),
    { numRuns: 50 },
  );
});
