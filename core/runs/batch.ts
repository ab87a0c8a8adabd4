import { foldedWords } from '../text/fold.ts';

/** Sheets of searches: which column holds the search, and what the others make of each row. */

/** A column whose values fill a line, by the words that open the line. */
export interface BatchField {
  column: number;
  as: string;
}

const SEARCH_HEADINGS = [
  'search',
  'searches',
  'query',
  'line',
  'lines',
  'tape',
  'words',
  'suche',
  'suchwort',
  'hledat',
  'recherche',
];
/** Headings that are other words for the opener of a line. */
const SAME: Readonly<Record<string, string>> = {
  ...{
    country: 'in',
    countries: 'in',
    land: 'in',
    place: 'in',
    town: 'in',
    region: 'in',
    where: 'in',
    ort: 'in',
  },
  ...{ staff: 'headcount', employees: 'headcount', turnover: 'revenue', code: 'industry', codes: 'industry' },
};
const ENDS = /^(.+) (from|to|min|max|least|most)$/;

/** What a column looks like by its heading: the opener of a line, with from or to where it is one end of a range. */
export function openerOf(heading: string): string {
  const words = foldedWords(heading).join(' ');
  const range = ENDS.exec(words);
  const [stem, end] = range ? [range[1]!, range[2]!] : [words, null];
  const opener = SAME[stem] ?? stem;
  if (end === null) return opener;
  return `${opener} ${end === 'from' || end === 'min' || end === 'least' ? 'from' : 'to'}`;
}

/**
 * Which column of a sheet holds the search, and what the others fill; of the others those alone whose heading opens a line.
 * @param opens whether words open a line
 */
export function guessBatch(
  header: readonly string[],
  rows: readonly (readonly string[])[],
  opens: (words: string) => boolean,
): { search: number; fields: BatchField[] } {
  const named = header.findIndex((heading) => SEARCH_HEADINGS.includes(foldedWords(heading).join(' ')));
  const search = named >= 0 ? named : longest(header, rows);
  const fields = header.flatMap((heading, column) => {
    const as = openerOf(heading);
    return column !== search && as !== '' && opens(as.replace(/ (?:from|to)$/, '')) ? [{ column, as }] : [];
  });
  return { search, fields };
}

function longest(header: readonly string[], rows: readonly (readonly string[])[]): number {
  const letters = header.map((_, column) => rows.reduce((sum, row) => sum + (row[column] ?? '').length, 0));
  return Math.max(0, letters.indexOf(Math.max(...letters)));
}

/** The typed lines that the further columns of a row make; empty cells make none. Both ends of one range are one line. */
export function typedOf(fields: readonly BatchField[], row: readonly string[]): string[] {
  const ranges = new Map<string, { from?: string; to?: string }>();
  const lines: string[] = [];
  for (const { column, as } of fields) {
    const value = (row[column] ?? '').trim();
    if (value === '') continue;
    const end = ENDS.exec(as);
    if (!end) lines.push(`${as} ${value}`);
    else {
      const range = ranges.get(end[1]!) ?? {};
      range[end[2] as 'from' | 'to'] = value;
      ranges.set(end[1]!, range);
    }
  }
  for (const [opener, { from, to }] of ranges) {
    if (from === undefined) lines.push(`${opener} up to ${to!}`);
    else if (to === undefined) lines.push(`${opener} from ${from}`);
    // A currency stands once, at the end.
    else lines.push(`${opener} ${from.replace(/[a-z]{3}$/i, '').trim()}-${to}`);
  }
  return lines;
}

/** Rows of a sheet that a run takes: so many from where the last run stopped, from the start again once it came to the end. */
export function rowsOfRun(total: number, at: number, most: number | null): { rows: number[]; next: number } {
  const from = at >= total ? 0 : at;
  const to = most === null ? total : Math.min(total, from + most);
  return { rows: Array.from({ length: to - from }, (_, i) => from + i), next: to >= total ? 0 : to };
}
