import { dayOf } from '../dates.ts';
import type { Quantity } from './record.ts';

/** How a file writes what can be written in more than one way. */
export interface CellStyle {
  /** The decimal mark; the other of the two is then the thousands separator. */
  decimal: '.' | ',';
  /** Order of day and month in dates such as 03/04/2026. */
  dates: 'dmy' | 'mdy';
}

/** A cell that cannot be read: what a right one looks like. */
export class CellError extends Error {
  readonly rule: string;
  constructor(rule: string) {
    super(rule);
    this.rule = rule;
  }
}

/** Characters that a figure or a date has at most; the expressions here need not be asked of longer texts. */
const LONGEST_FIGURE = 200;

/** @throws CellError */
export function checkLength(text: string, what: string): void {
  if (text.length > LONGEST_FIGURE) throw new CellError(`${what} of at most ${LONGEST_FIGURE} characters`);
}

const SCALES: Record<string, number> = {
  k: 1e3,
  tsd: 1e3,
  tis: 1e3,
  tys: 1e3,
  m: 1e6,
  mio: 1e6,
  mil: 1e6,
  mln: 1e6,
  bn: 1e9,
  mrd: 1e9,
  mld: 1e9,
};

const NUMBERS = {
  '.': /^(-?\d+(?:,\d{3})*)(?:\.(\d+))?([a-z]+)?\.?$/i,
  ',': /^(-?\d+(?:\.\d{3})*)(?:,(\d+))?([a-z]+)?\.?$/i,
};

/** What most cells hold; read without more ado. Longer ones could lose digits. */
const PLAIN = /^\d{1,9}(?:\.\d{1,6})?$/;

/** A plain number: 1234, 1 234,5 (decimal comma), 1,234.5 (decimal point), 2.5m. @throws CellError */
export function readNumber(text: string, style: CellStyle): number {
  if (PLAIN.test(text) && (style.decimal === '.' || !text.includes('.'))) return Number(text);
  checkLength(text, 'a number');
  const tight = text.replace(/[\s\u00a0\u202f'’]/g, '');
  const thousands = style.decimal === ',' ? '.' : ',';
  const parts = NUMBERS[style.decimal].exec(tight);
  const scale = parts?.[3] === undefined ? 1 : SCALES[parts[3].toLowerCase()];
  if (!parts || scale === undefined)
    throw new CellError(`a number with decimal ${style.decimal === ',' ? 'comma' : 'point'}`);
  const value = Number(`${parts[1]!.replaceAll(thousands, '')}.${parts[2] ?? '0'}`);
  const scaled = times(value, scale);
  if (!Number.isFinite(scaled)) throw new CellError('a number that can be counted with');
  return scaled;
}

/** A figure in a larger unit, without what binary fractions add: 1.005 million is 1,005,000. */
function times(value: number, scale: number): number {
  return scale === 1 ? value : Number((value * scale).toPrecision(15));
}

/**
 * A number, a band or an estimate: 120, 10-49, 50+, <10, up to 9, ≈120, ≈120 (90-160).
 * @throws CellError
 */
export function readQuantity(text: string, style: CellStyle, scale = 1, belowZero = false): Quantity {
  if (PLAIN.test(text)) return exact(times(readNumber(text, style), scale));
  checkLength(text, 'a number');
  const cell = text
    .trim()
    .replace(/^[€£$]\s*/, '')
    .replace(/\s*[€£$]$/, '');
  const number = (part: string) => {
    const value = times(readNumber(part, style), scale);
    if (value < 0 && !belowZero) throw new CellError('a number that is not negative');
    return value;
  };
  const estimate = /^[≈~]\s*([^(]+?)\s*(?:\(([^)]*)\))?$/.exec(cell);
  if (estimate) {
    const point = number(estimate[1]!);
    const range = estimate[2] === undefined ? null : readQuantity(estimate[2], style, scale, belowZero);
    const [low, high] = range ? [range.low, range.high] : [point, point];
    if (point < low || point > high) throw new CellError('an estimate that lies within its range');
    return { basis: 'estimate', low, high, point };
  }
  const band = /^(.*\d\S*)\s*(?:-|–|—|\.\.|\bto\b|\bbis\b|\baz\b|\bdo\b)\s*(\d.*)$/i.exec(cell);
  if (band) {
    const low = number(band[1]!);
    const high = number(band[2]!);
    if (low > high) throw new CellError('a band whose lower end is not above its upper end');
    return low === high ? exact(low) : { basis: 'band', low, high, point: null };
  }
  const above = /^(?:(.+?)\s*\+|(?:>=|≥|from|ab)\s*(.+))$/i.exec(cell);
  if (above) return { basis: 'band', low: number((above[1] ?? above[2])!), high: Infinity, point: null };
  const overs = /^>\s*(.+)$/.exec(cell);
  if (overs) return { basis: 'band', low: number(overs[1]!) + 1, high: Infinity, point: null };
  const below = /^(?:<\s*(.+)|(?:<=|≤|up to|bis|do)\s*(.+))$/i.exec(cell);
  if (below)
    return {
      basis: 'band',
      low: 0,
      high:
        below[1] === undefined || below[1].startsWith('=')
          ? number(below[2] ?? below[1]!.slice(1))
          : number(below[1]) - 1,
      point: null,
    };
  return exact(number(cell));
}

function exact(value: number): Quantity {
  return { basis: 'reported', low: value, high: value, point: value };
}

/** A date: 2026-09-30, 30.9.2026, 30/09/2026, 2026/9/30, or a time stamp that begins so. @throws CellError */
export function readDate(text: string, style: CellStyle): number {
  checkLength(text, 'a date');
  const cell = text.trim();
  const iso = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})(?:[T ].*)?$/.exec(cell);
  const other = /^(\d{1,2})[./-]\s?(\d{1,2})[./-]\s?(\d{4})$/.exec(cell);
  const [year, month, day] = iso
    ? [iso[1], iso[2], iso[3]]
    : other
      ? style.dates === 'dmy' || cell.includes('.')
        ? [other[3], other[2], other[1]]
        : [other[3], other[1], other[2]]
      : [];
  const found = year ? dayOf(`${year}-${month!.padStart(2, '0')}-${day!.padStart(2, '0')}`) : null;
  if (found === null) throw new CellError('a calendar date such as 2026-09-30 or 30.9.2026');
  return found;
}

/** A calendar year between 1000 and 2100. @throws CellError */
export function readYear(text: string): number {
  const year = Number(/^\s*(\d{4})(?:-\d{2}(?:-\d{2})?)?\s*$/.exec(text)?.[1]);
  if (!(year >= 1000 && year <= 2100)) throw new CellError('a year of four figures');
  return year;
}

/** A whole number that is not negative: 1200, 1 200. @throws CellError */
export function readCount(text: string): number {
  const figures = text.replace(/[\s\u00a0\u202f.,'’](?=\d{3}(?!\d))/g, '');
  if (!/^\d{1,12}$/.test(figures)) throw new CellError('a whole number');
  return Number(figures);
}
