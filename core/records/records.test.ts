import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { anyRecord } from '../testing/any-record.ts';
import { CellError, readDate, readNumber, readQuantity } from './cells.ts';
import { guessMapping, looksLikeHeader } from './mapping.ts';
import { mergeRecords } from './merge.ts';
import { registrationKey } from './record.ts';

const comma = { decimal: ',', dates: 'dmy' } as const;
const point = { decimal: '.', dates: 'dmy' } as const;

describe('cells', () => {
  test.each([
    ['1 234,5', comma, 1234.5],
    ['1.234.567', comma, 1234567],
    ['1,234.5', point, 1234.5],
    ['2.3m', point, 2_300_000],
    ['2,5 mio', comma, 2_500_000],
    ["1'200", point, 1200],
  ])('%s is a number', (text, style, value) => {
    expect(readNumber(text, style)).toBe(value);
  });
  test.each(['1.2.3', 'many', '12,5', '1,23'])('%s is none with a decimal point', (text) => {
    expect(() => readNumber(text, point)).toThrow(CellError);
  });
  test.each([
    ['10-49', 'band', 10, 49, null],
    ['10 – 49', 'band', 10, 49, null],
    ['10 bis 49', 'band', 10, 49, null],
    ['50+', 'band', 50, Infinity, null],
    ['>= 250', 'band', 250, Infinity, null],
    ['<10', 'band', 0, 9, null],
    ['up to 9', 'band', 0, 9, null],
    ['7-7', 'reported', 7, 7, 7],
    ['≈120 (90-160)', 'estimate', 90, 160, 120],
    ['~15', 'estimate', 15, 15, 15],
    ['€ 40', 'reported', 40, 40, 40],
  ])('%s is a %s', (text, basis, low, high, value) => {
    expect(readQuantity(text, point)).toEqual({ basis, low, high, point: value });
  });
  test.each(['49-10', '-5', '≈5 (6-9)', 'fifty'])('%s is no quantity', (text) => {
    expect(() => readQuantity(text, point)).toThrow(CellError);
  });
  test('dates in several forms are the same day', () => {
    const day = readDate('2026-09-30', point);
    for (const text of ['30.9.2026', '30/09/2026', '2026/9/30', '2026-09-30T10:00:00Z', '30. 9. 2026'])
      expect(readDate(text, point)).toBe(day);
    expect(readDate('09/30/2026', { ...point, dates: 'mdy' })).toBe(day);
    expect(() => readDate('31.2.2026', point)).toThrow(CellError);
  });
});

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
        const { company } = mergeRecords([{ id: 1, source: 1, record }]);
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
          records.map((record, i) => ({ id: i + 1, source: i, record })),
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
      { id: 7, source: 1, record: band },
      { id: 8, source: 2, record: exact },
    ]);
    expect(merged.company.headcount).toEqual(exact.headcount);
    expect(merged.from.headcount).toBe(8);
    expect(merged.company.checkedOn).toBe(900);
  });
  test('records meet by country and registration number, not by name', () => {
    expect(registrationKey({ country: 'CZ', registration: ' 123 45-6 ' })).toBe('CZ-123456');
    expect(registrationKey({ country: null, registration: '123456' })).toBeNull();
  });
});
