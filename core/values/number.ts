import { CellError, checkLength, type CellStyle } from './cell.ts';

/** What most cells hold; read without more ado. Longer ones could lose digits. */
const PLAIN = /^\d{1,9}(?:\.\d{1,6})?$/;

/** A decimal point before an exponent, whatever mark the file has: so machines write. */
const SCIENTIFIC = /^[+-]?\d+(?:[.,]\d+)?e[+-]?\d{1,3}$/i;

const GROUPED = {
  '.': /^[+-]?(?:\d+|\d{1,3}(?:[,  '’]\d{3})+)(?:\.\d+)?$/,
  ',': /^[+-]?(?:\d+|\d{1,3}(?:[.  '’]\d{3})+)(?:,\d+)?$/,
};

/** A mark that stands there twice is no decimal one, whatever the file has: 12.345.678. */
const TWICE_GROUPED = /^[+-]?\d{1,3}(?:(?:\.\d{3}){2,}|(?:,\d{3}){2,})$/;

/** As India groups: 12,34,567.50. */
const BY_LAKHS = /^[+-]?\d{1,2}(?:,\d{2})+,\d{3}(?:\.\d+)?$/;

/** Whether `readNumber` needs no look at marks and signs: figures, and a decimal point where that is the mark. */
export function isPlainNumber(text: string, decimal: '.' | ','): boolean {
  return PLAIN.test(text) && (decimal === '.' || !text.includes('.'));
}

/**
 * A number as it is written, without unit: 1234, 1 234,5 (decimal comma), 1,234.5 (decimal point), 1'234, −12, 1.2E+06.
 * A mark that is not the decimal one stands between groups of three figures, or the number is not understood: 12.5
 * in a column of decimal commas is no 125.
 * @throws CellError
 */
export function readNumber(text: string, { decimal }: Pick<CellStyle, 'decimal'>): number {
  if (isPlainNumber(text, decimal)) return Number(text);
  checkLength(text, 'a number');
  const plain = text
    .trim()
    .replace(/[\u00a0\u202f\u2009]/g, ' ')
    .replace(/^[\u2212\u2013]/, '-');
  let figures: string;
  if (SCIENTIFIC.test(plain)) figures = plain.replace(',', '.');
  else if (GROUPED[decimal].test(plain)) figures = ungrouped(plain, decimal);
  else if (BY_LAKHS.test(plain)) figures = plain.replaceAll(',', '');
  else if (TWICE_GROUPED.test(plain)) figures = plain.replace(/[.,]/g, '');
  else throw new CellError(`a number with decimal ${decimal === ',' ? 'comma' : 'point'}`);
  const value = Number(figures);
  if (!Number.isFinite(value) || Math.abs(value) > 1e18)
    throw new CellError('a number that can be counted with');
  return value;
}

function ungrouped(plain: string, decimal: '.' | ','): string {
  const figures = plain.replace(decimal === ',' ? /[. '’]/g : /[, '’]/g, '');
  return decimal === ',' ? figures.replace(',', '.') : figures;
}

/** A figure in a larger unit, without what binary fractions add: 8.2 million is 8,200,000. */
export function times(value: number, scale: number): number {
  return scale === 1 ? value : Number((value * scale).toPrecision(15));
}

/** A whole number that is not negative: 1200, 1 200, 1.200. @throws CellError */
export function readCount(text: string): number {
  const figures = text
    .trim()
    .replace(/\.0$/, '')
    .replace(/[\s\u00a0\u202f.,'’](?=\d{3}(?!\d))/g, '');
  if (!/^\d{1,12}$/.test(figures)) throw new CellError('a whole number');
  return Number(figures);
}
