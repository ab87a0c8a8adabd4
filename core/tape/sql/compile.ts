import type { Lookup } from '../lookup.ts';
import {
  isBlock,
  isLive,
  liveBranches,
  passesUnknown,
  type FieldLine,
  type Line,
  type Tape,
} from '../nodes.ts';
import type { Dialect, Sql } from './dialect.ts';
import { sqliteDialect } from './sqlite.ts';

/**
 * The tape as one SELECT of company ids. SQL's three values are Kleene's: a test is a condition
 * that is true, false or null, and each line's policy says what null becomes.
 */
export function compileTape(tape: Tape, lookup: Lookup, dialect: Dialect = sqliteDialect): Sql {
  const conditions = tape.lines
    .filter(isLive)
    .map((line) => compileLine(line, tape.subject, lookup, dialect));
  return {
    text: `SELECT c.id FROM company c${conditions.length ? `\nWHERE ${conditions.map((one) => one.text).join('\n  AND ')}` : ''}\nORDER BY c.id`,
    values: conditions.flatMap((one) => one.values),
  };
}

/** A line as a condition that is 0 or 1, never null. */
export function compileLine(
  line: Line,
  subject: string,
  lookup: Lookup,
  dialect: Dialect = sqliteDialect,
): Sql {
  const test = compileTest(line, subject, lookup, dialect);
  return {
    text: `COALESCE(${line.not ? `NOT (${test.text})` : test.text}, ${passesUnknown(line) ? 1 : 0}) = 1`,
    values: test.values,
  };
}

/** A line's test as a condition of three values, before *not* and policy. */
export function compileTest(
  line: Line,
  subject: string,
  lookup: Lookup,
  dialect: Dialect = sqliteDialect,
): Sql {
  if (!isBlock(line)) return dialect.test(line, subject, lookup);
  const live = liveBranches(line).length ? liveBranches(line) : line.either;
  const branches = live.map((branch: FieldLine) => {
    const test = dialect.test(branch, subject, lookup);
    return branch.not ? { ...test, text: `NOT (${test.text})` } : test;
  });
  return {
    text: `(${branches.map((one) => `(${one.text})`).join(' OR ')})`,
    values: branches.flatMap((one) => one.values),
  };
}
