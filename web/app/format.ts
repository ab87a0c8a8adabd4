import type { MoneyCell, QuantityCell } from '../../core/cells.ts';
import { converted } from '../../core/money/rates.ts';
import { useSettings } from './settings.ts';

const LOCALES = { comma: 'en-GB', point: 'de-DE', space: 'fr-FR' } as const;
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const SYMBOLS: Record<string, string> = { EUR: '€', GBP: '£', USD: '$' };

/** A figure as it is shown, and whether it is an estimate. */
export interface ShownFigure {
  text: string;
  estimated: boolean;
  /** Range of an estimate, year, original currency: for the tooltip. */
  note?: string;
}

const formats = new Map<string, Intl.NumberFormat>();

/** A number format, made once: making one takes far longer than using it. */
function numberFormat(locale: string, options: Intl.NumberFormatOptions): Intl.NumberFormat {
  const key = `${locale} ${JSON.stringify(options)}`;
  let format = formats.get(key);
  if (!format) formats.set(key, (format = new Intl.NumberFormat(locale, options)));
  return format;
}

/** Formats by the workspace's settings. */
export function useFormat() {
  const { currency, numbers, dates } = useSettings();
  const locale = LOCALES[numbers];
  const number = (value: number, decimals = 0) =>
    numberFormat(locale, { maximumFractionDigits: decimals })
      // Less than half of the last digit shown is nothing, not minus nothing.
      .format(Math.abs(value) < 0.5 * 10 ** -decimals ? 0 : value)
      .replaceAll('\u202f', '\u00a0')
      .replace('-', '−');
  const date = (iso: string) => {
    const [year, month, day] = iso.split('-');
    if (dates === 'iso') return iso;
    return dates === 'dotted'
      ? `${Number(day)}.${Number(month)}.${year}`
      : `${Number(day)} ${MONTHS[Number(month) - 1]} ${year}`;
  };
  const range = (low: number | null, high: number | null, show: (value: number) => string) =>
    high === null ? `${show(low ?? 0)}+` : `${show(low ?? 0)}–${show(high)}`;
  const quantity = (cell: QuantityCell, show: (value: number) => string): ShownFigure => {
    const year = cell.year ? `, ${cell.year}` : '';
    if (cell.basis === 'band')
      return {
        text: range(cell.low, cell.high, show),
        estimated: false,
        note: `a band; no exact figure${year}`,
      };
    if (cell.basis === 'estimate')
      return {
        text: show(cell.amount!),
        estimated: true,
        note: `estimate, ${range(cell.low, cell.high, show)}${year}`,
      };
    return {
      text: show(cell.amount!),
      estimated: false,
      note: cell.year ? `reported for ${cell.year}` : 'reported',
    };
  };
  return {
    currency,
    symbol: SYMBOLS[currency] ?? currency,
    number,
    date,
    /** A share in percent: to a tenth, a smaller one to a thousandth rather than as nothing. */
    percent: (value: number) => `${number(value, value !== 0 && Math.abs(value) < 0.1 ? 3 : 1)} %`,
    headcount: (cell: QuantityCell) => quantity(cell, (value) => number(value)),
    /** Money in thousands of the workspace's currency; null where there is no rate. */
    thousands: (cell: MoneyCell): ShownFigure | null => {
      const inOurs = (value: number) => converted(value, cell.currency, currency, cell.year);
      if (inOurs(1) === null) return null;
      const shown = quantity(cell, (value) => {
        const amount = inOurs(value)!;
        return number(amount / 1000, Math.abs(amount) < 10_000 ? 1 : 0);
      });
      return {
        ...shown,
        note: cell.currency === currency ? shown.note : `${shown.note}, converted from ${cell.currency}`,
      };
    },
    bytes: (bytes: number) =>
      bytes >= 2 ** 20 ? `${number(bytes / 2 ** 20, 1)} MB` : `${number(Math.max(1, bytes / 1024))} kB`,
  };
}
