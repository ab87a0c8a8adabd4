import { keysOf } from '../charts/axes.ts';
import { fieldOf } from '../fields/registry.ts';
import { readFunctions, spellFunction, spellFunctions, type PersonFunction } from '../people/functions.ts';
import { listAtHand } from '../lists/at-hand.ts';
import type { CarriedColumn } from '../lists/carried.ts';
import {
  countedLine,
  isBlock,
  isHas,
  type FieldLine,
  type HasLine,
  type ListTest,
  type PlaceTest,
  type Tape,
} from './nodes.ts';

/**
 * Columns beyond those of fields. Of a tape's own: how many related records a has-line counts ("count:l9"), how alike a line
 * of peers finds a company and why ("score:l2", "why:l2"), how far it is from the point of a line ("km:l3"), what a list says of
 * its members ("member:verdict:l4") and what is reckoned of them ("review:doubt:l4"). Of any tape: the same of the list that it
 * stands on ("member:verdict:*", and "carried:*:Segment" of what its file says under a heading), one key of a field that has
 * several ("of:channel:dealers"), how large a company's whole group is ("group:revenue"), and who holds the first of some functions
 * that anybody holds there ("right:mail:production head, else owner").
 */
export const SCORE_COLUMN = 'score:';
export const WHY_COLUMN = 'why:';
export const KM_COLUMN = 'km:';
export const MEMBER_COLUMN = 'member:';
export const REVIEW_COLUMN = 'review:';
export const CARRIED_COLUMN = 'carried:';
/** Instead of the id of a line: the list that the tape stands on, so that such a column means the same on any tape. */
export const AT_HAND = '*';
export const KEY_COLUMN = 'of:';
export const GROUP_COLUMN = 'group:';
export const RIGHT_COLUMN = 'right:';

/** What the companies of a group are together: those with a single figure, added up. */
const GROUP_SUMS = [
  { kind: 'group', of: 'revenue', label: 'Group revenue, EUR k' },
  { kind: 'group', of: 'headcount', label: 'Group headcount' },
] as const;

/** What a list says of a member. */
export const MEMBER_PARTS = {
  verdict: 'Verdict',
  reason: 'Reason',
  note: 'Note on the list',
  tags: 'Tags',
  assigned: 'Assigned to',
  added: 'Added',
  origins: 'Origins',
  carried: 'From its file',
} as const;
export type MemberPart = keyof typeof MEMBER_PARTS;

/** What a column says of the right person of a company. */
export const RIGHT_PARTS = {
  name: 'Name',
  title: 'Title',
  mail: 'Mail',
  certainty: 'Mail certainty',
  phone: 'Phone',
  function: 'Function',
} as const;
export type RightPart = keyof typeof RIGHT_PARTS;

/** What is reckoned of a member, for going through a list. */
export const REVIEW_PARTS = {
  likeness: {
    label: 'Like those in',
    meaning:
      'From 0, like those judged out, over 50 to 100, like those judged in: by all that fields say of them.',
  },
  doubt: {
    label: 'Doubt',
    meaning:
      'From 0 to 100: the mean of how much is not known, how long ago it was checked, which lines are unsure of it, and how many judged of its kind are out. No probability.',
  },
  doubts: { label: 'What to doubt', meaning: 'What the figure of doubt is made of.' },
} as const;
export type ReviewPart = keyof typeof REVIEW_PARTS;

export type OwnColumn =
  | { kind: 'review'; part: ReviewPart; line: FieldLine; list: string; label: string }
  | { kind: 'member'; part: MemberPart; line: FieldLine; list: string; label: string }
  | { kind: 'carried'; column: string; line: FieldLine; list: string; label: string }
  | { kind: 'count'; line: HasLine }
  | { kind: 'score' | 'why' | 'km'; line: FieldLine }
  | { kind: 'key'; field: string; key: string; label: string }
  | { kind: 'right'; part: RightPart; functions: readonly PersonFunction[]; label: string }
  | { kind: 'group'; of: 'headcount' | 'revenue'; label: string };

/** What a column of this name is, or undefined where the tape has none such. */
export function ownColumnOf(tape: Pick<Tape, 'lines' | 'subject'>, column: string): OwnColumn | undefined {
  const counted = countedLine(tape, column);
  if (counted) return { kind: 'count', line: counted };
  for (const [stem, kind] of [
    [SCORE_COLUMN, 'score'],
    [WHY_COLUMN, 'why'],
    [KM_COLUMN, 'km'],
  ] as const)
    if (column.startsWith(stem)) {
      const line = fieldLine(tape, column.slice(stem.length));
      const fits =
        line &&
        (kind === 'km' ? line.field === 'place' && (line.test as PlaceTest).near : line.field === 'peers');
      return fits ? { kind, line } : undefined;
    }
  if (column.startsWith(MEMBER_COLUMN) || column.startsWith(REVIEW_COLUMN)) {
    const [, part, ...rest] = column.split(':');
    const line = fieldLine(tape, rest.join(':'));
    // What is not on a list has nothing said of it there.
    if (line?.field !== 'list' || line.not) return undefined;
    const list = (line.test as ListTest).any[0]!;
    if (column.startsWith(REVIEW_COLUMN)) {
      if (!Object.hasOwn(REVIEW_PARTS, part!)) return undefined;
      const known = part as ReviewPart;
      return { kind: 'review', part: known, line, list, label: REVIEW_PARTS[known].label };
    }
    if (!Object.hasOwn(MEMBER_PARTS, part!)) return undefined;
    const known = part as MemberPart;
    return { kind: 'member', part: known, line, list, label: MEMBER_PARTS[known] };
  }
  if (column.startsWith(CARRIED_COLUMN)) {
    const [, id, ...heading] = column.split(':');
    const line = fieldLine(tape, id!);
    const label = heading.join(':');
    if (line?.field !== 'list' || line.not || label === '') return undefined;
    return { kind: 'carried', column: label, line, list: (line.test as ListTest).any[0]!, label };
  }
  if (column.startsWith(GROUP_COLUMN) && tape.subject === 'companies')
    return GROUP_SUMS.find(({ of }) => column === GROUP_COLUMN + of);
  if (column.startsWith(RIGHT_COLUMN)) return rightOf(tape.subject, column);
  if (!column.startsWith(KEY_COLUMN)) return undefined;
  const [, id, ...rest] = column.split(':');
  const field = fieldOf(tape.subject, id!);
  const key = field && keysOf(field).find((one) => one.key === rest.join(':'));
  return key && { kind: 'key', field: field.id, key: key.key, label: `${field.label}: ${key.label}` };
}

/** A column of the right person, where its functions are spelled as they are kept. */
function rightOf(subject: string, column: string): OwnColumn | undefined {
  const [, part, ...rest] = column.split(':');
  if (subject !== 'companies' || !Object.hasOwn(RIGHT_PARTS, part!)) return undefined;
  try {
    const functions = readFunctions(rest.join(':'));
    const known = part as RightPart;
    if (rightColumn(known, functions) !== column) return undefined;
    return { kind: 'right', part: known, functions, label: rightLabel(known, functions) };
  } catch {
    return undefined;
  }
}

/** "Mail, production head", with a sign that there are others where that is nobody. */
function rightLabel(part: RightPart, functions: readonly PersonFunction[]): string {
  return `${RIGHT_PARTS[part]}, ${spellFunction(functions[0]!)}${functions.length > 1 ? ' …' : ''}`;
}

/** The column of what is said of the right person by some functions. */
export function rightColumn(part: RightPart, functions: readonly PersonFunction[]): string {
  return `${RIGHT_COLUMN}${part}:${spellFunctions(functions)}`;
}

function fieldLine(tape: Pick<Tape, 'lines'>, id: string): FieldLine | undefined {
  if (id === AT_HAND) return listAtHand(tape)?.line;
  return tape.lines
    .flatMap((line) => (isBlock(line) ? line.either : [line]))
    .find((line): line is FieldLine => !isHas(line) && line.id === id);
}

/** Whether a name is that of such a column rather than of a field. */
export function isOwnColumn(column: string): boolean {
  return column.includes(':');
}

/** Whether it can be had of any tape, so that it is remembered with the columns of fields. */
export function isOfAnyTape(column: string): boolean {
  return (
    !isOwnColumn(column) ||
    column.startsWith(KEY_COLUMN) ||
    column.startsWith(GROUP_COLUMN) ||
    column.startsWith(RIGHT_COLUMN) ||
    isOfListAtHand(column)
  );
}

/** Whether it says something of the members of whatever list a tape stands on. */
function isOfListAtHand(column: string): boolean {
  if (column.startsWith(carriedColumn(''))) return column !== carriedColumn('');
  const [, part, line, ...more] = column.split(':');
  if (line !== AT_HAND || more.length > 0) return false;
  if (column.startsWith(MEMBER_COLUMN)) return Object.hasOwn(MEMBER_PARTS, part!);
  return column.startsWith(REVIEW_COLUMN) && Object.hasOwn(REVIEW_PARTS, part!);
}

/** Whether a subject has such a column on some tape, so that it can be kept for later. */
export function canBeKept(subject: string, column: string): boolean {
  if (!isOwnColumn(column)) return (fieldOf(subject, column)?.column ?? null) !== null;
  return (
    isOfListAtHand(column) ||
    (isOfAnyTape(column) && ownColumnOf({ subject, lines: [] }, column) !== undefined)
  );
}

/**
 * Every such column that a tape has of its own, in the order of its lines.
 * @param carried the headings under which files say something of a list's members
 */
export function ownColumns(
  tape: Pick<Tape, 'lines' | 'subject'>,
  carried: (list: string) => readonly CarriedColumn[] = () => [],
): string[] {
  const atHand = listAtHand(tape)?.line.id;
  return tape.lines
    .flatMap((line) => (isBlock(line) ? line.either : [line]))
    .flatMap((line) =>
      isHas(line)
        ? [`count:${line.id}`]
        : [
            ...[SCORE_COLUMN, WHY_COLUMN, KM_COLUMN].map((stem) => stem + line.id),
            ...listColumns(line.id === atHand ? AT_HAND : line.id),
            ...(line.field === 'list'
              ? carried((line.test as ListTest).any[0]!).map(({ column }) =>
                  carriedColumn(column, line.id === atHand ? AT_HAND : line.id),
                )
              : []),
          ],
    )
    .filter((column) => ownColumnOf(tape, column) !== undefined);
}

function listColumns(line: string): string[] {
  return [
    ...Object.keys(MEMBER_PARTS).map((part) => memberColumn(part as MemberPart, line)),
    ...Object.keys(REVIEW_PARTS).map((part) => reviewColumn(part as ReviewPart, line)),
  ];
}

/** The column of what the list of a line, or the one at hand, says of its members. */
export function memberColumn(part: MemberPart, line: string = AT_HAND): string {
  return `${MEMBER_COLUMN}${part}:${line}`;
}

/** The column of what files say under a heading of the members of the list of a line, or of the one at hand. */
export function carriedColumn(heading: string, line: string = AT_HAND): string {
  return `${CARRIED_COLUMN}${line}:${heading}`;
}

/** The column of what is reckoned of the members of the list of a line, or of the one at hand. */
export function reviewColumn(part: ReviewPart, line: string = AT_HAND): string {
  return `${REVIEW_COLUMN}${part}:${line}`;
}

/** Whether records can be put in order by it: reasons in words have none. */
export function isSortable(column: OwnColumn): boolean {
  return column.kind !== 'why' && !(column.kind === 'review' && column.part === 'doubts');
}

/** Further columns that a field can be shown by: single keys, or what its group is together. */
export function keyColumns(fieldId: string, subject: string): { id: string; label: string }[] {
  if (fieldId === 'group' && subject === 'companies')
    return GROUP_SUMS.map(({ of, label }) => ({ id: GROUP_COLUMN + of, label }));
  const field = fieldOf(subject, fieldId);
  return field
    ? keysOf(field).map(({ key, label }) => ({ id: `${KEY_COLUMN}${field.id}:${key}`, label }))
    : [];
}
