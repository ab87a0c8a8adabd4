import { fold } from '../text/fold.ts';

/** What pages say whose domain only waits for a buyer, folded, in the languages of the gazetteer. */
const PARKED = [
  'domain is for sale',
  'domain for sale',
  'buy this domain',
  'domain is parked',
  'parked domain',
  'domain may be for sale',
  'domain steht zum verkauf',
  'domain ist geparkt',
  'domain kaufen',
  'domena je na prodej',
  'domena je na predaj',
  'domena jest na sprzedaz',
  'kup te domene',
  'domaine est a vendre',
  'dominio e in vendita',
  'dominio esta en venta',
  'domein is te koop',
];
/** Letters of text that such a page has at most; a longer one only speaks of such things. */
const SHORT = 3000;

/** Whether a page only says that its domain is for sale. */
export function isParked(html: string): boolean {
  const text = fold(
    html
      .slice(0, 200_000)
      .replace(/<(script|style)\b[^>]*>[^]*?<\/\1>/gi, ' ')
      .replace(/<[^>]*>/g, ' ')
      .replace(/\s+/g, ' '),
  );
  return text.length <= SHORT && PARKED.some((words) => text.includes(words));
}

/** A host without the "www." that says nothing. */
export function bareHost(host: string): string {
  return host.toLowerCase().replace(/^www\./, '');
}
