/** Text that is set in columns by blanks, as printers and old programs write it. */

/** Where the columns of such a text begin, from 0; each ends where the next begins, the last with its line. */
export type TextColumns = readonly number[];

/** Characters that part the cells of other text files. */
const DELIMITERS = [',', ';', '\t', '|'];
/** Lines below which blanks under blanks may be chance. */
const FEWEST_LINES = 3;
/** Lines at the top among which one of dashes is looked for. */
const MOST_ABOVE_RULE = 12;
/** Characters of a line. */
const LONGEST_LINE = 4000;

const GAP = /\S {2,}\S/;
const isFilled = (line: string) => line.trim() !== '';

/** The lines of a text that have gaps between words, where so many have that it may be set in columns; else null. */
export function setLines(lines: readonly string[]): string[] | null {
  const filled = lines.filter(isFilled);
  const set = filled.filter((line) => GAP.test(line) && line.length <= LONGEST_LINE);
  return set.length >= FEWEST_LINES && set.length >= 0.6 * filled.length && !isDelimited(set) ? set : null;
}

/** The columns of a text whose lines are set in some; null where they are not, or cells are parted otherwise. */
export function textColumns(lines: readonly string[]): TextColumns | null {
  const set = setLines(lines);
  if (set === null) return null;
  const columns = ruledColumns(lines) ?? columnsBetweenGaps(set);
  return columns.length > 1 ? columns : null;
}

/** Whether a mark stands as often in nearly every line: then it parts the cells, and blanks only fill them up. */
function isDelimited(lines: readonly string[]): boolean {
  return DELIMITERS.some((mark) => {
    const often = lines[0]!.split(mark).length;
    return (
      often > 1 && lines.filter((line) => line.split(mark).length === often).length >= 0.9 * lines.length
    );
  });
}

/** Whether a line is drawn below headings, dashes for each column. */
export const isRule = (line: string) => /^[-= ]+$/.test(line) && /[-=]{2} +[-=]{2}/.test(line);

/** The columns by a line of dashes below the headings, a group of them for each. */
function ruledColumns(lines: readonly string[]): TextColumns | null {
  const rule = lines.slice(0, MOST_ABOVE_RULE).find(isRule);
  return rule === undefined ? null : [...rule.matchAll(/[-=]+/g)].map(({ index }) => index);
}

/** The columns between places that are blank in every line. */
function columnsBetweenGaps(lines: readonly string[]): TextColumns {
  const width = lines.reduce((most, line) => Math.max(most, line.trimEnd().length), 0);
  const taken = new Uint32Array(width + 1);
  for (const line of lines) for (let at = 0; at < line.length; at++) if (line[at] !== ' ') taken[at]!++;
  const starts: number[] = [];
  for (let at = 0; at < width; at++) if (taken[at]! > 0 && (at === 0 || taken[at - 1] === 0)) starts.push(at);
  return starts.filter((start, i) => i === 0 || parts(lines, start, starts[i + 1] ?? width));
}

/**
 * Whether a column begins where the lines have something after a blank one in all: not where words of the column before only
 * happen to end, nor where only its heading goes on.
 */
function parts(lines: readonly string[], start: number, end: number): boolean {
  const wide = lines.filter(
    (line) => (line[start - 1] === ' ' && line[start - 2] === ' ') || line.length < start,
  ).length;
  const own = lines.filter((line) => isFilled(line.slice(start, end)));
  const isHeadingOnly = own.length === 1 && own[0] === lines[0] && own[0]![start - 2] !== ' ';
  return wide >= lines.length / 2 && !isHeadingOnly;
}

/** The cells of a line. Where a cell reaches over the beginning of the next, all of the line stands behind them as one more. */
export function cutLine(line: string, columns: TextColumns): string[] {
  const cells = columns.map((start, i) => line.slice(i === 0 ? 0 : start, columns[i + 1]).trim());
  const torn = columns.some((start, i) => i > 0 && isLetter(line[start - 1]) && isLetter(line[start]));
  return torn ? [...cells, line.trim()] : cells;
}

const isLetter = (mark: string | undefined) => mark !== undefined && mark !== ' ';
