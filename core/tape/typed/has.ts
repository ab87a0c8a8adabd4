import type { Field } from '../../fields/field.ts';
import { lineFields, relationsOf, rolesOf } from '../../fields/registry.ts';
import { fold } from '../../text/fold.ts';
import type { Lookup } from '../lookup.ts';
import type { FieldLine, HasLine, Line, NumberTest } from '../nodes.ts';
import { readRange } from './figures.ts';
import { partsOf, problem } from './pieces.ts';
import { readTest } from './tests.ts';

/** What a typed has-line says before and after its brackets. */
interface Head {
  has: string;
  subject: string;
  as?: string;
  count?: NumberTest;
}

/** Reads the lines of an inner tape. */
type ReadInner = (parts: readonly string[], subject: string) => Line[];

/**
 * Reads "has deals as target (growth loan; past 18 months) from 2". The role may also stand in the brackets, as a line of
 * its own: "(growth loan; as target)". Brackets may be left out.
 *
 * @throws Problem saying what was understood and what was expected.
 */
export function readHas(text: string, subject: string, readInner: ReadInner): Omit<HasLine, 'id'> {
  const open = openBracket(text);
  const close = open < 0 ? -1 : text.lastIndexOf(')');
  if (open >= 0 && close < open)
    throw problem(text.slice(0, open + 1), text.slice(open + 1), 'a closing bracket', text);
  const before = open < 0 ? text : text.slice(0, open);
  const inner = open < 0 ? '' : text.slice(open + 1, close);
  const head = readHead(before.trim(), subject, text);
  const after = open < 0 ? '' : text.slice(close + 1).trim();
  const count = after === '' ? head.count : readCount(after, text);
  let as = head.as;
  const parts = partsOf(inner).filter((part) => {
    const role = /^as\s+(.+)$/i.exec(part);
    if (role) as = readRole(role[1]!, subject, head.subject, text);
    return role === null;
  });
  const lines = readInner(parts, head.subject);
  return { has: head.has, ...(as ? { as } : {}), ...(count ? { count } : {}), lines };
}

function openBracket(text: string): number {
  let quoted = false;
  for (let i = 0; i < text.length; i++) {
    if (text[i] === '"') quoted = !quoted;
    if (text[i] === '(' && !quoted) return i;
  }
  return -1;
}

function readHead(text: string, subject: string, whole: string): Head {
  const body = text.replace(/^has\s*/i, '').replace(/^(?:an?|any)\s+/i, '');
  const relations = relationsOf(subject);
  const word = /^\S*/.exec(body)![0].toLowerCase();
  const found = [...relations].find(
    ([has, related]) => has === word || related.id === word || related.one === word || related.many === word,
  );
  if (!found)
    throw problem(
      'has',
      word,
      `one of ${[...relations].map(([, related]) => related.one).join(', ')}`,
      whole,
    );
  const [has, related] = found;
  let rest = body.slice(word.length).trim();
  const role = /^as\s+([a-z-]+)/i.exec(rest);
  const as = role ? readRole(role[1]!, subject, related.id, whole) : undefined;
  if (role) rest = rest.slice(role[0].length).trim();
  return {
    has,
    subject: related.id,
    ...(as ? { as } : {}),
    ...(rest === '' ? {} : { count: readCount(rest, whole) }),
  };
}

function readRole(text: string, subject: string, related: string, whole: string): string {
  const roles = rolesOf(subject, related);
  const folded = fold(text.trim());
  const role = roles.find(({ key, label }) => key === folded || fold(label) === folded);
  if (!role)
    throw problem(
      'as',
      text,
      roles.length ? `one of ${roles.map(({ key }) => key).join(', ')}` : 'no role: there is only one',
      whole,
    );
  return role.key;
}

function readCount(text: string, whole: string): NumberTest {
  const found = readRange(text);
  if (found?.rest !== '') throw problem('has …', text, 'how many, as in “from 2”, “2-5” or “up to 3”', whole);
  return found.test;
}

/** A value that stands for itself: a choice ("growth loan"), a level and all above it ("director+"), a date ("past 18 months") or a "phrase". */
export function readBare(text: string, subject: string, lookup: Lookup): Omit<FieldLine, 'id'> | null {
  const fields = lineFields(subject);
  const tried = (field: Field | undefined): Omit<FieldLine, 'id'> | null => {
    if (!field) return null;
    try {
      return { field: field.id, test: readTest(field, field.openers[0]!, text, lookup) };
    } catch {
      return null;
    }
  };
  for (const field of fields) {
    const line = field.kind === 'category' ? tried(field) : null;
    if (line) return line;
  }
  const phrase = /^".*"$/.test(text) ? tried(fields.find(({ kind }) => kind === 'text')) : null;
  return phrase ?? tried(fields.find(({ kind }) => kind === 'date'));
}
