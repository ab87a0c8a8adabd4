import { dayOf } from '../dates.ts';
import { DEPARTMENTS } from '../fields/companies/making.ts';
import { fold } from '../text/fold.ts';
import { CellError, checkLength } from '../values/cell.ts';
import { readNumber } from '../values/number.ts';
import type { CompanyRecord, DepartmentStaff, HistoryPoint, SeenTechnology } from './record.ts';

/** Readers of cells that hold several values at once, separated by semicolons. */

/** Plain figures, whatever decimal mark the file has: what these cells hold is written one way. */
const PLAIN_STYLE = { decimal: '.' } as const;

const partsOf = (cell: string, separator: string | RegExp = ';') =>
  cell
    .split(separator)
    .map((part) => part.trim())
    .filter((part) => {
      checkLength(part, 'parts');
      return part !== '';
    });

/** "Rutavel; Kontovar [2024-03-01..2026-02-11]": products by comma, semicolon or bar, with the days first and last seen where known. @throws CellError */
export function readTechnologies(cell: string): SeenTechnology[] {
  if (NONE.test(cell)) return [];
  return partsOf(cell, /[,;|]/).map((part) => {
    const seen = /^(.*\S)\s*\[([^\]]*)\]$/.exec(part);
    if (!seen) return { label: part, first: null, last: null };
    const [first, last] = seen[2]!.split('..').map((day) => (day.trim() === '' ? null : dayIn(day.trim())));
    return { label: seen[1]!, first: first ?? null, last: last ?? null };
  });
}

function dayIn(text: string): number {
  const day = dayOf(text);
  if (day === null) throw new CellError('products with days such as [2024-03-01..2026-02-11]');
  return day;
}

/** "2021:120; 2022:≈130": a figure by calendar year, ascending. @throws CellError */
export function readHistory(cell: string): HistoryPoint[] {
  const points = partsOf(cell).map((part) => {
    const found = /^(\d{4})\s*:\s*([≈~]?)\s*(\S+)$/.exec(part);
    if (!found) throw new CellError('years and figures such as 2024:120; 2025:≈130');
    return {
      year: Number(found[1]),
      value: readNumber(found[3]!, PLAIN_STYLE),
      estimate: found[2] !== '',
    };
  });
  points.sort((a, b) => a.year - b.year);
  if (points.some((point, i) => point.year === points[i - 1]?.year))
    throw new CellError('one figure for each year');
  return points;
}

/** "2024-01: 12000 13000 12500": revenue of months on end. @throws CellError */
export function readMonths(cell: string): NonNullable<CompanyRecord['revenueMonths']> {
  const found = /^(\d{4}-(?:0[1-9]|1[0-2]))\s*:\s*(\S.*)$/.exec(cell);
  if (!found) throw new CellError('a month and figures such as 2024-01: 12000 13000');
  return {
    start: found[1]!,
    values: partsOf(found[2]!, /\s+/).map((figure) => readNumber(figure, PLAIN_STYLE)),
  };
}

/** "production 40/38/31; sales 6": staff by department, at times with those of one and three years ago. @throws CellError */
export function readDepartments(cell: string): DepartmentStaff[] {
  return partsOf(cell).map((part) => {
    const found = /^(.+?)\s*:?\s+(\d+)(?:\/(\d*))?(?:\/(\d*))?$/.exec(part);
    const key = found && DEPARTMENTS.find((one) => one === fold(found[1]!));
    if (!found || !key)
      throw new CellError(`departments and staff such as production 40; known are ${DEPARTMENTS.join(', ')}`);
    const before = (figure: string | undefined) => (figure ? Number(figure) : null);
    return { key, now: Number(found[2]), before1: before(found[3]), before3: before(found[4]) };
  });
}

/** That it is known that there is none. */
const NONE = /^(none|keine?|žádné|zadne|žiadne|aucune?|nessuna?|ninguna?|geen)$/i;

/** Values by comma, semicolon or bar; "none" is an empty list. */
export function readValues(cell: string): string[] {
  return NONE.test(cell) ? [] : [...new Set(partsOf(cell, /[,;|]/))];
}

const YES = new Set(['yes', 'y', 'true', '1', 'ja', 'ano', 'tak', 'oui', 'si', 'igen']);
const NO = new Set(['no', 'n', 'false', '0', 'nein', 'ne', 'nie', 'non', 'nem']);

/** Yes or no in several languages. @throws CellError */
export function readFlag(cell: string): boolean {
  const folded = fold(cell);
  if (YES.has(folded)) return true;
  if (NO.has(folded)) return false;
  throw new CellError('yes or no');
}

/** "dealers 62; direct: 38 %": a figure by word, each word once. `wordOf` says what a word means. @throws CellError */
export function readShares<W extends string>(
  cell: string,
  wordOf: (text: string) => W,
): [word: W, value: number][] {
  if (NONE.test(cell)) return [];
  const shares = partsOf(cell, /[;|]/).map((part): [W, number] => {
    const plain = part.endsWith('%') ? part.slice(0, -1).trimEnd() : part;
    const at = Math.max(plain.lastIndexOf(' '), plain.lastIndexOf(':'));
    if (at <= 0) throw new CellError('words and figures such as dealers 62; direct 38');
    const word = plain.slice(0, at).trim();
    return [
      wordOf(word.endsWith(':') ? word.slice(0, -1).trimEnd() : word),
      readNumber(plain.slice(at + 1), { decimal: plain.slice(at + 1).includes(',') ? ',' : '.' }),
    ];
  });
  if (new Set(shares.map(([word]) => word)).size < shares.length)
    throw new CellError('one figure for each word');
  return shares;
}
