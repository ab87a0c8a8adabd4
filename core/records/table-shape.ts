import { CURRENCIES } from '../money/rates.ts';
import { withoutForm } from '../match/legal-forms.ts';
import { fold } from '../text/fold.ts';
import { moneyHeading } from '../values/money-heading.ts';
import { knownHeading, looksLikeHeader } from './headings.ts';

/** Where the table stands in a file: what stands above it, its headings, and rows in it that are no data. */

export interface TableShape {
  /** Rows above the headings: titles, notes, blank ones. */
  skip: number;
  /** Rows of headings: none, one, or two that are read together. */
  headerRows: 0 | 1 | 2;
}

/** Rows at the top in which the headings are looked for. */
const MOST_ABOVE = 40;

const filledOf = (cells: readonly string[]) => cells.filter((cell) => cell.trim() !== '').length;
const isFigure = (cell: string) => /^[-+(]?\d[\d.,' ]{0,40}[)%]?$/.test(cell.trim());
const isYear = (cell: string) => /^\s*(19|20)\d\d\s*$/.test(cell);

/** The shape that the first rows of a file suggest; blank rows are among them. */
export function guessShape(rows: readonly (readonly string[])[]): TableShape {
  const widest = Math.max(0, ...rows.map(filledOf));
  const enough = widest <= 2 ? widest : Math.max(2, Math.ceil(widest * 0.5));
  let at = rows.slice(0, MOST_ABOVE).findIndex((cells) => filledOf(cells) >= enough);
  if (at < 0) at = 0;
  // A title over several columns may be as wide as half the table; the headings are known words.
  const better = rows
    .slice(at, at + 6)
    .findIndex((cells) => filledOf(cells) >= enough && knownIn(cells) >= Math.max(2, filledOf(cells) / 2));
  if (better > 0 && knownIn(rows[at]!) === 0 && !rows.slice(at, at + better).some(looksLikeData))
    at += better;
  const header = looksLikeHeader(rows[at] ?? [], rows[at + 1]);
  if (!header) return { skip: at, headerRows: 0 };
  return { skip: at, headerRows: isSecondHeader(rows[at]!, rows[at + 1], rows[at + 2]) ? 2 : 1 };
}

/** Whether the first rows of a sheet have a table whose headings are known, and not a page to be read. */
export function hasKnownTable(rows: readonly (readonly string[])[]): boolean {
  const { skip, headerRows } = guessShape(rows);
  return rows.slice(skip, skip + headerRows).some((cells) => knownIn(cells) >= 2);
}

function knownIn(cells: readonly string[]): number {
  return cells.filter((cell) => cell.trim() !== '' && knownHeading(cell)).length;
}

function looksLikeData(cells: readonly string[]): boolean {
  return (
    cells.some((cell) => isFigure(cell) && !isYear(cell)) ||
    cells.some((cell) => /\S@\S|^https?:|^www\./i.test(cell))
  );
}

/** Whether the row under the headings belongs to them: it fills what they leave blank, has no figures but years, and figures follow. */
function isSecondHeader(
  first: readonly string[],
  second: readonly string[] | undefined,
  third: readonly string[] | undefined,
): boolean {
  if (!second || !third || looksLikeData(second)) return false;
  if (saysUnits(first, second) && looksLikeData(third)) return true;
  const gaps = second.filter((cell, i) => cell.trim() !== '' && (first[i] ?? '').trim() === '').length;
  return (
    gaps > 0 &&
    looksLikeData(third) &&
    filledOf(first) < filledOf(third) &&
    knownIn(second) + countYears(second) > 0
  );
}

/** Whether a row says no more than what the columns above it are counted in: (in Mio. EUR), [%], TEUR. */
function saysUnits(first: readonly string[], second: readonly string[]): boolean {
  const filled = second.flatMap((cell, i) => (cell.trim() === '' ? [] : [{ cell: cell.trim(), i }]));
  return (
    filled.length > 0 &&
    filled.every(({ cell, i }) => (first[i] ?? '').trim() !== '' && isUnitAlone(cell)) &&
    filled.length < filledOf(first)
  );
}

function isUnitAlone(cell: string): boolean {
  if (cell.length > 30) return false;
  if (/^\(.*\)$|^\[.*\]$/.test(cell)) return true;
  const { unit, currency } = moneyHeading(`(${cell})`, CURRENCIES);
  return cell === '%' || unit !== null || currency !== null;
}

const countYears = (cells: readonly string[]) => cells.filter(isYear).length;

/** The headings of the columns: two rows are joined, the upper one reaching over the blank cells to its right. */
export function headingsOf(rows: readonly (readonly string[])[], width: number): string[] {
  const [first = [], second] = rows;
  if (!second) return Array.from({ length: width }, (_, i) => (first[i] ?? '').trim());
  let over = '';
  return Array.from({ length: width }, (_, i) => {
    const own = (first[i] ?? '').trim();
    if (own !== '') over = own;
    const under = (second[i] ?? '').trim();
    return under === '' ? own : over === '' ? under : `${over} ${under}`;
  });
}

/** Rows by which it is seen whether rows stand in groups. */
const GROUPED_BY = 50;

/**
 * Whether the rows of a table stand in groups, each below a row with its heading alone ("Bavaria"): the first row is one, no two stand
 * together, and the others fill most of the columns.
 * @param rows the first rows below the headings, without blank ones
 */
export function standInGroups(rows: readonly (readonly string[])[], width: number): boolean {
  const some = rows.slice(0, GROUPED_BY);
  const alone = some.map((cells) => filledOf(cells) === 1 && (cells[0] ?? '').trim() !== '');
  const groups = alone.filter(Boolean).length;
  return (
    width > 2 &&
    alone[0] === true &&
    groups > 1 &&
    groups <= some.length / 2 &&
    alone.every((one, i) => !one || alone[i + 1] === false) &&
    some.every((cells, i) => alone[i] || filledOf(cells) > Math.max(2, width / 2)) &&
    some.every((cells, i) => !alone[i] || withoutForm(cells[0]!).form === null)
  );
}

/**
 * The rows of a table that lies on its side, a column for each record: headings that are known stand below each other in its first
 * column, and none in its first row, which comes below a title at times. Null where it does not.
 */
export function lyingTable(rows: readonly string[][]): string[][] | null {
  const filled = rows.filter((cells) => filledOf(cells) > 0);
  const from = filled.findIndex((cells) => filledOf(cells) > 1);
  const [top = [], ...others] = filled.slice(Math.max(0, from));
  if (top.length < 3 || others.length < 3 || rows.length > MOST_ON_SIDE) return null;
  const known = others.filter((cells) => knownHeading(cells[0] ?? '')).length;
  return known >= 3 && known >= 0.6 * others.length && knownIn(top.slice(1)) === 0 ? [top, ...others] : null;
}

/** Rows of a table on its side, each of them a heading with what the records have there. */
const MOST_ON_SIDE = 200;

const TOTALS = new Set(
  'total|totals|grand total|subtotal|sub total|sum|gesamt|insgesamt|summe|gesamtsumme|zwischensumme|celkem|soucet|mezisoucet|spolu|sucet|razem|suma|ogolem|totale|totaux|total general|somme|osszesen|totaal|totalt|i alt|yhteensa|average|mean|durchschnitt|prumer|srednia|moyenne|media'.split(
    '|',
  ),
);
/** Before how many rows there are. */
const COUNT =
  /^(anzahl|count|number of \w+|rows|records|companies|pocet( \w+)?|liczba( \w+)?|nombre( de \w+)?|numero( di \w+| de \w+)?|aantal|antal|n)\s*[:=]\s*\d[\d .,]*$/;
/** Beginnings of notes: a mark, a word with a colon, or what programs write below a table. A firm may be called Standard or Note. */
const NOTE =
  /^(\*|†|‡|©|\(c\)|(source|quelle|zdroj|zrodlo|fonte|fuente|forras|bron|notes?|hinweis|anmerkung|stand|pozn|poznamka|uwaga|legende?|copyright|page|seite|strana|exported|generated|updated)(:|\.:| \d)|(date of|as of|exported|generated) |end of (list|file|report)|copyright )/;
/** A line drawn between headings and rows: dashes, equals signs, the colons and plus signs of tables in text. */
const RULE = /^[+:|]?[-=_+]{3,}[+:|]?$/;
/** How many rows there were, as programs say it below a table: "(2 rows)". */
const COUNTED = /^\(\d+ (?:rows?|records?|zeilen|lignes|wierszy|řádků)\)$/i;
const LONGEST_NAME = 90;

/**
 * Why a row between the headings and the end is no record: a total, a note, the headings once more or that of a group. Null for
 * records.
 * @param header the headings; a row with one cell is a note only in a table of several columns
 * @param inGroups whether the rows stand in groups, below rows with one cell
 */
export function notData(
  cells: readonly string[],
  header: readonly string[],
  inGroups = false,
): 'total' | 'note' | 'headings' | null {
  const filled = cells.filter((cell) => cell.trim() !== '');
  const first = filled[0];
  if (first === undefined) return null;
  if (filled.every((cell) => RULE.test(cell.trim()))) return 'note';
  if (inGroups && filled.length === 1 && first === cells[0]) return 'headings';
  if (filled.length === 1 && COUNTED.test(first.trim())) return 'note';
  if (
    filled.length > 1 &&
    filled.length >= header.length / 2 &&
    cells.every((cell, i) => cell.trim() === (header[i] ?? ''))
  )
    return 'headings';
  const word = fold(first)
    .replace(/[^a-z ]/g, ' ')
    .replace(/ +/g, ' ')
    .trim();
  const counted = first.length < 60 && COUNT.test(fold(first).trim());
  if ((TOTALS.has(word) || counted) && header.length > 1 && filled.slice(1).every(isFigure)) return 'total';
  if (header.length > 2 && filled.length === 1) {
    if (NOTE.test(fold(first).trim()) || (first.length > LONGEST_NAME && /\. |[a-z]{3}\.$/.test(first)))
      return 'note';
  }
  return null;
}
