import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { anyRecord } from '../testing/any-record.ts';
import { looksLikeHeader } from './headings.ts';
import { guessMapping } from './mapping.ts';
import { mergeRecords } from './merge.ts';
import { registrationKey } from './record.ts';

describe('recognising a file', () => {
  const header = [
    'Název firmy',
    'IČO',
    'Obec',
    'Počet zaměstnanců',
    'Obrat (Kč)',
    'CZ-NACE',
    'Poznámka',
    'kontakt',
  ];
  const rows = [
    ['Dřevo s.r.o.', '123', 'Brno', '10-49', '1.234,50', '16.23', 'x', 'info@drevo.example'],
    ['Kov a.s.', '124', 'Zlín', '120', '12.500,00', '25.51', 'y', 'info@kov.example'],
  ];
  test('columns by heading in their language, or by content', () => {
    const mapping = guessMapping(header, rows, new Map(), { currency: 'EUR', year: 2025 });
    expect(mapping.columns).toEqual([
      'name',
      'registration',
      'town',
      'headcount',
      'revenue',
      'main-code',
      null,
      'mail',
    ]);
    expect(mapping).toMatchObject({ decimal: ',', currency: 'CZK', revenueUnit: 1, scheme: 'nace-2.1' });
  });
  test.each([
    ['Revenue in thousands', 'revenue', 1e3],
    ['Tržby v tis. Kč', 'revenue', 1e3],
    ['Umsatz (Mio. EUR)', 'revenue', 1e6],
    ['Annual revenue, £k', 'revenue', 1e3],
    ['Revenue', 'revenue', 1],
    ['Revenue per head', null, 1],
    ['Revenue growth', null, 1],
    ['Employees total', 'headcount', 1],
    ['Profit in millions', 'profit', 1e6],
  ])('%s is a column of %s', (heading, id, revenueUnit) => {
    const mapping = guessMapping(['name', heading], [['Kov', '2.5']], new Map(), {
      currency: 'EUR',
      year: 2025,
    });
    expect([mapping.columns, mapping.revenueUnit]).toEqual([['name', id], revenueUnit]);
  });
  test('a header is told from a company', () => {
    expect(looksLikeHeader(header, rows[0])).toBe(true);
    expect(looksLikeHeader(rows[0]!, rows[1])).toBe(false);
  });
});

describe('merging records into a company', () => {
  test('one record is its own company', () => {
    fc.assert(
      fc.property(anyRecord, (record) => {
        const { company } = mergeRecords([{ id: 1, source: 'a', record }]);
        expect({ ...company, codes: new Set(company.codes) }).toEqual({
          ...record,
          codes: new Set(record.codes),
        });
      }),
    );
  });
  test('every part says the record it is from, and is what that record says', () => {
    fc.assert(
      fc.property(fc.array(anyRecord, { minLength: 2, maxLength: 4 }), (records) => {
        const { company, from } = mergeRecords(
          records.map((record, i) => ({ id: i + 1, source: `s${i}`, record })),
        );
        for (const part of ['name', 'status', 'headcount', 'revenue', 'founded', 'town', 'lat'] as const) {
          if (company[part] === null) expect(from[part]).toBeUndefined();
          else expect(records[from[part]! - 1]![part]).toEqual(company[part]);
        }
      }),
    );
  });
  test('a reported number wins over an estimate and a band, however fresh', () => {
    const [base] = fc.sample(anyRecord, 1);
    const exact = {
      ...base!,
      checkedOn: 100,
      headcount: { basis: 'reported', low: 40, high: 40, point: 40 } as const,
    };
    const band = {
      ...base!,
      checkedOn: 900,
      headcount: { basis: 'band', low: 10, high: 49, point: null } as const,
    };
    const merged = mergeRecords([
      { id: 7, source: 'a', record: band },
      { id: 8, source: 'b', record: exact },
    ]);
    expect(merged.company.headcount).toEqual(exact.headcount);
    expect(merged.from.headcount).toBe(8);
    expect(merged.company.checkedOn).toBe(900);
  });
  test('of those without a day of a check the source of the latest day wins; any check comes before', () => {
    const [base] = fc.sample(anyRecord, 1);
    const named = (id: number, asOf: number, checkedOn: number | null) => ({
      ...{ id, source: `s${id}`, asOf },
      record: { ...base!, name: `N${id}`, checkedOn },
    });
    const nameOf = (...records: Parameters<typeof mergeRecords>[0]) => mergeRecords(records).company.name;
    expect(nameOf(named(1, 100, null), named(2, 200, null))).toBe('N2');
    expect(nameOf(named(1, 200, null), named(2, 100, null))).toBe('N1');
    expect(nameOf(named(1, 100, null), named(2, 100, null))).toBe('N1');
    expect(nameOf(named(1, 900, null), named(2, 100, 50), named(3, 800, 40))).toBe('N2');
    expect(nameOf(named(1, 100, 50), named(2, 200, 50))).toBe('N2');
  });
  test('records meet by country and registration number, not by name', () => {
    expect(registrationKey({ country: 'CZ', registration: ' 123 45-6 ' })).toBe('CZ-00123456');
    expect(registrationKey({ country: null, registration: '123456' })).toBeNull();
  });
});
