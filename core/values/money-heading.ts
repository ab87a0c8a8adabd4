import { fold } from '../text/fold.ts';
import { asWord, OTHER_CURRENCIES, SCALED_MONEY, SCALES } from './figure-words.ts';
import { currencyIn } from './figures.ts';

/** What the heading of a column of money says of its figures; null where it says nothing. */
export interface MoneyHeading {
  unit: number | null;
  /** ISO code, which may be of a currency without rates; "kr" where the crowns of several countries may be meant. */
  currency: string | null;
  /** Whether a word stands where the unit does, "in … EUR", that is none which is known. */
  strange: boolean;
}

/** Words for turnover and profit in Spanish and Portuguese, where "mil" is a thousand and not short for a million. */
const MIL_IS_THOUSAND =
  /factur|fatura|ventas|vendas|ingresos|receita|cifra de negoci|volume de negocios|beneficio|utilidad|lucro|resultado|activo|ativo|miles/;
/** Words that stand where a unit does and are none. */
const NO_UNIT: ReadonlySet<string> = new Set(['net', 'netto', 'gross', 'brutto', 'total', 'full', 'whole']);
/** What stands before the unit of figures: in, v, w, u, en, em, na. */
const BEFORE_UNIT: ReadonlySet<string> = new Set([
  'in',
  'im',
  'v',
  'w',
  'u',
  'en',
  'em',
  'na',
  'i',
  've',
  '(',
  '[',
]);

/**
 * Unit and currency in a heading: "Umsatz (Tsd. €)", "Revenue, EUR m", "Obrat v tis. Kč", "Turnover £000", "Umsatz TEUR".
 * A letter is a unit only beside a currency or in brackets: the m of "M & A" is none.
 */
export function moneyHeading(heading: string, currencies: readonly string[]): MoneyHeading {
  const found: MoneyHeading = { unit: null, currency: null, strange: false };
  const thousands = MIL_IS_THOUSAND.test(fold(heading.slice(0, 200)));
  const parts =
    heading.slice(0, 200).match(/\p{L}{1,2}\$|\p{L}+\.?|[€£$¥₺₴₩₹₪]|\d[\d.,'’]*|['’.]000|[()[\],/]/gu) ?? [];
  const named = parts.map((part) => moneyIn(asWord(part).replace(/\.$/, ''), currencies));
  for (const [i, part] of parts.entries()) {
    const word = asWord(part).replace(/\.$/, '');
    if (named[i]) {
      found.currency ??= named[i].currency;
      if (named[i].scale) found.unit ??= SCALES.get(named[i].scale)!;
      continue;
    }
    if (isIsoCode(part) && (/[([,/]/.test(parts[i - 1] ?? '') || i === parts.length - 1))
      found.currency ??= part;
    if (/^['’.,]?000$/.test(part) || /^1[.,'’]?000$/.test(part)) found.unit ??= 1e3;
    else if (/^1[.,'’]?000[.,'’]?000$/.test(part)) found.unit ??= 1e6;
    found.currency ??= OTHER_CURRENCIES.get(word) ?? null;
    // Short for which of the two nobody knows.
    if (thousands && /^mil\.$/i.test(part)) {
      found.strange = true;
      continue;
    }
    const scale =
      word === 't' || (word === 'mil' && thousands) ? 1e3 : SCALES.get(word === 'mil' ? 'mil.' : word);
    if (scale === undefined) {
      const before = asWord(parts[i - 1] ?? '').replace(/\.$/, '');
      if (word.length > 2 && named[i + 1] && BEFORE_UNIT.has(before) && !NO_UNIT.has(word))
        found.strange = true;
      continue;
    }
    const beside =
      [i - 1, i + 1].some((at) => named[at] || isIsoCode(parts[at] ?? '')) ||
      /[([,/]/.test(parts[i - 1] ?? '');
    if (word.length > 2 || beside) found.unit ??= scale;
  }
  return found;
}

/** Codes of currencies that are words too. */
const ALSO_WORDS: ReadonlySet<string> = new Set([
  'ALL',
  'BAM',
  'CUP',
  'GEL',
  'MAD',
  'MOP',
  'PEN',
  'SOS',
  'TOP',
  'TRY',
]);

/** Whether a part of a heading is the code of a currency, of whichever country. */
function isIsoCode(part: string): boolean {
  isoCodes ??= new Set(Intl.supportedValuesOf('currency'));
  return isoCodes.has(part) && !ALSO_WORDS.has(part);
}

let isoCodes: ReadonlySet<string> | null = null;

/** A word that is money in a heading. */
function moneyIn(
  word: string,
  currencies: readonly string[],
): { currency: string; scale: string | null } | null {
  if (word === 'kr' || word === 'kronor' || word === 'kroner') return { currency: 'kr', scale: null };
  const scaled = SCALED_MONEY.get(word);
  return scaled ? { currency: scaled[0], scale: scaled[1] } : currencyIn(word, currencies);
}
