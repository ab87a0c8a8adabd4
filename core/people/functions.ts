import { DEPARTMENTS } from '../fields/companies/making.ts';
import { LEVELS } from '../fields/people.ts';
import { Problem } from '../tape/problem.ts';

/** What somebody does at a company, ranked choices of it under a name, and how these are written. */

/** One function: a department, levels, words of the title; what is left out may be any. */
export interface PersonFunction {
  readonly department?: string;
  readonly levels?: readonly string[];
  /** Words of which the title has one that begins so; several together as they stand. */
  readonly title?: readonly string[];
}

/** A ranked choice of functions under a name: of each company the first that somebody holds. */
export interface RightPersonChoice {
  key: string;
  label: string;
  functions: readonly PersonFunction[];
}

export const MOST_FUNCTIONS = 10;
const ANYBODY = 'anybody';
const ELSE = ', else ';

const choice = (key: string, label: string, functions: string): [string, RightPersonChoice] => [
  key,
  { key, label, functions: readFunctions(functions) },
];

/** Ready choices, which every workspace has beside its own. */
export const READY_RIGHT_PEOPLE: ReadonlyMap<string, RightPersonChoice> = new Map([
  choice(
    'runs-production',
    'Whoever runs production',
    'production head, else production director, else owner',
  ),
  choice('buys', 'Whoever buys', 'purchasing head or director, else purchasing manager, else owner'),
  choice('sells', 'Whoever runs sales', 'sales head or director, else management director, else owner'),
  choice('keeps-the-books', 'Whoever keeps the books', 'finance director or head, else finance, else owner'),
  choice(
    'runs-the-firm',
    'Whoever runs the firm',
    'owner or founder, else management director, else director',
  ),
]);

/** "production head, else technical “works”, else owner": as they are shown, typed and kept. */
export function spellFunctions(functions: readonly PersonFunction[]): string {
  return functions.map(spellFunction).join(ELSE);
}

/** "production head or director "works" or "plant"". */
export function spellFunction({ department, levels, title }: PersonFunction): string {
  const words = (title ?? []).map((word) => word.replaceAll('"', '').trim()).filter(Boolean);
  return (
    [department, levels?.join(' or '), words.map((word) => `"${word}"`).join(' or ')]
      .filter(Boolean)
      .join(' ') || ANYBODY
  );
}

/**
 * Reads functions as they are spelled.
 * @throws Problem naming the word that says nothing of a function.
 */
export function readFunctions(text: string): PersonFunction[] {
  const functions = outsideQuotes(text, /,? ?\belse\b/gi).map(readFunction);
  if (functions.length > MOST_FUNCTIONS)
    throw new Problem('too-many', `At most ${MOST_FUNCTIONS} functions stand in a row.`, {
      field: 'functions',
      value: functions.length,
      rule: `at most ${MOST_FUNCTIONS}`,
    });
  return functions;
}

function readFunction(text: string): PersonFunction {
  const levels: string[] = [];
  const title: string[] = [];
  let department: string | undefined;
  for (const [token, quoted] of text.matchAll(/"([^"]*)"|[^\s"]+/g)) {
    const word = token.toLowerCase();
    if (quoted !== undefined) {
      if (quoted.trim() !== '') title.push(quoted.trim());
    } else if ((LEVELS as readonly string[]).includes(word)) levels.push(word);
    else if (department === undefined && (DEPARTMENTS as readonly string[]).includes(word)) department = word;
    else if (word !== 'or' && word !== ANYBODY)
      throw new Problem('wrong-value', `“${token}” is no department, level or title in quotation marks.`, {
        field: 'functions',
        value: text.trim(),
        rule: `a department (${DEPARTMENTS.join(', ')}), levels (${LEVELS.join(', ')}), words of the title in quotation marks`,
      });
  }
  return {
    ...(department === undefined ? {} : { department }),
    ...(levels.length ? { levels } : {}),
    ...(title.length ? { title } : {}),
  };
}

/** Parts of a text between separators that stand outside quotation marks. */
function outsideQuotes(text: string, separator: RegExp): string[] {
  // What stands in quotation marks is masked by as many letters, so that places stay what they are.
  const masked = text.replace(/"[^"]*"/g, (quoted) => 'x'.repeat(quoted.length));
  const parts: string[] = [];
  let from = 0;
  for (const found of masked.matchAll(separator)) {
    parts.push(text.slice(from, found.index));
    from = found.index + found[0].length;
  }
  return [...parts, text.slice(from)];
}
