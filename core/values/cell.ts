/** A cell that cannot be read: what a right one looks like. */
export class CellError extends Error {
  readonly rule: string;
  constructor(rule: string) {
    super(rule);
    this.rule = rule;
  }
}

/** How a file, or one column of it, writes what can be written in more than one way. */
export interface CellStyle {
  /** The decimal mark; the other of the two is then the thousands separator. */
  decimal: '.' | ',';
  /** Order of day and month in dates such as 03/04/2026. */
  dates: 'dmy' | 'mdy';
}

/** Characters that a figure or a date has at most; the expressions here need not be asked of longer texts. */
const LONGEST_FIGURE = 200;

/** @throws CellError */
export function checkLength(text: string, what: string): void {
  if (text.length > LONGEST_FIGURE) throw new CellError(`${what} of at most ${LONGEST_FIGURE} characters`);
}

/** A value that was found in a list. @throws CellError where it was not, with the rule */
export function oneOf<T>(value: T | null | undefined, rule: string): T {
  if (value === null || value === undefined) throw new CellError(rule);
  return value;
}
