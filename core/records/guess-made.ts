import { foldedWords } from '../text/fold.ts';
import { meantBy } from './headings.ts';
import type { JoinedColumn, MadeColumn } from './made-columns.ts';
import { plainHeading } from './plain-heading.ts';

/** Columns that a file has in pieces, and that are read as one: Name 1 and Name 2, the lines of an address, dialling code and number. */

type Rows = readonly (readonly string[])[];

/** Pieces that are joined at most. */
const MOST_PIECES = 10;

/** How pieces that are numbered are joined, by what the first of them means. The first of several codes stays a column of its own: it is the main one. */
const JOINED: Readonly<Record<string, { heading: string; by: string; from: 0 | 1 }>> = {
  name: { heading: 'Company', by: ' ', from: 0 },
  street: { heading: 'Street', by: ', ', from: 0 },
  'main-code': { heading: 'Other codes', by: '; ', from: 1 },
  'other-codes': { heading: 'Other codes', by: '; ', from: 0 },
};

/** What the code before the number of a phone is called. */
const DIALLING: ReadonlySet<string> = new Set(
  'vorwahl, area code, dialling code, dial code, std code, predvolba, predcisli, kierunkowy, nr kierunkowy, indicatif, prefisso, prefijo, elohivoszam, netnummer, riktnummer, retningsnummer'
    .split(', ')
    .map(plainHeading),
);

/** What the parts of a French street are called in registers, in their order. */
const FRENCH_STREET = ['numerovoie', 'indicerepetition', 'typevoie', 'libellevoie'];

/** The columns that are made of pieces of a file of companies or deals; none of other subjects. Each piece is used once. */
export function guessMade(header: readonly string[], rows: Rows, subject: string): MadeColumn[] {
  const made: MadeColumn[] =
    subject === 'companies'
      ? [
          ...numbered(header, rows),
          ...phones(header, rows),
          ...frenchStreet(header),
          ...coordinates(header, rows),
        ]
      : subject === 'deals'
        ? investors(header, rows)
        : [];
  const headings = new Set(header);
  return made.filter(({ heading }) => !headings.has(heading));
}

/** Columns of one heading with figures behind it, which begin with 1 or with none. */
function numbered(header: readonly string[], rows: Rows): JoinedColumn[] {
  const families = new Map<string, { nth: number; at: number }[]>();
  for (const [at, heading] of header.entries()) {
    const words = foldedWords(heading.replace(/(\p{Ll}|_)(\d)$/u, '$1 $2'));
    const last = words.at(-1) ?? '';
    const nth = words.length > 1 && /^\d$/.test(last) ? Number(last) : 1;
    const base = (/^\d$/.test(last) ? words.slice(0, -1) : words).join(' ');
    if (base !== '') families.set(base, [...(families.get(base) ?? []), { nth, at }]);
  }
  const made: JoinedColumn[] = [];
  for (const [base, family] of families) {
    const inOrder = family.every(({ nth }, i) => nth === i + 1);
    if (family.length < 2 || family.length > MOST_PIECES || !inOrder) continue;
    const how = JOINED[meantBy(header[family[0]!.at]!, 'companies') ?? meantBy(base, 'companies') ?? ''];
    const of = family.slice(how?.from).map(({ at }) => at);
    if (!how || !family.slice(1).some(({ at }) => isFilled(rows, at))) continue;
    made.push(joined(how.heading, header, of, how.by));
  }
  return made;
}

function phones(header: readonly string[], rows: Rows): JoinedColumn[] {
  const at = header.findIndex((heading) => DIALLING.has(plainHeading(heading)));
  const number = header[at + 1];
  if (at < 0 || number === undefined) return [];
  const isNumber =
    meantBy(number, 'companies') === 'phone' || /^(ruf)?(nummer|number|nr|no)$/.test(plainHeading(number));
  return isNumber && isFilled(rows, at) ? [joined('Phone', header, [at, at + 1], ' ')] : [];
}

function frenchStreet(header: readonly string[]): JoinedColumn[] {
  const plain = header.map(plainHeading);
  const of = FRENCH_STREET.map((part) => plain.findIndex((heading) => heading.startsWith(part))).filter(
    (at) => at >= 0,
  );
  return of.length >= 2 && plain[of.at(-1)!]!.startsWith('libellevoie')
    ? [joined('Street', header, of, ' ')]
    : [];
}

/** Both degrees of a point in one cell: "45.83, 1.26", and "POINT(1.26 45.83)" with the longitude first. */
const DEGREES: readonly { pattern: RegExp; by: string; latitude: 'before-last' | 'after-last' }[] = [
  { pattern: /^-?\d{1,2}\.\d+ ?, ?-?\d{1,3}\.\d+$/, by: ',', latitude: 'before-last' },
  { pattern: /^-?\d{1,2}\.\d+ ?; ?-?\d{1,3}\.\d+$/, by: ';', latitude: 'before-last' },
  { pattern: /^POINT ?\(-?\d{1,3}\.?\d* -?\d{1,2}\.?\d*\)$/i, by: ' ', latitude: 'after-last' },
];

/** Latitude and longitude out of a column that has both. */
function coordinates(header: readonly string[], rows: Rows): MadeColumn[] {
  if (header.some((heading) => meantBy(heading, 'companies') === 'latitude')) return [];
  for (const at of header.keys()) {
    const cells = rows.map((row) => (row[at] ?? '').slice(0, 80).trim()).filter(Boolean);
    const how = DEGREES.find(({ pattern }) => cells.length > 0 && cells.every((cell) => pattern.test(cell)));
    if (!how) continue;
    const longitude = how.latitude === 'after-last' ? 'before-last' : 'after-last';
    const part = (heading: string, which: typeof how.latitude): MadeColumn => ({
      ...{ way: 'part', heading, of: [at], by: how.by, part: which },
    });
    return [part('Latitude', how.latitude), part('Longitude', longitude)];
  }
  return [];
}

/** Those who lead a round and those who join it. */
function investors(header: readonly string[], rows: Rows): JoinedColumn[] {
  const of = [...header.keys()].filter(
    (at) => meantBy(header[at]!, 'deals') === 'party-investor' && isFilled(rows, at),
  );
  return of.length > 1 && of.length <= MOST_PIECES ? [joined('Investors', header, of, '; ')] : [];
}

function joined(what: string, header: readonly string[], of: readonly number[], by: string): JoinedColumn {
  return { way: 'join', heading: header.includes(what) ? `${what}, joined` : what, of, by };
}

const isFilled = (rows: Rows, at: number): boolean => rows.some((row) => (row[at] ?? '').trim() !== '');
