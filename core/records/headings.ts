import { fileColumns, SUBJECTS } from '../fields/registry.ts';
import { CURRENCIES } from '../money/rates.ts';
import { foldedWords } from '../text/fold.ts';
import { SCALES } from '../values/figure-words.ts';
import { currencyIn } from '../values/figures.ts';
import { cellsSpeakAgainst, fillByCells } from './columns-by-cells.ts';
import { inFull, plainHeading, splitCamel, yearIn } from './plain-heading.ts';

/** What the columns of a file are, by their headings in several languages and then by their content. */

const LONGEST_SAMPLE = 300;

/**
 * How the first row looks as a header: at least half of its cells are known headings, or it holds no figures while the next row does, or
 * it has words where that has values such as +12%, 11–50 or an address of the web.
 */
export function looksLikeHeader(first: readonly string[], next: readonly string[] | undefined): boolean {
  const filled = first.filter((cell) => cell.trim() !== '');
  if (filled.length === 0) return false;
  if (filled.filter(knownHeading).length * 2 >= filled.length) return true;
  if (filled.some((cell) => isValue(cell) && !/^\s*(19|20)\d\d\s*$/.test(cell))) return false;
  return (next ?? []).some(
    (cell, i) => /^\s*[\d.,-]+\s*$/.test(cell) || ((first[i] ?? '').trim() !== '' && isValue(cell)),
  );
}

/** Whether a cell is a value and no heading: a figure with whatever stands around it, a date, an address of mail or of the web. */
function isValue(cell: string): boolean {
  const text = cell.slice(0, LONGEST_SAMPLE);
  if (/\S@\S|^\s*(?:https?:|www\.)/i.test(text)) return true;
  const figures = text.match(/\d/g)?.length ?? 0;
  return figures > (text.match(/\p{L}/gu)?.length ?? 0);
}

/** Whether a text is a heading of some column of some subject. */
export function knownHeading(text: string): boolean {
  headingsOfAll ??= new Set([...SUBJECTS.keys()].flatMap((subject) => [...knownHeadings(subject).keys()]));
  const cell = text.slice(0, LONGEST_SAMPLE);
  return headingsOfAll.has(plainHeading(cell)) || headingsOfAll.has(plainHeading(bare(cell)));
}

let headingsOfAll: ReadonlySet<string> | null = null;

/** A heading without what stands in brackets or after a comma. */
function bare(heading: string): string {
  const at = heading.search(/[([,]/);
  return at < 0 ? heading : heading.slice(0, at);
}

/** The columns of a subject by all headings that mean them; a heading may mean several, the likeliest first. */
type Known = ReadonlyMap<string, readonly string[]>;

function knownHeadings(subject: string): Known {
  let known = headingsBySubject.get(subject);
  if (known) return known;
  known = new Map();
  for (const column of fileColumns(subject))
    for (const heading of [column.label, column.id, ...column.headings]) {
      const plain = plainHeading(heading);
      const ids = known.get(plain) ?? [];
      if (!ids.includes(column.id)) known.set(plain, [...ids, column.id]);
    }
  headingsBySubject.set(subject, known);
  return known;
}

const headingsBySubject = new Map<string, Map<string, readonly string[]>>();

/** Words that make of a heading another figure or thing than the one it names: revenue per head, name of the contact. */
const ANOTHER: ReadonlySet<string> = new Set(
  foldedWords(
    'since seit depuis desde sedan siden vat tax ust mwst tva dph market margin marge marze marza margine margen per growth change rank share ratio contact person first last family given parent group former previous title owner ceo director bank currency year basis low high min max increase trend source note comment ' +
      'jednatel kontakt ansprechpartner geschaeftsfuehrer mena rok jahr waehrung nachname vorname contatto persona',
  ),
);

/** Words that say no more of a column than its unit, its time or that it is one. */
const SAYS_LITTLE: ReadonlySet<string> = new Set(
  foldedWords(
    'n no nr in of the en w v ve za im i le la de du des der die das total latest last current official full registered approx about figure value data info field main head office hq group figures circa cca est estimated geschaetzt geschatzt odhad ' +
      'sidla firmy spolocnosti spolecnosti unternehmens firma company gesamt celkem ogolem rok roku fy year ' +
      // What questionnaires ask with.
      'what which where how many much is are was were do does did you your we our please state give enter',
  ),
);

/** How surely a heading means a column: 4 by the column's own name, 3 just so, 2 beside words that say little, 1 somewhere in it, 0.5 where nothing else does; 0 not at all. */
interface Meant {
  id: string;
  sure: number;
  /** Letters of the known heading: the longest says most. */
  letters: number;
}

/** A house number in Czech and Slovak (č.p., č.o.), which folds to what a postcode is called in French. */
const isHouseNumber = (heading: string) => /^č[po]$/i.test(heading.replace(/[\s.]/g, ''));

/** What the columns of a subject are called here, by id. */
function ownNames(subject: string): ReadonlyMap<string, string> {
  let names = namesBySubject.get(subject);
  if (!names) {
    names = new Map(fileColumns(subject).map(({ id, label }) => [id, label]));
    namesBySubject.set(subject, names);
  }
  return names;
}

const namesBySubject = new Map<string, ReadonlyMap<string, string>>();

/** What a heading may mean, the surest first. */
function meanings(heading: string, subject: string): Meant[] {
  if (isHouseNumber(heading))
    return subject === 'companies' ? [{ id: 'street-number', sure: 3, letters: 2 }] : [];
  const known = knownHeadings(subject);
  const found: Meant[] = [];
  const add = (ids: readonly string[] | undefined, sure: number, letters: number) => {
    for (const id of ids ?? []) found.push({ id, sure, letters });
  };
  const whole = plainHeading(heading);
  add(
    known.get(whole)?.filter((id) => plainHeading(ownNames(subject).get(id)!) === whole),
    4,
    whole.length,
  );
  for (const text of [heading, bare(heading), inFull(heading)]) {
    const plain = plainHeading(text);
    add(known.get(plain), sureOf(plain, 3), plain.length);
  }
  const words = foldedWords(splitCamel(inFull(heading))).filter((word) => !isUnit(word));
  const telling = words.filter((word) => !SAYS_LITTLE.has(word) && !isYear(word));
  const plain = plainHeading(telling.join(' '));
  add(known.get(plain), sureOf(plain, 2), plain.length);
  const end = words.findLastIndex((word) => !isYear(word)) + 1;
  const another = words.flatMap((word, i) => (ANOTHER.has(word) ? [i] : []));
  for (let from = 0; from < Math.min(words.length, MOST_WORDS); from++)
    for (let to = Math.min(words.length, from + 5); to > from; to--) {
      // "employees min" names its column though "min" alone makes it another.
      if (another.some((i) => i < from || i >= to)) continue;
      const part = plainHeading(words.slice(from, to).join(' '));
      if (to - from > 1 || (part.length >= 5 && from === 0))
        add(known.get(part), sureOf(part, 1), part.length);
      // Of single words the last says what it is: the town of the address, the phone of the office.
      else if (to === end && part.length >= 3 && !GENERAL.has(part))
        add(known.get(part), sureOf(part, 1), part.length + MOST_WORDS);
    }
  return found.sort((a, b) => b.sure - a.sure || b.letters - a.letters);
}

/** What a heading most surely means in files of a subject; null where it means nothing. */
export const meantBy = (heading: string, subject: string): string | null =>
  meanings(heading.slice(0, LONGEST_SAMPLE), subject)[0]?.id ?? null;

/** What a heading means of a person. */
const ofPersonBy = (heading: string) => knownHeadings('people').get(plainHeading(heading))?.[0];

/** In a file of people that is read for their companies, names of people are none, and an employer is one. */
function companyMeanings(heading: string, ofPeople: boolean): Meant[] {
  const plain = plainHeading(heading);
  const ofPerson = ofPersonBy(heading);
  if (ofPeople && (ofPerson === 'first-name' || ofPerson === 'last-name')) return [];
  const found = meanings(heading, 'companies');
  return ofPerson === 'company-name' && found.length === 0
    ? [{ id: 'name', sure: 2, letters: plain.length }]
    : found;
}

/** Words that say nothing by themselves at the end of others: street name, area code. */
const GENERAL: ReadonlySet<string> = new Set(
  foldedWords(
    'name names code codes number nr no id land by value type status description beskrivelse beschreibung bezeichnung popis opis',
  ),
);

/** Headings that mean their column only where no other does: a site may be named there, or revenue only by its class. */
const WEAK: ReadonlySet<string> = new Set([
  ...['standort', 'location', 'sitz', 'sidlo', 'locality'],
  // In a list of firms these may be others than the firms.
  ...foldedWords('partner member mitglied client customer supplier vendor vendorname manufacturer producer'),
  ...foldedWords(
    'lieferant hersteller aussteller fournisseur fornitore proveedor fornecedor leverantor dostawca',
  ),
  // Of a state and a county the state is the region.
  'county',
  ...['umsatzklasse', 'umsatzgrosse', 'umsatzgrossenklasse', 'revenuerange', 'revenueband', 'turnoverband'],
]);

const sureOf = (plain: string, sure: number) => (WEAK.has(plain) ? 0.5 : sure);

/** Words of a heading that are looked at. */
const MOST_WORDS = 12;

/** Of two that a heading means as much, the record's own comes before its company's. */
const ofCompany = (id: string) => Number(id.startsWith('company-'));

const isYear = (word: string) => /^(19|20)\d\d$/.test(word);
const isUnit = (word: string) => SCALES.has(word) || word === '000' || currencyIn(word, CURRENCIES) !== null;

/**
 * The column that each column of a file is read as, or null: each at most once, the surest first.
 * @param made how many of the last columns are made of others, which they go before
 */
export function guessColumns(
  header: readonly string[],
  rows: readonly (readonly string[])[],
  subject: string,
  made = 0,
): (string | null)[] {
  const persons = new Set(header.map(ofPersonBy));
  // In several languages the word for a first or a last name alone means a name: it is one where both are there.
  const ofPeople = persons.has('first-name') && persons.has('last-name');
  const claims = header.flatMap((heading, at) =>
    (subject === 'companies' ? companyMeanings(heading, ofPeople) : meanings(heading, subject)).map(
      (meant) => ({
        at,
        ...meant,
      }),
    ),
  );
  // Of the same figure of several years the newest counts.
  const years = header.map((heading) => yearIn(heading) ?? 0);
  const isMade = ({ at }: { at: number }) => Number(at >= header.length - made);
  claims.sort(
    (a, b) =>
      isMade(b) - isMade(a) ||
      b.sure - a.sure ||
      b.letters - a.letters ||
      years[b.at]! - years[a.at]! ||
      ofCompany(a.id) - ofCompany(b.id) ||
      a.at - b.at,
  );
  const columns = new Array<string | null>(header.length).fill(null);
  const taken = new Set<string>();
  for (const { at, id } of claims) {
    if (columns[at] !== null || taken.has(id)) continue;
    if (cellsSpeakAgainst(id, rows, at, header[at])) continue;
    columns[at] = id;
    taken.add(id);
  }
  fillByCells(columns, header, rows, subject, new Set(ownNames(subject).keys()));
  return columns;
}

/** What holds records at their companies in a file. */
const OF_A_COMPANY = ['company-name', 'company-number', 'company-domain', 'company-key'];

/** Of each of these a file has one where its rows are of a subject: premises have the address of a company and little more, events its domain. */
const WANTED: Readonly<Record<string, readonly (readonly string[])[]>> = {
  sites: [['name'], OF_A_COMPANY],
  events: [['name', 'date'], OF_A_COMPANY],
  deals: [['date', 'amount', 'party-target', 'party-buyer', 'party-investor']],
};

/** Whether each row is of a person, with what is known of the employer behind: first, last name and post come before the company. */
function isOfPeople(header: readonly string[]): boolean {
  const at = (id: string) => header.findIndex((heading) => ofPersonBy(heading) === id);
  const [first, last, title, company] = ['first-name', 'last-name', 'title', 'company-name'].map(at);
  return first! >= 0 && last! >= 0 && title! >= 0 && (company! < 0 || Math.max(first!, last!) < company!);
}

/**
 * The subject that a header speaks of most: the one of whose headings it has most, companies where several have as many.
 */
export function guessSubject(header: readonly string[]): string {
  const plain = header.map(plainHeading);
  if (isOfPeople(header)) return 'people';
  let best = 'companies';
  let most = plain.filter((one) => knownHeadings('companies').has(one)).length;
  for (const subject of ['people', 'sites', 'deals', 'events', 'brands']) {
    const known = knownHeadings(subject);
    const count = plain.filter((one) => known.has(one)).length;
    const wanted = WANTED[subject] ?? [];
    const has = (ids: readonly string[]) =>
      plain.some((one) => known.get(one)?.some((id) => ids.includes(id)));
    const names = wanted.every(has);
    if (names && count > most) [best, most] = [subject, count];
  }
  return best;
}
