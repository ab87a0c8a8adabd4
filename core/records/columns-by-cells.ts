import { withoutForm } from '../match/legal-forms.ts';
import { ADDRESS_STANDINGS } from '../people/standing.ts';
import { domainOf } from '../text/domain.ts';
import { foldedWords } from '../text/fold.ts';
import { DATE_COLUMNS } from './column-styles.ts';
import { LISTING_WORDS, OWNERSHIP_WORDS, type Meaning } from '../values/category-words.ts';
import { saysNothing } from '../values/empty.ts';
import { CURRENCIES } from '../money/rates.ts';
import { moneyHeading } from '../values/money-heading.ts';
import { plainHeading } from './plain-heading.ts';

/** What the columns of a file are by their cells: where their headings do not say it, or say what the cells are not. */

type Rows = readonly (readonly string[])[];

/** Share of the filled cells of a column that have to be alike. */
const SAMPLE_SHARE = 0.6;
/** Letters of a cell that are looked at. */
const LONGEST = 300;

/** Columns and rows in which names of firms, or of towns, are looked for: each of them is looked up. */
export const LOOKED_UP = { columns: 200, rows: 100 } as const;

const isEmpty = (cells: readonly string[]): boolean => cells.every((cell) => cell.trim() === '');

const cellsOf = (rows: Rows, at: number): string[] => rows.map((row) => row[at] ?? '');

/** What a mobile phone is called; it counts where no other phone is there. */
const MOBILE: ReadonlySet<string> = new Set(
  foldedWords(
    'mobile mobil handy mobiltelefon portable cellulare movil telemovel gsm komorka mobiel telkom matkapuhelin cell cellphone',
  ),
);

/** Share of names with a legal form from which a column has the names of firms. */
const FIRMS_SHARE = 0.3;

function areFirms(cells: readonly string[]): boolean {
  const filled = cells.map((cell) => cell.slice(0, LONGEST).trim()).filter((cell) => cell.includes(' '));
  const firms = filled.filter((cell) => withoutForm(cell).form !== null).length;
  return firms > 0 && firms >= filled.length * FIRMS_SHARE;
}

/** Whether a column behind that of the street is called "Nr." and has figures. */
const isNumberOfHouse = (heading: string, rows: Rows, at: number): boolean =>
  /^(nr|no|num|numero|cislo|c|n)$/.test(plainHeading(heading)) && mostAre(/^\d/, cellsOf(rows, at));

/** Columns that a heading means only where their cells are such: an "Address" of people is mostly a street, a "Branche" mostly words. */
const ONLY_WITH: Readonly<Record<string, RegExp>> = {
  'main-code': /\d/,
  // A year since which somebody is a customer is no name.
  name: /\p{L}|^\d{1,3}$/u,
  'other-codes': /\d/,
  // Figures with decimals are none.
  postcode: /^(?!\d+[.,](?!0$)\d+$)/,
  // Registered capital is no day on which a firm was registered.
  founded: /(?<!\d)(?:1[5-9]|20)\d\d(?!\d)|^\d{1,2}[./-] ?\d{1,2}[./-] ?\d{2}$|^\d{5}(?:\.0)?$|^['’]?\d\d$/,
  address: new RegExp(`^(${ADDRESS_STANDINGS.join('|')})$`, 'i'),
};

const CONTENT: [string, RegExp][] = [
  ['mail', /^[^\s@]+@[^\s@]+\.[^\s@.]+$/],
  ['web', /^(https?:\/\/|www\.)\S+$|^[\w-]+(\.[\w-]+)*\.(example|com|net|org|eu|[a-z]{2})\/?$/i],
  ['main-code', /^\d{2}\.\d{1,2}$/],
  ['phone', /^\+\d[\d\s()/-]{6,}$/],
  ['postcode', /^(\d{2}-\d{3}|\d{4} ?[A-Z]{2}|\d{3} \d{2}|\d{4}-\d{3})$/],
  ['headcount', /^\d{1,5}\s*(-|–)\s*\d{1,6}$/],
  [
    'country',
    /^(AT|BE|BG|CH|CY|CZ|DE|DK|EE|ES|FI|FR|GB|GR|HR|HU|IE|IS|IT|LT|LU|LV|MT|NL|NO|PL|PT|RO|SE|SI|SK|US)$/,
  ],
];

/** What the same contents mean in files of what hangs on companies. */
const CONTENT_OF_OTHERS: Readonly<Record<string, string>> = {
  mail: 'mail',
  web: 'company-domain',
  phone: 'phone',
  country: 'company-country',
};

/** Rows from which on pages of one host are not those of the companies but of who wrote the file. */
const PAGES_OF_ONE = 2;

/** Whether most addresses are different pages of one host. */
function areOfOneHost(cells: readonly string[]): boolean {
  const pages = new Set(cells.map((cell) => cell.slice(0, LONGEST).trim()).filter(Boolean));
  if (pages.size < PAGES_OF_ONE) return false;
  const hosts = new Map<string, number>();
  for (const page of pages) {
    const host = domainOf(page);
    if (host !== null && page.includes('/')) hosts.set(host, (hosts.get(host) ?? 0) + 1);
  }
  return Math.max(0, ...hosts.values()) >= pages.size * SAMPLE_SHARE;
}

/** Figures of a day, a serial number of one, or a month in letters beside figures. */
const DAY =
  /(?<!\d)(?:(?:19|20)\d\d|\d{1,2}[./-] ?\d{1,2}[./-] ?\d{2}|\d{5}|\d{1,2}\.? \p{L}{3,12}|\p{L}{3,12}\.? \d{1,2})(?!\d)/u;

/** Whether any cell may be a day; of none nothing is known. */
function hasDay(cells: readonly string[]): boolean {
  return isEmpty(cells) || cells.some((cell) => DAY.test(cell.slice(0, LONGEST)));
}

/** Whether a heading names a currency, what money is counted in, or a turnover in French. */
function isMoney(heading: string): boolean {
  const { unit, currency } = moneyHeading(heading, CURRENCIES);
  return unit !== null || currency !== null || /^c\.?a\b/i.test(heading.trim());
}

/** Whether the cells of a column are not such as it is taken for by its heading. */
export function cellsSpeakAgainst(id: string, rows: Rows, at: number, heading = ''): boolean {
  // "ST" is a state where its cells are two letters.
  if (id === 'region' && plainHeading(heading) === 'st') return !mostAre(/^[A-Z]{2}$/, cellsOf(rows, at));
  if (id === 'web') return areOfOneHost(cellsOf(rows, at));
  // "CA 2024 (k€)" is a turnover in French, and not the Portuguese classification, which folds to the same.
  if (id === 'main-code' && isMoney(heading)) return true;
  // "Ownership type" says of some files who owns a company, of others whether its shares are traded.
  if (id === 'ownership' || id === 'listing') {
    const meant = { ownership: OWNERSHIP_WORDS, listing: LISTING_WORDS };
    const other = id === 'ownership' ? meant.listing : meant.ownership;
    const count = (means: Meaning<string>) =>
      cellsOf(rows, at).filter((cell) => means(cell) !== undefined).length;
    return count(other) > count(meant[id]);
  }
  if (id === 'description') return mostAre(/^[\d\s./:,-]+$/, cellsOf(rows, at));
  if (id.endsWith('-year'))
    return (
      !isEmpty(cellsOf(rows, at)) &&
      !cellsOf(rows, at).some((cell) => /(?<!\d)(?:19|20)\d\d(?!\d)/.test(cell.slice(0, LONGEST)))
    );
  if (DATE_COLUMNS.has(id)) return !hasDay(cellsOf(rows, at));
  const wanted = ONLY_WITH[id];
  if (!wanted) return false;
  const cells = cellsOf(rows, at).filter((cell) => !saysNothing(cell.trim()));
  return !isEmpty(cells) && !mostAre(wanted, cells);
}

/**
 * Says of columns that no heading told what they are by their cells, and by what stands beside them; each column once.
 * @param columns is filled
 * @param own the columns that files of the subject can have
 */
export function fillByCells(
  columns: (string | null)[],
  header: readonly string[],
  rows: Rows,
  subject: string,
  own: ReadonlySet<string>,
): void {
  const free = (id: string) => own.has(id) && !columns.includes(id);
  const none = (fits: (at: number) => boolean) => columns.findIndex((id, at) => id === null && fits(at));
  const take = (id: string, at: number) => {
    if (at >= 0) columns[at] = id;
  };
  for (const at of columns.keys()) {
    if (columns[at] !== null) continue;
    const content = byContent(cellsOf(rows, at));
    const meant =
      columns[at - 1] === 'street' && isNumberOfHouse(header[at]!, rows, at)
        ? 'street-number'
        : subject === 'companies'
          ? content
          : CONTENT_OF_OTHERS[content ?? ''];
    if (meant !== undefined && free(meant) && !cellsSpeakAgainst(meant, rows, at)) columns[at] = meant;
  }
  if (free('phone'))
    take(
      'phone',
      none((at) => MOBILE.has(plainHeading(header[at]!))),
    );
  if (subject === 'companies' && free('name'))
    take(
      'name',
      none((at) => at < LOOKED_UP.columns && areFirms(cellsOf(rows.slice(0, LOOKED_UP.rows), at))),
    );
}

function byContent(cells: readonly string[]): string | undefined {
  return CONTENT.find(([, pattern]) => mostAre(pattern, cells))?.[0];
}

/** Whether most of the filled cells fit a pattern. Longer ones are none of these, and what they are is not asked of every character. */
function mostAre(pattern: RegExp, cells: readonly string[]): boolean {
  const filled = cells.map((cell) => cell.slice(0, LONGEST).trim()).filter(Boolean);
  return (
    filled.length > 0 && filled.filter((cell) => pattern.test(cell)).length >= filled.length * SAMPLE_SHARE
  );
}
