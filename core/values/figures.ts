import { CURRENCIES } from '../money/rates.ts';
import type { Quantity } from '../records/record.ts';
import { fold } from '../text/fold.ts';
import { CellError, checkLength, type CellStyle } from './cell.ts';
import {
  ABOUT,
  ABOVE,
  AND_MORE,
  asWord,
  BELOW,
  CURRENCY_SIGNS,
  FROM,
  PEOPLE,
  SCALED_MONEY,
  SCALES,
  TO,
  UP_TO,
} from './figure-words.ts';
import { isPlainNumber, readNumber, times } from './number.ts';

/** What the column says of a figure where the cell does not. */
export interface FigureStyle extends Pick<CellStyle, 'decimal'> {
  /** What figures without a unit of their own are counted in; 1 where left out. */
  unit?: number;
  /** Whether a figure may be below zero. */
  belowZero?: boolean;
  /** ISO codes that are read as a currency; none where it is no money. */
  currencies?: readonly string[];
  /** The currency of amounts that name none. */
  currency?: string;
  /** Whether it counts people, so that words for them may follow. */
  people?: boolean;
  /** Whether there are no decimals, so that either mark before three figures stands between thousands: 1.200 and 1,200 are one. */
  whole?: boolean;
}

/** A figure with the currency that its cell names, or null. */
export interface Figure {
  quantity: Quantity;
  currency: string | null;
}

/** One written number: its text, the unit and currency that stand with it. */
interface Written {
  text: string;
  unit: number | null;
}

/**
 * A figure as people write it: 120, 10-49, 50+, <10, "unter 10", ≈120 (90-160), "ca. 1 200", 2-10 Mio. €, (1,234),
 * 1.2E+06, "11-50 employees". Its parts, in this order and each at most once:
 *
 *     [about] [bound] number [unit] [to number [unit]] [and more] [(range)]      currency and people anywhere
 *
 * A unit in the cell counts instead of the column's, and ends of a band share the last one's. A bound that is left
 * out is the next whole number.
 * @throws CellError
 */
export function readFigure(written: string, style: FigureStyle): Figure {
  const cell = style.whole ? written.replace(THOUSANDS, (figures) => figures.replace(/[.,]/g, '')) : written;
  if (isPlainNumber(cell, style.decimal))
    return { quantity: exact(times(Number(cell), style.unit ?? 1)), currency: null };
  checkLength(cell, 'a number');
  // Bands as registers code them: ANTAL_10_19.
  const coded = style.people ? /^[A-Z]+_(\d+)_(\d+)$/i.exec(cell.trim()) : null;
  const named = NAMED.exec(cell.trim());
  const figure = coded
    ? `${coded[1]}-${coded[2]}`
    : named && /\d/.test(named[2]!) && !ABOUT.has(fold(named[1]!))
      ? named[2]!
      : cell;
  const tokens = tokensOf(figure.replace(BESIDE, '').replace(NAME_BEHIND, ''), style);
  const reader = new FigureReader(tokens, style);
  const quantity = reader.read();
  return { quantity, currency: reader.currency };
}

/** A class by its name, with its figures in brackets: "Micro (<10)", "Small (10-49)". */
const NAMED = /^(\p{L}[\p{L} -]{0,30}) ?\(([^()]{1,60})\)$/u;
/** The name of a class behind its figures: "10-49 (small)". */
const NAME_BEHIND = / ?\(\p{L}[\p{L} -]{1,30}\)$/u;
/** Figures with marks between thousands, of which none can be a decimal one. */
const THOUSANDS = /(?<![\d.,])\d{1,3}(?:[.,]\d{3})+(?![.,]?\d)/g;
/** What may stand behind a figure and says no more of it: the year that it is of, or that it is a year's. */
const BESIDE =
  / ?(?:\((?:19|20)\d\d\)|p\.? ?a\.?|per (?:year|annum)|pro jahr|jährlich|annually|a year|ročně|rocznie|par an|all[’']anno|al año|per jaar)$/i;

/** @throws CellError */
export function readQuantity(cell: string, style: FigureStyle): Quantity {
  return readFigure(cell, style).quantity;
}

function exact(value: number): Quantity {
  return { basis: 'reported', low: value, high: value, point: value };
}

interface Token {
  /** Folded word or sign, or the text of a number. */
  text: string;
  number: boolean;
}

/** A number with its separators, but not with the spaces around it: "1 234 567,8", "1.2E+06". */
const NUMBER = /^\d+(?:[.,'’ ]\d+)*(?:e[+-]?\d+)?(?![\d])/i;
const SIGN = /^(?:>=|<=|=>|=<|\.{2,3}|[<>≥≤≈~+()\-€£$¥₺₴₩₹₪/=])/;
const WORD = /^[\p{L}][\p{L}]*[$]?/u;

function tokensOf(cell: string, style: FigureStyle): Token[] {
  let rest = cell
    .replace(/[\u00a0\u202f\u2009]/g, ' ')
    .replace(/[\u2212\u2013\u2014]/g, '-')
    .trim();
  const tokens: Token[] = [];
  while (rest !== '') {
    const number = numberAt(rest);
    const found = number ?? SIGN.exec(rest)?.[0] ?? WORD.exec(rest)?.[0];
    if (found === undefined) {
      if (/^[.,;:'’"`´]/.test(rest)) rest = rest.slice(1).trimStart();
      else throw new CellError(ruleOf(style));
      continue;
    }
    rest = rest.slice(found.length);
    if (number !== null) tokens.push({ text: found, number: true });
    else {
      const dot = rest.startsWith('.') && !rest.startsWith('..') ? '.' : '';
      const word = asWord(found);
      tokens.push({ text: word === 'mil' ? `mil${dot}` : word, number: false });
      rest = rest.slice(dot.length);
    }
    rest = rest.trimStart();
  }
  return tokens;
}

/** The number at the start of a text. A space belongs to it only before three figures. */
function numberAt(text: string): string | null {
  const found = NUMBER.exec(text)?.[0];
  if (found === undefined) return null;
  const gap = / (?!\d{3}(?:\D|$))/.exec(found);
  return gap ? found.slice(0, gap.index) : found;
}

function ruleOf({ decimal, currencies }: FigureStyle): string {
  const mark = decimal === ',' ? 'comma' : 'point';
  return currencies ? `an amount with decimal ${mark}` : `a number with decimal ${mark}`;
}

const MIL_IS_MILLION: ReadonlySet<string> = new Set(['CZK', 'PLN', 'RON']);
/** Currencies that are written "kr". */
const CROWNS: ReadonlySet<string> = new Set(['SEK', 'NOK', 'DKK', 'ISK']);

/** Longest phrase that the word lists have. */
const MOST_WORDS = 3;

/** Reads the tokens of one cell from left to right. */
class FigureReader {
  currency: string | null = null;
  private readonly tokens: Token[];
  private readonly style: FigureStyle;
  private at = 0;

  constructor(tokens: Token[], style: FigureStyle) {
    this.style = style;
    this.tokens = this.withoutCurrency(tokens);
  }

  read(): Quantity {
    if (this.tokens.length > 2 && this.tokens[0]!.text === '(' && this.tokens.at(-1)!.text === ')')
      return this.inBrackets();
    const about = this.phrase(ABOUT);
    const bound = this.bound();
    const first = this.written();
    const second = this.secondEnd();
    const more = second === null && bound === null && this.phrase(AND_MORE);
    const range = this.range();
    if (this.at < this.tokens.length) this.fail();
    if (range) return this.estimate(this.value(first), range);
    if (second) return this.band(bound, first, second, about);
    if (bound === null && !more) {
      const value = this.value(first);
      return about ? { ...exact(value), basis: 'estimate' } : exact(value);
    }
    return this.openBand(more ? FROM : bound!, this.value(first));
  }

  /** The upper end of a band; "and" may also begin "and more". */
  private secondEnd(): Written | null {
    const from = this.at;
    if (this.phrase(TO) && (this.next()?.number || this.next()?.text === '-')) return this.written();
    this.at = from;
    return null;
  }

  /** (1,234) is below zero. */
  private inBrackets(): Quantity {
    this.at = 1;
    const { text, unit } = this.written();
    if (this.at !== this.tokens.length - 1) this.fail();
    return exact(this.value({ text: `-${text}`, unit }));
  }

  private band(bound: ReadonlySet<string> | null, first: Written, second: Written, about: boolean): Quantity {
    if (bound !== null && bound !== FROM) this.fail();
    const shared = first.unit ?? second.unit;
    const low = this.value({ ...first, unit: shared });
    const high = this.value({ ...second, unit: second.unit ?? first.unit });
    if (low > high) throw new CellError('a band whose lower end is not above its upper end');
    if (low === high) return about ? { ...exact(low), basis: 'estimate' } : exact(low);
    return { basis: 'band', low, high, point: null };
  }

  private openBand(bound: ReadonlySet<string>, value: number): Quantity {
    const { belowZero } = this.style;
    const band = (low: number, high: number): Quantity => {
      if (low > high) throw new CellError('a number that is not negative');
      return low === high ? exact(low) : { basis: 'band', low, high, point: null };
    };
    const lowest = belowZero ? -Infinity : 0;
    if (bound === BELOW) return band(lowest, Number.isInteger(value) ? value - 1 : Math.floor(value));
    if (bound === UP_TO) return band(lowest, value);
    if (bound === ABOVE) return band(Number.isInteger(value) ? value + 1 : Math.ceil(value), Infinity);
    return band(value, Infinity);
  }

  private estimate(point: number, range: Quantity): Quantity {
    if (point < range.low || point > range.high)
      throw new CellError('an estimate that lies within its range');
    return { basis: 'estimate', low: range.low, high: range.high, point };
  }

  /** The range in brackets after an estimate. */
  private range(): Quantity | null {
    if (this.next()?.text !== '(') return null;
    if (this.tokens.at(-1)!.text !== ')') this.fail();
    this.at++;
    const first = this.written();
    if (!this.phrase(TO)) this.fail();
    const second = this.written();
    if (this.at !== this.tokens.length - 1) this.fail();
    this.at++;
    return this.band(null, first, second, false);
  }

  private bound(): ReadonlySet<string> | null {
    for (const bound of [BELOW, UP_TO, ABOVE, FROM]) if (this.phrase(bound)) return bound;
    return null;
  }

  /** A number with its sign and unit. */
  private written(): Written {
    let sign = '';
    if (this.next()?.text === '-' || this.next()?.text === '+')
      sign = this.tokens[this.at++]!.text === '-' ? '-' : '';
    const number = this.next();
    if (!number?.number) this.fail();
    this.at++;
    const unit = SCALES.get(this.next()?.text ?? '');
    if (unit !== undefined) this.at++;
    // Accounts programs write the sign behind the figure.
    if (sign === '' && this.next()?.text === '-' && this.at === this.tokens.length - 1) {
      sign = '-';
      this.at++;
    }
    return { text: `${sign}${number.text}`, unit: unit ?? null };
  }

  private value({ text, unit }: Written): number {
    const value = times(readNumber(text, this.style), unit ?? this.style.unit ?? 1);
    if (value < 0 && !this.style.belowZero) throw new CellError('a number that is not negative');
    if (Math.abs(value) > 1e18) throw new CellError('a number that can be counted with');
    return value;
  }

  /** Takes the longest phrase of a list that comes next. */
  private phrase(list: ReadonlySet<string>): boolean {
    for (let n = MOST_WORDS; n > 0; n--) {
      const next = this.tokens.slice(this.at, this.at + n);
      if (next.length < n || next.some((token) => token.number)) continue;
      if (!list.has(next.map((token) => token.text).join(' '))) continue;
      this.at += n;
      return true;
    }
    return false;
  }

  private next(): Token | undefined {
    return this.tokens[this.at];
  }

  /** Takes out what names a currency, wherever it stands, and what names people where the figure counts them. */
  private withoutCurrency(tokens: readonly Token[]): Token[] {
    const { currencies, people } = this.style;
    const kept: Token[] = [];
    for (const token of tokens) {
      if (people && PEOPLE.has(token.text)) continue;
      const named = currencies && !token.number ? this.currencyOf(token.text, currencies) : null;
      if (!named) {
        kept.push(token);
        continue;
      }
      if (this.currency !== null && this.currency !== named.currency) this.fail();
      this.currency = named.currency;
      if (named.scale) kept.push({ text: named.scale, number: false });
      // T€ is thousands of euros.
      else if (kept.at(-1)?.text === 't') kept[kept.length - 1] = { text: 'k', number: false };
    }
    // "mil" is a million in some languages and a thousand in others.
    const currency = this.currency ?? this.style.currency ?? '';
    return MIL_IS_MILLION.has(currency)
      ? kept.map((token) => (token.text === 'mil' ? { text: 'mil.', number: false } : token))
      : kept;
  }

  private currencyOf(word: string, currencies: readonly string[]): ReturnType<typeof currencyIn> {
    const { currency } = this.style;
    if (word === 'kr' && currency && CROWNS.has(currency)) return { currency, scale: null };
    return currencyIn(word, currencies);
  }

  private fail(): never {
    throw new CellError(ruleOf(this.style));
  }
}

/** What stands right behind the code of a currency: EURm, USDbn, GBPk. */
const SCALE_BEHIND = /^[A-Z]{3}(K|TH|TSD|M|MM|MN|MLN|MIO|BN|MRD)$/;

/** A word that names a currency, at times with what it is counted in: EUR, €, TEUR, kEUR, MEUR, EURm. */
export function currencyIn(
  word: string,
  currencies: readonly string[],
): { currency: string; scale: string | null } | null {
  const signed = CURRENCY_SIGNS.get(word);
  if (signed && currencies.includes(signed)) return { currency: signed, scale: null };
  const scaled = SCALED_MONEY.get(word);
  if (scaled && currencies.includes(scaled[0])) return { currency: scaled[0], scale: scaled[1] };
  const code = word.toUpperCase();
  if (currencies.includes(code)) return { currency: code, scale: null };
  if (/^[TKM][A-Z]{3}$/.test(code) && currencies.includes(code.slice(1)))
    return { currency: code.slice(1), scale: code[0] === 'M' ? 'm' : 'k' };
  const behind = SCALE_BEHIND.exec(code)?.[1];
  if (behind && currencies.includes(code.slice(0, 3)))
    return { currency: code.slice(0, 3), scale: behind.toLowerCase() };
  return null;
}

/** A currency in a cell of its own, as a code, sign or word. @throws CellError */
export function readCurrency(cell: string): string {
  const named = currencyIn(asWord(cell), CURRENCIES)?.currency;
  if (!named) throw new CellError(`a currency code with rates: ${CURRENCIES.join(', ')}`);
  return named;
}
