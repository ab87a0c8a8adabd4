import { lineFields } from '../../fields/registry.ts';
import type { Field } from '../../fields/field.ts';
import type { Lookup } from '../lookup.ts';
import { joinLines, renamed } from '../edit.ts';
import { emptyTape, isBlock, type Leaf, type Line } from '../nodes.ts';
import { validateTape } from '../validate.ts';
import { readBare, readHas } from './has.ts';
import { partsOf, problem, splitOutside, squeezed } from './pieces.ts';
import { readRightPerson, RIGHT_PERSON } from './right-person.ts';
import { readTest } from './tests.ts';

/**
 * Reads typed lines, several at once separated by `;`. `newId` names each line.
 *
 *     text    = [ "/" ] line { ";" [ "or" ] line }
 *     line    = marks ( "either" branch { "|" branch } | body )
 *     marks   = { "parked" | "must" | "keep unknown" | "drop unknown" | "not" | "fresh" span }
 *     body    = opener test [ "with estimates" ] marks | has | "right person" functions marks | value
 *     has     = "has" subject [ "as" role ] [ count ] [ "(" text ")" [ count ] ] marks
 *
 * "or" joins a line with the one before it into an either-block. Of several lines at once, one that opens none and is words alone
 * is taken as words of the company.
 *
 * @throws Problem saying what was understood and what was expected.
 */
export function parseTyped(text: string, subject: string, lookup: Lookup, newId: () => string): Line[] {
  const parts = partsOf(squeezed(text).replace(/^\/+/, ''));
  const lines = readLines(
    parts.length > 1 && subject === 'companies' ? parts.map(asWords) : parts,
    subject,
    lookup,
    newId,
  );
  return [...validateTape({ format: 'just-tally.tape', version: 1, subject, lines }, lookup).lines];
}

/** Words without a figure, that open nothing. */
const WORDS_ALONE = /^\p{L}[\p{L}' -]*$/u;

/** A part typed among others that is words alone, as the line that searches them. */
function asWords(part: string): string {
  const [, marks, body] = /^((?:or\s+|not\s+|must\s+|parked\s+)*)(.*)$/i.exec(part)!;
  const opened = opens(body!, 'companies') || /^(?:has|either)(?:\s|$)/i.test(body!) || MARK.test(body!);
  return WORDS_ALONE.test(body!) && !opened ? `${marks}words ${body}` : part;
}

function readLines(parts: readonly string[], subject: string, lookup: Lookup, newId: () => string): Line[] {
  const lines: Line[] = [];
  for (const part of parts) {
    const or = /^or\s+/i.exec(part);
    const above = lines.at(-1);
    if (or && !above) throw problem('or', part.slice(or[0].length), 'a line before it to join with', part);
    const line = readLine(or ? part.slice(or[0].length) : part, subject, lookup, newId);
    if (or && above)
      lines[lines.length - 1] = renamed(
        joinLines({ ...emptyTape(subject), lines: [above, line] }, above.id, [line]).lines[0]!,
        newId(),
      );
    else lines.push(line);
  }
  return lines;
}

interface Marks {
  not?: true;
  must?: true;
  parked?: true;
  unknown?: 'keep' | 'drop';
  fresh?: string;
}

const MARK = /^(not|must|parked|keep unknowns?|drop unknowns?|fresh\s+\d+\s+\w+)(?=\s|$)/i;
const LAST_MARK = /\s+(must|parked|keep unknowns?|drop unknowns?|fresh\s+\d+\s+\w+)$/i;

function readLine(text: string, subject: string, lookup: Lookup, newId: () => string): Line {
  const marks: Marks = {};
  const mark = (word: string) => {
    const first = word.toLowerCase().split(/\s+/)[0]!;
    if (first === 'keep' || first === 'drop') marks.unknown = first;
    else if (first === 'fresh') marks.fresh = word.slice(5).trim();
    else marks[first as 'not' | 'must' | 'parked'] = true;
  };
  const withoutMarks = (line: string) => {
    let body = line;
    for (let found = LAST_MARK.exec(body); found; found = LAST_MARK.exec(body)) {
      mark(found[1]!);
      body = body.slice(0, found.index);
    }
    return body;
  };
  let rest = text;
  for (let found = MARK.exec(rest); found; found = MARK.exec(rest)) {
    mark(found[1]!);
    rest = rest.slice(found[0].length).trim();
  }
  if (/^either(\s|$)/i.test(rest)) {
    const branches = splitOutside(rest.slice(6), '|').map((part) =>
      readLine(part.trim(), subject, lookup, newId),
    );
    if (rest.slice(6).trim() === '') throw problem('either', '', 'lines joined by |', text);
    if (branches.some(isBlock))
      throw problem('either', rest.slice(6).trim(), 'lines, not another either', text);
    return { id: newId(), ...marks, either: branches as Leaf[] };
  }
  if (subject === 'companies' && RIGHT_PERSON.test(rest)) {
    const text = withoutMarks(rest);
    return { ...readRightPerson(text, lookup, newId), ...marks };
  }
  if (/^has(\s|$)/i.test(rest)) {
    const has = readHas(withoutMarks(rest), subject, (parts, inner) =>
      readLines(parts, inner, lookup, newId),
    );
    return { id: newId(), ...marks, ...has };
  }
  const bare = subject === 'companies' || opens(rest, subject) ? null : readBare(rest, subject, lookup);
  if (bare) return { id: newId(), ...marks, ...bare };
  const { field, opener, rest: test } = readOpener(rest, subject, text);
  let body = field.kind === 'text' ? test : withoutMarks(test);
  let estimates = false;
  if (
    (field.store.at === 'range' || field.kind === 'rank') &&
    /\s?(with |incl(uding)? )?estimates$/i.test(body)
  ) {
    estimates = true;
    body = body.replace(/,?\s*(with |incl(uding)? )?estimates$/i, '').trim();
  }
  return {
    id: newId(),
    ...marks,
    field: field.id,
    test: readTest(field, opener, body, lookup),
    ...(estimates ? { estimates: true as const } : {}),
  };
}

function opens(text: string, subject: string): boolean {
  try {
    readOpener(text, subject);
    return true;
  } catch {
    return false;
  }
}

/** The field a text opens with: one of its openers, or a range followed by its unit ("50-249 staff"). */
export function readOpener(
  text: string,
  subject: string,
  whole = text,
): { field: Field; opener: string; rest: string } {
  const fields = lineFields(subject);
  let best: { field: Field; opener: string } | null = null;
  for (const field of fields)
    for (const opener of field.openers)
      if (
        new RegExp(`^${opener}(?=[\\s:]|$)`, 'i').test(text) &&
        (!best || opener.length > best.opener.length)
      )
        best = { field, opener };
  if (best) {
    const rest = text.slice(best.opener.length).trim();
    return { ...best, rest: best.field.kind === 'text' ? rest : rest.replace(/^:\s*/, '') };
  }
  const unit = /^(.*\d.*?)\s+(staff|employees|people|headcount)(\s+.*)?$/i.exec(text);
  const headcount = fields.find((field) => field.id === 'headcount');
  if (unit && headcount) return { field: headcount, opener: 'headcount', rest: `${unit[1]}${unit[3] ?? ''}` };
  throw problem(
    '',
    whole,
    `a line such as ${fields
      .slice(0, 4)
      .map((field) => `“${field.openers[0]} …”`)
      .join(', ')} or “50-249 staff”`,
    whole,
  );
}
