import { readFunctions } from '../../people/functions.ts';
import { fold } from '../../text/fold.ts';
import type { Lookup } from '../lookup.ts';
import { isBlock, isHas, type Line } from '../nodes.ts';
import { rightPersonLine } from '../right-person.ts';
import { problem } from './pieces.ts';

/** What opens a line that asks for somebody who holds one of some functions. */
export const RIGHT_PERSON = /^(?:has\s+)?(?:a\s+|the\s+)?right person(?=[\s:]|$)/i;

/**
 * Reads "right person whoever runs production", by the name of a choice, or by its functions: "right person production head,
 * else owner". It is spelled as the has-lines that it stands for.
 * @throws Problem naming the word that was not understood.
 */
export function readRightPerson(text: string, { rightPeople }: Lookup, newId: () => string): Line {
  const opener = RIGHT_PERSON.exec(text)![0];
  const wanted = text.slice(opener.length).replace(/^:/, '').trim();
  if (wanted === '')
    throw problem(
      opener,
      '',
      'the name of a choice, or functions such as “production head, else owner”',
      text,
    );
  const name = fold(wanted.replace(/^"(.*)"$/, '$1'));
  const choice = [...rightPeople.values()].find(({ key, label }) => key === name || fold(label) === name);
  return named(rightPersonLine(choice?.functions ?? readFunctions(wanted), ''), newId);
}

/** The line with its ids given in the order in which the has-lines that it stands for are read. */
function named<L extends Line>(line: L, newId: () => string): L {
  if (isBlock(line)) return { ...line, either: line.either.map((one) => named(one, newId)), id: newId() };
  if (isHas(line)) return { ...line, lines: line.lines.map((one) => named(one, newId)), id: newId() };
  return { ...line, id: newId() };
}

/** Choices of functions whose name a text begins, or has a word that it begins, as lines. */
export function suggestRightPeople(text: string, { rightPeople }: Lookup): string[] {
  const wanted = fold(text.trim());
  return [...rightPeople.values()]
    .filter(({ label }) => ` ${fold(label)}`.includes(` ${wanted}`))
    .map(({ label }) => `right person ${label.charAt(0).toLowerCase()}${label.slice(1)}`);
}
