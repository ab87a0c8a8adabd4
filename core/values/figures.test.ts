import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { CURRENCIES } from '../money/rates.ts';
import { CellError } from './cell.ts';
import { readFigure, readQuantity, type FigureStyle } from './figures.ts';
import { readCount, readNumber } from './number.ts';

const POINT: FigureStyle = { decimal: '.' };
const COMMA: FigureStyle = { decimal: ',' };
const STAFF: FigureStyle = { decimal: ',', people: true };
const MONEY: FigureStyle = { decimal: ',', currencies: CURRENCIES, belowZero: true };
const refused = (read: () => unknown) => {
  expect(read).toThrow(CellError);
};

describe('numbers', () => {
  test.each([
    ['1,234.5', POINT, 1234.5],
    ['1.234,5', COMMA, 1234.5],
    ['1.250', COMMA, 1250],
    ['1 234 567,8', COMMA, 1_234_567.8],
    ['1’234’567', POINT, 1_234_567],
    ['12,34,567.5', POINT, 1_234_567.5],
    ['1,20,400', COMMA, 120_400],
    ['1.2E+06', COMMA, 1_200_000],
    ['-12', POINT, -12],
    ['−12,5', COMMA, -12.5],
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
  test('whose marks do not stand between groups of three are not understood as another number', () => {
    for (const text of ['12.5', '1.2500', '1.25.0', '1250.5', '12 34'])
      refused(() => readNumber(text, COMMA));
    for (const text of ['12,5', '1,2500', '1,25,0']) refused(() => readNumber(text, POINT));
  });
  test('that cannot be counted with, or are no numbers, are refused, and quickly', () => {
    for (const text of ['9'.repeat(400), '1.2.3', '12 people', '', '5x', '1e999'])
      refused(() => readNumber(text, POINT));
    const start = performance.now();
    for (const text of [' '.repeat(30_000) + 'x', '1 '.repeat(15_000), '('.repeat(199), '≈ '.repeat(99)])
      refused(() => readQuantity(text, POINT));
    // Not a measure of speed: a quadratic expression takes minutes over these.
    expect(performance.now() - start).toBeLessThan(2000);
  });
});

describe('figures', () => {
  const bounds = (text: string, style: FigureStyle) => {
    const { basis, low, high, point } = readQuantity(text, style);
    return [basis, low, high, point];
  };
  test.each([
    ['120', POINT, ['reported', 120, 120, 120]],
    ['1.250', STAFF, ['reported', 1250, 1250, 1250]],
    ['10-49', POINT, ['band', 10, 49, null]],
    ['10 – 49', POINT, ['band', 10, 49, null]],
    ['10 bis 49', POINT, ['band', 10, 49, null]],
    ['10 až 49', POINT, ['band', 10, 49, null]],
    ['von 10 bis 49 Mitarbeitern', STAFF, ['band', 10, 49, null]],
    ['od 10 do 49', POINT, ['band', 10, 49, null]],
    ['between 10 and 49', POINT, ['band', 10, 49, null]],
    ['de 10 à 49 salariés', STAFF, ['band', 10, 49, null]],
    ['1.001-5.000 employees', STAFF, ['band', 1001, 5000, null]],
    ['7-7', POINT, ['reported', 7, 7, 7]],
    ['50+', POINT, ['band', 50, Infinity, null]],
    ['10.001+ employees', STAFF, ['band', 10_001, Infinity, null]],
    ['250 and more', POINT, ['band', 250, Infinity, null]],
    ['250 a více', POINT, ['band', 250, Infinity, null]],
    ['250 und mehr', POINT, ['band', 250, Infinity, null]],
    ['>= 50', POINT, ['band', 50, Infinity, null]],
    ['ab 50', POINT, ['band', 50, Infinity, null]],
    ['>49', POINT, ['band', 50, Infinity, null]],
    ['über 250', POINT, ['band', 251, Infinity, null]],
    ['více než 250', POINT, ['band', 251, Infinity, null]],
    ['<10', POINT, ['band', 0, 9, null]],
    ['unter 10', POINT, ['band', 0, 9, null]],
    ['weniger als 10 Beschäftigte', STAFF, ['band', 0, 9, null]],
    ['méně než 10', POINT, ['band', 0, 9, null]],
    ['moins de 10', POINT, ['band', 0, 9, null]],
    ['<1', POINT, ['reported', 0, 0, 0]],
    ['up to 9', POINT, ['band', 0, 9, null]],
    ['<= 9', POINT, ['band', 0, 9, null]],
    ['≈120', POINT, ['estimate', 120, 120, 120]],
    ['ca. 1.200', STAFF, ['estimate', 1200, 1200, 1200]],
    ['about 40', POINT, ['estimate', 40, 40, 40]],
    ['okolo 40', POINT, ['estimate', 40, 40, 40]],
    ['~120 (90-160)', POINT, ['estimate', 90, 160, 120]],
    ['120 MA', STAFF, ['reported', 120, 120, 120]],
    ['45 zaměstnanců', STAFF, ['reported', 45, 45, 45]],
  ])('“%s”', (text, style, expected) => {
    expect(bounds(text, style)).toEqual(expected);
  });
  test('turned round, out of their range or below nothing are refused', () => {
    for (const text of ['49-10', '≈200 (90-160)', '-5', 'some', '10-Nov', '<0', '5 to', 'to 5-', '3/4'])
      refused(() => readQuantity(text, POINT));
    expect(readQuantity('-5', { ...POINT, belowZero: true }).point).toBe(-5);
  });
  test('are in the unit of the column, at both ends, and rounded once', () => {
    expect(readQuantity('2-10', { ...POINT, unit: 1e6 })).toMatchObject({ low: 2e6, high: 1e7 });
    expect(readQuantity('8.2', { ...POINT, unit: 1e6 }).point).toBe(8_200_000);
    expect(readQuantity('1.005m', POINT).point).toBe(1_005_000);
  });
});

describe('money', () => {
  test.each([
    ['€ 1.500', 1500, 'EUR'],
    ['1 500 Kč', 1500, 'CZK'],
    ['2,5 mil. Kč', 2_500_000, 'CZK'],
    ['2,5 mil Kč', 2_500_000, 'CZK'],
    ['350 zł', 350, 'PLN'],
    ['US$ 4m', 4_000_000, 'USD'],
    ['$4bn', 4_000_000_000, 'USD'],
    ['1,2 Mio. €', 1_200_000, 'EUR'],
    ['1,2 Mrd. EUR', 1_200_000_000, 'EUR'],
    ['850 Tsd. €', 850_000, 'EUR'],
    ['850 T€', 850_000, 'EUR'],
    ['850 TEUR', 850_000, 'EUR'],
    ['12,5 EURm', 12_500_000, 'EUR'],
    ['3 USDbn', 3_000_000_000, 'USD'],
    ['₹ 84,2 crore', 842_000_000, 'INR'],
    ['120万元', 1_200_000, 'CNY'],
    ['4百万円', 4_000_000, 'JPY'],
    ['850k€', 850_000, 'EUR'],
    ['3,4 M€', 3_400_000, 'EUR'],
    ['12 млн €', 12_000_000, 'EUR'],
    ['(1.234)', -1234, null],
    ['1.234-', -1234, null],
    ['−1.234 €', -1234, 'EUR'],
    ['1.2E+06', 1_200_000, null],
    ['900 CZK', 900, 'CZK'],
  ])('“%s”', (text, point, currency) => {
    expect(readFigure(text, MONEY)).toMatchObject({ quantity: { point }, currency });
  });
  test('a unit in the cell counts instead of that of the column, and ends of a band share it', () => {
    const thousands = { ...MONEY, unit: 1000 };
    expect(readQuantity('850', thousands).point).toBe(850_000);
    expect(readQuantity('2 Mio. €', thousands).point).toBe(2_000_000);
    expect(readQuantity('2-10 Mio. €', thousands)).toMatchObject({ low: 2e6, high: 1e7 });
    expect(readQuantity('500 Tsd. - 2 Mio.', MONEY)).toMatchObject({ low: 5e5, high: 2e6 });
    expect(readQuantity('unter 2 Mio. €', MONEY)).toMatchObject({ low: -Infinity, high: 1_999_999 });
    expect(readQuantity('<0', MONEY)).toMatchObject({ low: -Infinity, high: -1 });
  });
  test('crowns of the north are those of the column; “mil” alone could be a thousand; two currencies are none', () => {
    expect(readFigure('5 kr', { ...MONEY, currency: 'SEK' })).toMatchObject({ currency: 'SEK' });
    for (const text of ['5 kr', '5 mil', '5 € 6 $', '5 XYZ']) refused(() => readFigure(text, MONEY));
  });
});

test('counts of heads are whole', () => {
  expect([readCount('12'), readCount('1 200'), readCount('1.200'), readCount('12.0')]).toEqual([
    12, 1200, 1200, 12,
  ]);
  for (const text of ['-1', '1.5', 'x']) refused(() => readCount(text));
});
