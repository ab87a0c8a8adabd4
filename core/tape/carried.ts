import { carriedText, LONGEST_HEADING } from '../lists/carried.ts';
import { foldedWords } from '../text/fold.ts';
import { plain, wordRange } from './figure-words.ts';
import type { CarriedTest, NumberTest } from './nodes.ts';
import { Problem } from './problem.ts';
import { rangeAt } from './range-at.ts';
import { objectAt, onlyKeys, textAt, texts, wrong } from './shapes.ts';
import { filled, joined, listed, sql, type Sql } from './sql/statement.ts';
import { readRange, spellRange } from './typed/figures.ts';

/**
 * What a file that put members on a list says of them beside who they are, as a part of a line on the list: one of some
 * values, a range, or words. A member of whom no file says anything under that heading is unknown to it.
 */

/** Checks the part of a line on lists that asks for what a file says. @throws Problem */
export function checkCarried(input: unknown, at: string): CarriedTest {
  const raw = objectAt(input, at);
  const column = unquotedAt(raw.column, `${at}.column`);
  const asked = ['any', 'words'].filter((key) => raw[key] !== undefined);
  const ranged = raw.from !== undefined || raw.to !== undefined;
  if (asked.length + Number(ranged) !== 1)
    throw new Problem(
      'wrong-shape',
      `${at} asks for ${asked.length + Number(ranged)} things of "${column}"; it is one of any, words, or from and to.`,
      { field: at, value: Object.keys(raw).join(', '), rule: 'one of any, words, or from and to' },
    );
  if (ranged) {
    const { column: _column, ...limits } = raw;
    onlyKeys(limits, at, ['from', 'to']);
    return { column, ...rangeAt(limits, at) };
  }
  onlyKeys(raw, at, ['column', 'any', 'words']);
  if (raw.any !== undefined) {
    const any = texts(raw.any, `${at}.any`, unquotedAt);
    return { column, any };
  }
  const words = unquotedAt(raw.words, `${at}.words`);
  if (foldedWords(words).length === 0)
    throw new Problem('wrong-shape', `${at}.words has no letters or figures to look for.`, {
      field: `${at}.words`,
      value: words,
      rule: 'at least one letter or figure',
    });
  return { column, words };
}

/** A text that can stand between quotes in a typed line. */
function unquotedAt(value: unknown, at: string): string {
  const text = textAt(value, at, LONGEST_HEADING);
  if (!text.includes('"') && text === text.trim()) return text;
  throw wrong(at, value, 'a text without " and without spaces at its ends');
}

/** Whether one of a member's files says under the heading what is asked; beside a member `m`. */
export function saysAsked(test: CarriedTest): Sql {
  const { any, words, from, to } = test;
  if (any) return says(test, filled('f.folded IN (@)', listed(any.map(carriedText))));
  if (words)
    return says(
      test,
      joined(
        foldedWords(words).map((word) => sql('instr(f.folded, ?) > 0', word)),
        ' AND ',
      ),
    );
  const limits = [
    ...(from === undefined ? [] : [sql('f.number >= ?', from)]),
    ...(to === undefined ? [] : [sql('f.number <= ?', to)]),
  ];
  return says(test, joined(limits, ' AND '));
}

/** Whether one of a member's files says anything under the heading that the test can be held against. */
export function saysAnything(test: CarriedTest): Sql {
  return says(test, sql(test.any || test.words ? 'TRUE' : 'f.number IS NOT NULL'));
}

const says = ({ column }: CarriedTest, what: Sql): Sql =>
  filled(
    'EXISTS (SELECT 1 FROM list_carried_cell f WHERE f.list = m.list AND f.key = m.key AND @ AND @)',
    sql('f.heading = ?', column),
    what,
  );

/** The same as a clause of a typed line, as in `carried "Segment" "A" or "B"`, `carried "Score" 3 to 5`, `carried "Note" with "late"`. */
export function spellCarried(test: CarriedTest): string {
  return `carried "${test.column}" ${askedOf(test, (value) => `"${value}"`, spellRange)}`;
}

/** The same in words. */
export function wordCarried(test: CarriedTest): string {
  return `${test.column}: ${askedOf(
    test,
    (value) => value,
    (range) => wordRange(range, plain),
  )}`;
}

function askedOf(
  test: CarriedTest,
  quoted: (value: string) => string,
  ranged: (test: NumberTest) => string,
): string {
  if (test.any) return test.any.map(quoted).join(' or ');
  return test.words ? `with ${quoted(test.words)}` : ranged(test);
}

/** How many words a range takes at most: "up to 5", "-2 .. 3". */
const RANGE_WORDS = 3;

/** Reads such a clause from its words, the first being "carried"; null where they are none. */
export function readCarried(words: readonly string[], at: number): { test: CarriedTest; end: number } | null {
  const column = unquoted(words[at + 1]);
  if (!column) return null;
  const from = at + 2;
  if (words[from]?.toLowerCase() === 'with') {
    const asked = unquoted(words[from + 1]);
    return asked ? { test: { column, words: asked }, end: from + 2 } : null;
  }
  if (words[from]?.startsWith('"')) {
    const any: string[] = [];
    for (let next = from; ; next += 2) {
      const value = unquoted(words[next]);
      if (!value) return null;
      any.push(value);
      if (words[next + 1]?.toLowerCase() !== 'or') return { test: { column, any }, end: next + 1 };
    }
  }
  for (let many = RANGE_WORDS; many > 0; many--) {
    if (from + many > words.length) continue;
    const found = readRange(words.slice(from, from + many).join(' '));
    if (found?.rest === '') return { test: { column, ...found.test }, end: from + many };
  }
  return null;
}

const unquoted = (word: string | undefined): string | undefined =>
  word?.startsWith('"') ? word.slice(1, -1).trim() : undefined;
