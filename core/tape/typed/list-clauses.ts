import { isStep } from '../../lists/steps.ts';
import { readCarried, spellCarried, wordCarried } from '../carried.ts';
import { VERDICTS, type ListTest, type ListVerdict } from '../nodes.ts';

/** What a line on lists asks beyond the lists: "targets verdict out reason "too small" or "closed" judged past 7 days". */
export type ListClauses = Omit<ListTest, 'any'>;

const isVerdict = (text: string): text is ListVerdict => (VERDICTS as readonly string[]).includes(text);
const isQuoted = (text: string | undefined) => text?.startsWith('"') === true;

/** Parts a typed line on lists in its lists and its clauses. A word is the beginning of a clause only where what follows it fits. */
export function listClauses(text: string): { lists: string; clauses: ListClauses } {
  const words = text.match(/"[^"]*"|[^\s"]+/g) ?? [];
  const first = words.findIndex((_, at) => at > 0 && clauseAt(words, at) !== null);
  if (first < 0) return { lists: text, clauses: {} };
  const clauses: ListClauses = {};
  for (let at = first; at < words.length;) {
    const clause = clauseAt(words, at);
    // What fits nowhere belongs to the names, which then are refused with all of it.
    if (!clause) return { lists: text, clauses: {} };
    Object.assign(clauses, clause.part);
    at = clause.end;
  }
  return { lists: words.slice(0, first).join(' '), clauses };
}

function clauseAt(words: readonly string[], at: number): { part: ListClauses; end: number } | null {
  const word = words[at]!.toLowerCase();
  const next = words[at + 1]?.toLowerCase();
  switch (word) {
    case 'verdict': {
      const { values, end } = joinedByOr(words, at + 1);
      const verdicts = values.map((one) => one.toLowerCase());
      return verdicts.length && verdicts.every(isVerdict) ? { part: { verdict: verdicts }, end } : null;
    }
    case 'reason':
    case 'tag': {
      if (!isQuoted(next)) return null;
      const { values, end } = joinedByOr(words, at + 1);
      return { part: { [word]: values }, end };
    }
    case 'assigned': {
      if (next !== 'to' || !isQuoted(words[at + 2])) return null;
      const { values, end } = joinedByOr(words, at + 2);
      return { part: { assigned: values }, end };
    }
    case 'added':
    case 'judged':
      return next === 'past' && words.length > at + 3
        ? { part: { [word]: `${words[at + 2]} ${words[at + 3]}` }, end: at + 4 }
        : null;
    case 'step':
      return next !== undefined && isStep(next) ? { part: { step: next }, end: at + 2 } : null;
    case 'carried': {
      const found = readCarried(words, at);
      return found && { part: { carried: found.test }, end: found.end };
    }
    default:
      return null;
  }
}

/** Words with "or" between them, from a place on, and where they end. */
function joinedByOr(words: readonly string[], from: number): { values: string[]; end: number } {
  const values: string[] = [];
  let at = from;
  for (; at < words.length; at += 2) {
    values.push(words[at]!.replaceAll('"', ''));
    if (words[at + 1]?.toLowerCase() !== 'or') return { values, end: at + 1 };
  }
  return { values, end: at };
}

const oneOf = (values: readonly string[]) => values.map((value) => `"${value}"`).join(' or ');

/** The clauses as they would be typed, with a space before; empty where there are none. */
export function spellListClauses(test: ListClauses): string {
  const parts = [
    test.verdict && `verdict ${test.verdict.join(' or ')}`,
    test.reason && `reason ${oneOf(test.reason)}`,
    test.tag && `tag ${oneOf(test.tag)}`,
    test.assigned && `assigned to ${oneOf(test.assigned)}`,
    test.added && `added past ${test.added}`,
    test.judged && `judged past ${test.judged}`,
    test.step && `step ${test.step}`,
    test.carried && spellCarried(test.carried),
  ];
  return parts.map((part) => (part ? ` ${part}` : '')).join('');
}

const STEP_WORDS = {
  origin: 'all of origin',
  again: 'on it already at origin',
  taken: 'taken off as',
} as const;

/** The clauses in words, with a comma before; empty where there are none. */
export function wordListClauses(test: ListClauses): string {
  const or = (values: readonly string[]) => values.join(' or ').replaceAll('not-judged', 'not judged');
  const [step, id] = test.step?.split('-') ?? [];
  const parts = [
    test.verdict && or(test.verdict),
    test.reason && `because ${or(test.reason)}`,
    test.tag && `tagged ${or(test.tag)}`,
    test.assigned && `assigned to ${or(test.assigned)}`,
    test.added && `added in the past ${test.added}`,
    test.judged && `judged in the past ${test.judged}`,
    step && `${STEP_WORDS[step as keyof typeof STEP_WORDS]} ${id}`,
    test.carried && `whose file says ${wordCarried(test.carried)}`,
  ];
  return parts.map((part) => (part ? `, ${part}` : '')).join('');
}
