/** Something wrong with what was given: says where, what was seen and what is expected. */
export class Problem extends Error {
  /** Short name for programs, such as "unknown-field". */
  readonly code: string;
  /** Where: a path such as `lines[2].test.from`, or a column of a file. */
  readonly field?: string;
  readonly value?: unknown;
  /** What a right value looks like. */
  readonly rule?: string;

  constructor(code: string, message: string, about: { field?: string; value?: unknown; rule?: string } = {}) {
    super(message);
    this.name = 'Problem';
    this.code = code;
    this.field = about.field;
    this.value = about.value;
    this.rule = about.rule;
  }
}

/** A value as it is shown in a message: quoted, and cut where it is long. */
export function shown(value: unknown): string {
  const text = JSON.stringify(value) ?? String(value);
  return text.length > 60 ? `${text.slice(0, 57)}…` : text;
}
