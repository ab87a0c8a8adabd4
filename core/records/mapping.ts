import { SCHEMES, type CodeTree, type Scheme } from '../codes/tree.ts';
import { fileColumns, SUBJECTS } from '../fields/registry.ts';
import { foldedWords } from '../text/fold.ts';
import type { CellStyle } from './cells.ts';

/** How a file's columns are read. */
export interface Mapping extends CellStyle {
  /** For each column of the file, the id of the file column it is read as, or null where it is left out. */
  columns: (string | null)[];
  /** Scheme of the industry codes. */
  scheme: Scheme;
  /** ISO code taken where a row names no country; null where then it is unknown. */
  country: string | null;
  /** Currency and year taken where a row names none. */
  currency: string;
  year: number;
  /** What revenue figures are counted in: 1, 1,000 or 1,000,000. */
  revenueUnit: number;
}

export interface MappingDefaults {
  currency: string;
  year: number;
}

const SAMPLE_SHARE = 0.6;
const LONGEST_SAMPLE = 300;
/** Units in a heading, as words of their own: “k” but not “Kč”. */
const MILLIONS = /(?<!\p{L})(m|mio|mil|mln|millions?)(?!\p{L})/u;
const THOUSANDS = /(?<!\p{L})(k|tsd|tis|tys|thousands?)(?!\p{L})|'000/u;

/** The mapping that a header and some rows suggest: by heading in several languages, then by content. */
export function guessMapping(
  header: readonly string[],
  rows: readonly (readonly string[])[],
  trees: ReadonlyMap<Scheme, CodeTree>,
  defaults: MappingDefaults,
  subject = 'companies',
): Mapping {
  const columns = guessColumns(header, rows, subject);
  const at = (id: string) => columns.indexOf(id);
  const values = (id: string) =>
    at(id) < 0 ? [] : rows.map((row) => row[at(id)] ?? '').filter((cell) => cell.trim() !== '');
  // One unit and currency for all money of a file: those that the first of its money columns speaks of.
  const money = ['revenue', 'amount', 'profit', 'assets'].find((id) => at(id) >= 0);
  const moneyHeading = money === undefined ? '' : header[at(money)]!.toLowerCase();
  return {
    columns,
    decimal: guessDecimal([
      ...(money === undefined ? [] : values(money)),
      ...values('headcount'),
      ...values('latitude'),
    ]),
    dates: values('checked').some((cell) => Number(/^\d+\/(\d+)\//.exec(cell)?.[1]) > 12) ? 'mdy' : 'dmy',
    scheme: guessScheme(
      at('main-code') < 0 ? '' : header[at('main-code')]!,
      [...values('main-code'), ...values('other-codes')],
      trees,
    ),
    country: null,
    currency:
      /\b(eur|gbp|usd|chf|czk|pln|huf|dkk|sek|nok|ron)\b/.exec(moneyHeading)?.[1]?.toUpperCase() ??
      (moneyHeading.includes('kč')
        ? 'CZK'
        : moneyHeading.includes('zł')
          ? 'PLN'
          : moneyHeading.includes('£')
            ? 'GBP'
            : defaults.currency),
    year: defaults.year,
    revenueUnit: MILLIONS.test(moneyHeading) ? 1e6 : THOUSANDS.test(moneyHeading) ? 1e3 : 1,
  };
}

/** The decimal mark that more figures show; a few odd cells do not turn it. */
function guessDecimal(figures: readonly string[]): '.' | ',' {
  const commas = figures.filter((cell) => /\d,\d{1,2}$|\d,\d{4,}$|\.\d{3},/.test(cell)).length;
  const points = figures.filter((cell) => /\d\.\d{1,2}$|\d\.\d{4,}$|,\d{3}\./.test(cell)).length;
  return commas > points ? ',' : '.';
}

/** Text of a heading as it is compared: folded, without spaces and punctuation, ä and ae as one. */
export function plainHeading(text: string): string {
  return foldedWords(text)
    .join('')
    .replace(/([aou])e/g, '$1');
}

/** How the first row looks as a header: at least half of its cells are known headings, or it holds no figures while the next rows do. */
export function looksLikeHeader(first: readonly string[], next: readonly string[] | undefined): boolean {
  const known = new Map([...SUBJECTS.keys()].flatMap((subject) => [...knownHeadings(subject)]));
  const filled = first.filter((cell) => cell.trim() !== '');
  if (filled.length === 0) return false;
  if (
    filled.filter((cell) => known.has(plainHeading(cell)) || known.has(plainHeading(bare(cell)))).length *
      2 >=
    filled.length
  )
    return true;
  return (
    !filled.some((cell) => /^\s*[\d.,-]+\s*$/.test(cell)) &&
    (next ?? []).some((cell) => /^\s*[\d.,-]+\s*$/.test(cell))
  );
}

/** A heading without what stands in brackets or after a comma. */
function bare(heading: string): string {
  const at = heading.search(/[([,]/);
  return at < 0 ? heading : heading.slice(0, at);
}

function knownHeadings(subject: string): Map<string, string> {
  const known = new Map<string, string>();
  for (const column of fileColumns(subject))
    for (const heading of [column.label, column.id, ...column.headings])
      if (!known.has(plainHeading(heading))) known.set(plainHeading(heading), column.id);
  return known;
}

/** Words after which a heading is of another figure than the one it begins with: revenue per head, revenue growth. */
const ANOTHER_FIGURE: ReadonlySet<string> = new Set(['per', 'growth', 'change', 'rank', 'share']);

function guessColumns(
  header: readonly string[],
  rows: readonly (readonly string[])[],
  subject: string,
): (string | null)[] {
  const known = knownHeadings(subject);
  const taken = new Set<string>();
  const take = (id: string | undefined) => (id === undefined || taken.has(id) ? null : (taken.add(id), id));
  const byName = header.map(
    (heading) => take(known.get(plainHeading(heading))) ?? take(known.get(plainHeading(bare(heading)))),
  );
  return byName.map((id, i) => {
    if (id !== null) return id;
    const words = foldedWords(header[i]!);
    for (let n = words.length; n > 0; n--) {
      if (ANOTHER_FIGURE.has(words[n] ?? '')) continue;
      const start = plainHeading(words.slice(0, n).join(' '));
      const part = start.length >= 4 ? take(known.get(start)) : null;
      if (part) return part;
    }
    const content = byContent(rows.map((row) => row[i] ?? ''));
    return take(subject === 'companies' ? content : CONTENT_OF_OTHERS[content ?? '']);
  });
}

const CONTENT: [string, RegExp][] = [
  ['mail', /^[^\s@]+@[^\s@]+\.[^\s@.]+$/],
  ['web', /^(https?:\/\/|www\.)\S+$|^[\w-]+(\.[\w-]+)*\.(example|com|net|org|eu|[a-z]{2})\/?$/i],
  ['main-code', /^\d{2}\.\d{1,2}$/],
  ['phone', /^\+\d[\d\s()/-]{6,}$/],
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

/**
 * The subject that a header speaks of most: the one of whose headings it has most, companies where several have as many.
 */
export function guessSubject(header: readonly string[]): string {
  const plain = header.map(plainHeading);
  let best = 'companies';
  let most = plain.filter((one) => knownHeadings('companies').has(one)).length;
  for (const subject of ['people', 'sites', 'deals', 'events']) {
    const known = knownHeadings(subject);
    const count = plain.filter((one) => known.has(one)).length;
    if (count > most) [best, most] = [subject, count];
  }
  return best;
}

function byContent(cells: readonly string[]): string | undefined {
  // Longer ones are none of these, and what they are is not asked of every character.
  const filled = cells.map((cell) => cell.slice(0, LONGEST_SAMPLE).trim()).filter(Boolean);
  return filled.length
    ? CONTENT.find(
        ([, pattern]) => filled.filter((cell) => pattern.test(cell)).length >= filled.length * SAMPLE_SHARE,
      )?.[0]
    : undefined;
}

function guessScheme(
  heading: string,
  cells: readonly string[],
  trees: ReadonlyMap<Scheme, CodeTree>,
): Scheme {
  const words = foldedWords(heading).join('');
  for (const [scheme, name] of Object.entries(SCHEMES))
    if (words.includes(foldedWords(name).join(''))) return scheme as Scheme;
  if (words.includes('naics')) return 'naics-2022';
  if (words.includes('isic')) return 'isic-4';
  const codes = cells.flatMap((cell) => cell.split(/[,;|\s]+/)).filter(Boolean);
  let best: Scheme = 'nace-2.1';
  let most = 0;
  for (const [scheme, tree] of trees) {
    const known = codes.filter((code) => tree.nodeOfLoose(code) >= 0).length;
    if (known > most) [best, most] = [scheme, known];
  }
  return best;
}
