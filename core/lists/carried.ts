import { fold } from '../text/fold.ts';
import { decimalEvidence, decimalOf } from '../values/decimal.ts';
import { saysNothing } from '../values/empty.ts';
import { readNumber } from '../values/number.ts';

/** What the columns are that a file carries along onto a list, told from what stands in them. */

/** A number is asked by a range, a category by its values, a text by its words. */
export type CarriedKind = 'number' | 'category' | 'text';

export interface CarriedColumn {
  column: string;
  kind: CarriedKind;
}

/** One member's cells under the headings of its file. */
export type CarriedCells = Readonly<Record<string, string>>;

/** A cell made ready to be asked: folded, and as a number where its column is one of numbers. */
export interface ReadyCell {
  column: string;
  text: string;
  folded: string;
  number: number | null;
}

/** More values than this are no categories, nor are long ones. */
const MOST_CATEGORIES = 60;
const LONGEST_CATEGORY = 60;
/** A few values may all differ; of many, each category has several on average. */
const FEW_CATEGORIES = 12;
const LEAST_EACH = 2;

const saysSomething = (text: string): boolean => text.trim() !== '' && !saysNothing(text.trim());

/** A text as it is compared: accents, case, quotes and spaces at its ends do not matter. */
export function carriedText(text: string): string {
  return fold(text).replaceAll('"', '').trim();
}

/** Characters of a heading by which it is asked. */
export const LONGEST_HEADING = 200;

/** A heading as it stands in a typed line, where quotes go around it; empty where nothing is left to call it by. */
export function carriedHeading(heading: string): string {
  return heading.replaceAll('"', '').trim().slice(0, LONGEST_HEADING).trim();
}

/** The columns of some members' cells with what each is, in the order of their file; those without any text are left out. */
export function carriedColumns(members: readonly CarriedCells[]): CarriedColumn[] {
  return [...valuesByColumn(members)].map(([column, values]) => ({ column, kind: kindOf(values) }));
}

/**
 * The cells of each member as they are asked, without those that say nothing. Numbers are read with the decimal mark that the
 * whole column shows.
 */
export function readyCells(members: readonly CarriedCells[]): ReadyCell[][] {
  const decimals = new Map(
    [...valuesByColumn(members)]
      .filter(([, values]) => kindOf(values) === 'number')
      .map(([column, values]) => [column, decimalIn(values)]),
  );
  return members.map((cells) =>
    Object.entries(cells).flatMap(([heading, text]) => {
      if (!saysSomething(text)) return [];
      const column = carriedHeading(heading);
      if (column === '') return [];
      const decimal = decimals.get(column);
      const number = decimal ? readNumber(text, { decimal }) : null;
      return [{ column, text: text.trim(), folded: carriedText(text), number }];
    }),
  );
}

function valuesByColumn(members: readonly CarriedCells[]): Map<string, string[]> {
  const columns = new Map<string, string[]>();
  for (const cells of members)
    for (const [heading, text] of Object.entries(cells)) {
      const column = carriedHeading(heading);
      let values = columns.get(column);
      if (!values) columns.set(column, (values = []));
      if (saysSomething(text)) values.push(text);
    }
  for (const [column, values] of columns) if (column === '' || values.length === 0) columns.delete(column);
  return columns;
}

function kindOf(values: readonly string[]): CarriedKind {
  if (isNumbers(values)) return 'number';
  const different = new Set<string>();
  for (const value of values) {
    if (value.length > LONGEST_CATEGORY) return 'text';
    different.add(carriedText(value));
    if (different.size > MOST_CATEGORIES) return 'text';
  }
  return different.size <= FEW_CATEGORIES || different.size * LEAST_EACH <= values.length
    ? 'category'
    : 'text';
}

/** Figures with a zero before them, or as long as no quantity is, are numbers of things rather than quantities. */
const NAMES_SOMETHING = /^0\d|^\d{12}/;

function isNumbers(values: readonly string[]): boolean {
  const decimal = decimalIn(values);
  return values.every((value) => {
    if (NAMES_SOMETHING.test(value.trim())) return false;
    try {
      readNumber(value, { decimal });
      return true;
    } catch {
      return false;
    }
  });
}

/** Where one mark before three figures is all that there is, it stands between thousands. */
function decimalIn(values: readonly string[]): '.' | ',' {
  return decimalOf(decimalEvidence(values), true) ?? '.';
}
