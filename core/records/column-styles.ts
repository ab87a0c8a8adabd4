import type { CodeTree, Scheme } from '../codes/tree.ts';
import { CURRENCIES } from '../money/rates.ts';
import { foldedWords } from '../text/fold.ts';
import { figuresWithZero } from '../values/codes.ts';
import { CROWNS } from '../values/figure-words.ts';
import { areInseeBands } from '../values/coded-bands.ts';
import { dateOrder } from '../values/date.ts';
import { decimalEvidence, decimalOf, needsDecimal, type DecimalEvidence } from '../values/decimal.ts';
import { moneyHeading } from '../values/money-heading.ts';
import { yearIn } from './plain-heading.ts';
import { guessScheme, isCodes, schemeSaid } from './scheme-guess.ts';

/** How one column is written, where the file alone does not say it. */
export interface ColumnStyle {
  decimal?: '.' | ',';
  dates?: 'dmy' | 'mdy';
  /** What its money is counted in, one of `UNITS`. */
  unit?: number;
  /** ISO code of its money. */
  currency?: string;
  scheme?: Scheme;
  /** How many figures its codes have that lost a leading zero. */
  figures?: number;
  /** Whether its figures have no decimals, so that either mark before three figures stands between thousands. */
  whole?: boolean;
  /** The year that its figures are of. */
  year?: number;
  /** Whose codes of bands its figures are. */
  bands?: 'insee';
}

/** What of a column cannot be seen from the file, so that somebody has to say it before it is loaded. */
export interface Undecided {
  column: number;
  what: 'decimal' | 'dates' | 'scheme' | 'currency' | 'unit';
}

/** What money can be counted in; ten thousands, lakhs, crores and hundred millions as Asia counts. */
export const UNITS: readonly number[] = [1, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9];

export const MONEY_COLUMNS: ReadonlySet<string> = new Set([
  'revenue',
  'revenue-from',
  'revenue-to',
  'profit',
  'assets',
  'amount',
  'amount-from',
  'amount-to',
]);
const WHOLE_COLUMNS: ReadonlySet<string> = new Set([
  'headcount',
  'headcount-from',
  'headcount-to',
  'followers',
  'bidders',
  'products',
]);
export const DATE_COLUMNS: ReadonlySet<string> = new Set([
  'checked',
  'site-checked',
  'surveyed',
  'date',
  'since',
]);

/** A column of a file with what its cells say. */
interface Column {
  at: number;
  id: string | null;
  heading: string;
  cells: string[];
  evidence: DecimalEvidence;
}

export interface StylesGuess {
  styles: ColumnStyle[];
  undecided: Undecided[];
  /** The decimal mark of the file, for columns that need none of their own. */
  decimal: '.' | ',';
}

/**
 * How each column of a file is written, by all of its cells, its heading and its neighbours. A column whose figures
 * are other numbers with the other mark, and of which nothing shows the mark, is undecided; so are dates with slashes
 * that fit both orders and codes that fit two schemes.
 */
export function guessStyles(
  header: readonly string[],
  rows: readonly (readonly string[])[],
  columns: readonly (string | null)[],
  trees: ReadonlyMap<Scheme, CodeTree>,
  hints: { delimiter?: string; sameCode: (code: string) => boolean; country?: string | null },
): StylesGuess {
  const all = header.map((heading, at): Column => {
    const cells = rows.map((row) => row[at]?.trim() ?? '').filter((cell) => cell !== '');
    const id = columns[at] ?? null;
    return { at, id, heading, cells, evidence: decimalEvidence(id !== null && isFigures(id) ? cells : []) };
  });
  const ofFile =
    decimalOf(
      sum(
        all.map(({ id, evidence }) => (id !== null && WHOLE_COLUMNS.has(id) ? asWhole(evidence) : evidence)),
      ),
      false,
    ) ?? ofLanguage(header, hints.delimiter);
  const said = schemeOfRows(all.find(({ id }) => id === 'main-scheme')?.cells ?? []);
  const undecided: Undecided[] = [];
  const order = dateOrder(all.flatMap(({ id, cells }) => (id !== null && DATE_COLUMNS.has(id) ? cells : [])));
  const styles = all.map(({ at, id, heading, cells, evidence }): ColumnStyle => {
    if (id === null) return {};
    const style: ColumnStyle = {};
    const year = MONEY_COLUMNS.has(id) || id.startsWith('headcount') ? yearIn(heading) : null;
    if (year !== null) style.year = year;
    if (isFigures(id)) {
      const decimal = decimalOf(evidence, WHOLE_COLUMNS.has(id)) ?? ofFile;
      if (decimal !== null) style.decimal = decimal;
      else if (needsDecimal(evidence)) undecided.push({ column: at, what: 'decimal' });
      if (WHOLE_COLUMNS.has(id) && evidence.point === 0 && evidence.comma === 0) style.whole = true;
      if (id === 'headcount' && isTranche(heading) && areInseeBands(cells)) style.bands = 'insee';
    }
    if (MONEY_COLUMNS.has(id)) {
      const { unit, currency, strange } = moneyHeading(heading, CURRENCIES);
      style.unit = unit ?? 1;
      if (strange && unit === null) undecided.push({ column: at, what: 'unit' });
      const meant = currency === 'kr' ? CROWNS[hints.country ?? ''] : currency;
      if (meant && CURRENCIES.includes(meant)) style.currency = meant;
      else if (currency !== null) undecided.push({ column: at, what: 'currency' });
    }
    if (DATE_COLUMNS.has(id)) {
      const own = dateOrder(cells);
      const decided =
        own === 'dmy' || own === 'mdy'
          ? own
          : own === 'either' && (order === 'dmy' || order === 'mdy')
            ? order
            : null;
      if (decided) style.dates = decided;
      else if (own === 'either' || own === 'both') undecided.push({ column: at, what: 'dates' });
    }
    if (id === 'main-code' || id === 'other-codes') {
      const scheme = said ?? guessScheme(heading, cells, trees, hints.sameCode);
      if (scheme === null) undecided.push({ column: at, what: 'scheme' });
      else style.scheme = scheme;
      const figures = figuresWithZero(cells);
      if (figures && lostZeros(cells, trees.get(scheme ?? 'nace-2'), figures)) style.figures = figures;
    }
    return style;
  });
  undecided.push(...unitsInDoubt(all, styles));
  return { styles, undecided: withSchemeBeside(styles, undecided, all, trees), decimal: ofFile ?? '.' };
}

/**
 * Columns of money whose heading says neither unit nor currency, beside revenue in thousands or more, and whose figures are no larger
 * than its: they may be counted as it is, which nothing says.
 */
function unitsInDoubt(columns: readonly Column[], styles: readonly ColumnStyle[]): Undecided[] {
  const revenue = columns.find(({ id }) => id === 'revenue');
  if (!revenue || (styles[revenue.at]!.unit ?? 1) === 1) return [];
  const most = mostFigures(revenue.cells);
  return columns.flatMap(({ at, id, heading, cells }) => {
    if (id === null || id === 'revenue' || !MONEY_COLUMNS.has(id) || cells.length === 0) return [];
    const said = moneyHeading(heading, CURRENCIES);
    const saysNothing =
      said.unit === null && said.currency === null && !cells.some((cell) => /\p{L}/u.test(cell));
    return saysNothing && mostFigures(cells) <= most ? [{ column: at, what: 'unit' as const }] : [];
  });
}

/** How many figures the longest number of some cells has before its decimals. */
function mostFigures(cells: readonly string[]): number {
  return Math.max(0, ...cells.map((cell) => cell.replace(/[.,]\d{1,2}$/, '').replace(/\D/g, '').length));
}

/** Codes that two schemes fit are in that of the other column of codes, where that is known and they are codes in it. */
function withSchemeBeside(
  styles: ColumnStyle[],
  undecided: readonly Undecided[],
  columns: readonly Column[],
  trees: ReadonlyMap<Scheme, CodeTree>,
): Undecided[] {
  const known = styles.find(({ scheme }) => scheme)?.scheme;
  const tree = known && trees.get(known);
  if (!tree) return [...undecided];
  return undecided.filter(({ column, what }) => {
    if (what !== 'scheme' || !columns[column]!.cells.every((cell) => isCodes(cell, tree))) return true;
    styles[column]!.scheme = known;
    return false;
  });
}

/** Whether a heading is that of the French register's classes of staff: "trancheEffectifsUniteLegale", "Tranche d'effectifs". */
const isTranche = (heading: string) => /tranche.{0,30}effectif/i.test(heading);

/** The scheme of codes that a column of the file says row by row, where each says one: the first row's, which others may not have. */
function schemeOfRows(cells: readonly string[]): Scheme | null {
  const schemes = new Set(cells.map(schemeSaid));
  return schemes.has(undefined) ? null : ([...schemes][0] ?? null);
}

/** Whether more cells of a column are codes where those of fewer figures have lost a zero than where they have not. */
function lostZeros(cells: readonly string[], tree: CodeTree | undefined, figures: number): boolean {
  if (!tree) return true;
  const codes = (lost: number) => cells.filter((cell) => isCodes(cell, tree, lost)).length;
  return codes(figures) > codes(0);
}

/** In what ways columns that are read as `id` can be written. */
export function stylesOf(id: string): ('decimal' | 'unit' | 'currency' | 'dates' | 'scheme')[] {
  if (MONEY_COLUMNS.has(id)) return ['decimal', 'unit', 'currency'];
  if (isFigures(id)) return ['decimal'];
  if (DATE_COLUMNS.has(id)) return ['dates'];
  return id === 'main-code' || id === 'other-codes' ? ['scheme'] : [];
}

function isFigures(id: string): boolean {
  return MONEY_COLUMNS.has(id) || WHOLE_COLUMNS.has(id) || isShare(id);
}

/** Percents; a column of all channels holds several figures, which are written one way. */
function isShare(id: string): boolean {
  return id === 'certainty' || id === 'share' || (id.startsWith('channel-') && id !== 'channel-change');
}

/** The evidence of whole figures: a mark before three figures stands between thousands. */
function asWhole({ point, comma, onlyPoints, onlyCommas }: DecimalEvidence): DecimalEvidence {
  return { point: point + onlyCommas, comma: comma + onlyPoints, onlyPoints: 0, onlyCommas: 0 };
}

function sum(all: readonly DecimalEvidence[]): DecimalEvidence {
  const total: DecimalEvidence = { point: 0, comma: 0, onlyPoints: 0, onlyCommas: 0 };
  for (const one of all)
    for (const key of Object.keys(total) as (keyof DecimalEvidence)[]) total[key] += one[key];
  return total;
}

/** Words by which English headings are known. */
const ENGLISH: ReadonlySet<string> = new Set(
  foldedWords(
    'company name employees headcount staff revenue turnover sales country town city street address phone website postcode zip code industry founded status number registration date profit assets size amount co addr tel emp rev yr est ctry',
  ),
);

/** The mark that the language of the headings uses, where commas do not separate the cells: English a point, its neighbours a comma. */
function ofLanguage(header: readonly string[], delimiter: string | undefined): '.' | ',' | null {
  const worded = header.map(foldedWords).filter((words) => words.length > 0);
  const english = worded.filter((words) => words.some((word) => ENGLISH.has(word))).length;
  if (english * 2 < worded.length)
    // Short words in plain letters may be of any language where commas separate the cells.
    return delimiter === ',' && header.every((heading) => /^[\x20-\x7e]*$/.test(heading)) ? null : ',';
  return delimiter === ',' || delimiter === undefined ? '.' : null;
}
