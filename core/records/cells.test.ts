import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { dayOf, isoOf } from '../dates.ts';
import { CellError, readCount, readDate, readNumber, readQuantity, type CellStyle } from './cells.ts';
import {
  readDepartments,
  readFlag,
  readHistory,
  readMonths,
  readTechnologies,
  readValues,
} from './lists-in-cells.ts';

const POINT: CellStyle = { decimal: '.', dates: 'dmy' };
const COMMA: CellStyle = { decimal: ',', dates: 'dmy' };
const refused = (read: () => unknown) => {
  expect(read).toThrow(CellError);
};

describe('numbers', () => {
  test.each([
    ['1,234.5', POINT, 1234.5],
    ['1.234,5', COMMA, 1234.5],
    ['1 234 567,8', COMMA, 1_234_567.8],
    ['1’234’567', POINT, 1_234_567],
    ['2.5m', POINT, 2_500_000],
    ['3,5 Mio', COMMA, 3_500_000],
    ['1.005m', POINT, 1_005_000],
    ['-12', POINT, -12],
  ])('“%s”', (text, style, value) => {
    expect(readNumber(text, style)).toBe(value);
  });
  test('read back as they are written, with either mark', () => {
    fc.assert(
      fc.property(fc.integer({ min: -1_000_000_000, max: 1_000_000_000 }), fc.nat(99), (whole, cents) => {
        const value = Number(`${whole}.${String(cents).padStart(2, '0')}`);
        const [point, comma] = ['en-GB', 'de-DE'].map((locale) =>
          new Intl.NumberFormat(locale, { minimumFractionDigits: 2 }).format(value),
        );
        expect(readNumber(point!, POINT)).toBe(value);
        expect(readNumber(comma!, COMMA)).toBe(value);
      }),
    );
  });
  test('that cannot be counted with, or are no numbers, are refused, and quickly', () => {
    for (const text of [
      '9'.repeat(400),
      '9'.repeat(190) + 'bn'.repeat(50),
      '1.2.3',
      '12 people',
      '',
      '5x',
      '1e999',
    ])
      refused(() => readNumber(text, POINT));
    const start = performance.now();
    for (const text of [
      ' '.repeat(30_000) + 'x',
      '1 '.repeat(15_000),
      '('.repeat(30_000),
      '≈' + ' '.repeat(30_000),
    ])
      refused(() => readQuantity(text, POINT));
    // Not a measure of speed: a quadratic expression takes minutes over these.
    expect(performance.now() - start).toBeLessThan(2000);
  });
});

describe('quantities', () => {
  const bounds = (text: string) => {
    const { basis, low, high, point } = readQuantity(text, POINT);
    return [basis, low, high, point];
  };
  test.each([
    ['120', ['reported', 120, 120, 120]],
    ['10-49', ['band', 10, 49, null]],
    ['10 – 49', ['band', 10, 49, null]],
    ['10 bis 49', ['band', 10, 49, null]],
    ['7-7', ['reported', 7, 7, 7]],
    ['50+', ['band', 50, Infinity, null]],
    ['>= 50', ['band', 50, Infinity, null]],
    ['>49', ['band', 50, Infinity, null]],
    ['<10', ['band', 0, 9, null]],
    ['up to 9', ['band', 0, 9, null]],
    ['<= 9', ['band', 0, 9, null]],
    ['≈120', ['estimate', 120, 120, 120]],
    ['~120 (90-160)', ['estimate', 90, 160, 120]],
    ['€ 1,500', ['reported', 1500, 1500, 1500]],
  ])('“%s”', (text, expected) => {
    expect(bounds(text)).toEqual(expected);
  });
  test('turned round, out of their range or below nothing are refused', () => {
    for (const text of ['49-10', '≈200 (90-160)', '-5', 'some']) refused(() => readQuantity(text, POINT));
    expect(readQuantity('-5', POINT, 1, true).point).toBe(-5);
  });
  test('are scaled once, at both ends', () => {
    expect(readQuantity('2-10', POINT, 1e6)).toMatchObject({ low: 2e6, high: 1e7 });
    expect(readQuantity('8.2', POINT, 1e6).point).toBe(8_200_000);
  });
  test('of heads are whole', () => {
    expect(readCount('12')).toBe(12);
    for (const text of ['-1', '1.5', 'x']) refused(() => readCount(text));
  });
});

describe('dates', () => {
  test('are in the order that the file has, or as a machine writes them; those there are not are refused', () => {
    const iso = (text: string, dates: 'dmy' | 'mdy' = 'dmy') =>
      isoOf(readDate(text, { decimal: '.', dates }));
    expect([iso('3/4/2026'), iso('3/4/2026', 'mdy'), iso('2026-04-03T10:00'), iso('3. 4. 2026')]).toEqual([
      ...['2026-04-03', '2026-03-04', '2026-04-03', '2026-04-03'],
    ]);
    for (const text of ['31/2/2026', '2026-13-01', 'lately', '1'.repeat(5000)])
      refused(() => readDate(text, POINT));
  });
});

describe('lists in a cell', () => {
  test('of products have the days on which they were seen, where those are known', () => {
    expect(readTechnologies('Rutavel; Kontovar [2024-03-01..2026-02-11] | Planodor [..2026-01-01]')).toEqual([
      { label: 'Rutavel', first: null, last: null },
      { label: 'Kontovar', first: dayOf('2024-03-01'), last: dayOf('2026-02-11') },
      { label: 'Planodor', first: null, last: dayOf('2026-01-01') },
    ]);
    refused(() => readTechnologies('Kontovar [2024-02-30..]'));
  });
  test('of years are ascending, each year once, estimates marked', () => {
    expect(readHistory('2023: ≈130; 2021:120')).toEqual([
      { year: 2021, value: 120, estimate: false },
      { year: 2023, value: 130, estimate: true },
    ]);
    for (const text of ['2021:120; 2021:121', '21:120', '2021']) refused(() => readHistory(text));
  });
  test('of months are on end from the first', () => {
    expect(readMonths('2024-11: 1000 1200  900')).toEqual({ start: '2024-11', values: [1000, 1200, 900] });
    for (const text of ['2024-13: 1', '2024-11:', 'Nov: 1']) refused(() => readMonths(text));
  });
  test('of departments have those of one and three years ago where they are known', () => {
    expect(readDepartments('production 40/38/31; sales: 6; engineering 3//2')).toEqual([
      { key: 'production', now: 40, before1: 38, before3: 31 },
      { key: 'sales', now: 6, before1: null, before3: null },
      { key: 'engineering', now: 3, before1: null, before3: 2 },
    ]);
    refused(() => readDepartments('astrology 3'));
  });
  test('none is known to be empty; values are each once; yes and no are of several languages', () => {
    expect([readValues('keine'), readValues('a, b; a|c')]).toEqual([[], ['a', 'b', 'c']]);
    expect(['Ano', 'JA', 'non', 'ne'].map(readFlag)).toEqual([true, true, false, false]);
    refused(() => readFlag('perhaps'));
  });
  test('with a part that no such list has are refused, however long', () => {
    for (const read of [readTechnologies, readHistory, readDepartments, readValues])
      refused(() => read('x'.repeat(5000)));
  });
});
