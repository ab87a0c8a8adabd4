import { saysNothing } from '../values/empty.ts';

/**
 * Columns that a file does not have and that are made of those it has: several joined, a part of one, or the same text in every
 * row. They stand behind the file's own and are read, kept and shown like these.
 */
export type MadeColumn = JoinedColumn | PartColumn | SameColumn;

/** Cells of some columns, by their places, with a text between them; those that are empty or say that nothing is known are left out. */
export interface JoinedColumn {
  way: 'join';
  heading: string;
  of: readonly number[];
  by: string;
}

/** What stands before or after a text in a cell. */
export interface PartColumn {
  way: 'part';
  heading: string;
  of: readonly number[];
  by: string;
  part: CellPart;
}

/** A text that stands in every row. */
export interface SameColumn {
  way: 'same';
  heading: string;
  text: string;
}

export const MADE_WAYS = ['join', 'part', 'same'] as const;
export const CELL_PARTS = ['before-first', 'after-first', 'before-last', 'after-last'] as const;
export type CellPart = (typeof CELL_PARTS)[number];

/** Columns that can be made of one file. */
export const MOST_MADE = 30;

/** What a made column holds in a row. */
export function madeCell(column: MadeColumn, cells: readonly string[]): string {
  switch (column.way) {
    case 'same':
      return column.text;
    case 'join':
      return column.of
        .map((at) => cells[at]?.trim() ?? '')
        .filter((cell) => cell !== '' && !saysNothing(cell))
        .join(column.by);
    case 'part':
      return partOf(cells[column.of[0]!]?.trim() ?? '', column.by, column.part);
  }
}

/** A part of a cell; of one without the text it is all of it before, and nothing after. */
function partOf(cell: string, by: string, part: CellPart): string {
  const at = part.endsWith('first') ? cell.indexOf(by) : cell.lastIndexOf(by);
  const before = part.startsWith('before');
  if (at < 0) return before ? cell : '';
  return (before ? cell.slice(0, at) : cell.slice(at + by.length)).trim();
}

/**
 * The cells of a row with those that are made behind the file's own.
 * @param width how many columns the file itself has; cells beyond them come last, where they are seen to be too many
 */
export function withMade(made: readonly MadeColumn[], cells: readonly string[], width: number): string[] {
  const own = Array.from({ length: width }, (_, at) => cells[at] ?? '');
  return [...own, ...made.map((column) => madeCell(column, own)), ...cells.slice(width)];
}

/** The headings of a file with those of the columns that are made. */
export function headerWithMade(made: readonly MadeColumn[], header: readonly string[]): string[] {
  return [...header, ...made.map(({ heading }) => heading)];
}
