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
  const text = fold(plainText(html.slice(0, LONGEST))).replaceAll(/\s+/g, ' ');
  return text.length <= SHORT && PARKED.some((words) => text.includes(words));
}

/** Letters of a page that are looked at. */
const LONGEST = 200_000;

/** The text of a page, without what scripts and styles say. */
function plainText(html: string): string {
  const [before, ...tags] = html.split('<');
  let text = before!;
  let within: string | null = null;
  for (const tag of tags) {
    const name = /^\/?[a-z]+/i.exec(tag)?.[0].toLowerCase() ?? '';
    if (within !== null && name !== `/${within}`) continue;
    within = name === 'script' || name === 'style' ? name : null;
    const end = tag.indexOf('>');
    if (within === null) text += ` ${tag.slice(end + 1)}`;
  }
  return text;
}

/** A host without the "www." that says nothing. */
export function bareHost(host: string): string {
  return host.toLowerCase().replace(/^www\./, '');
}
