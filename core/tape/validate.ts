import { checkCharts } from '../charts/validate.ts';
import type { Field } from '../fields/field.ts';
import { fieldOf, relationsOf, rolesOf, SUBJECTS } from '../fields/registry.ts';
import type { Lookup } from './lookup.ts';
import {
  type EitherBlock,
  type FieldLine,
  type HasLine,
  type Leaf,
  type Line,
  type NumberTest,
  type SortKey,
  type Tape,
} from './nodes.ts';
import { isOwnColumn, isSortable, ownColumnOf } from './own-columns.ts';
import { Problem, shown } from './problem.ts';
import { flagAt, listAt, objectAt, onlyKeys, textAt, wholeAt } from './shapes.ts';
import { spanAt } from './span-at.ts';
import { checkTest } from './tests.ts';

const MOST_LINES = 200;
/** Letters of the name of a column: that of the right person spells out the functions it is found by. */
const LONGEST_COLUMN = 2000;

/**
 * Checks a tape from outside against the universe at hand and freezes it.
 * @throws Problem naming the key, the value and the rule; unknown keys, fields, codes and sources are refused by name.
 */
export function validateTape(input: unknown, lookup: Lookup): Tape {
  const raw = objectAt(input, 'tape');
  if (raw.format !== 'just-tally.tape')
    throw new Problem(
      'not-a-tape',
      `This is not a tape file: "format" is ${shown(raw.format)}, not "just-tally.tape".`,
      {
        field: 'format',
        value: raw.format,
        rule: 'must be "just-tally.tape"',
      },
    );
  onlyKeys(raw, 'tape', [
    'format',
    'version',
    'name',
    'description',
    'subject',
    'lines',
    'sort',
    'first',
    'charts',
  ]);
  if (raw.version !== 1)
    throw new Problem(
      'tape-version',
      `Tape version ${shown(raw.version)} cannot be read; this program reads version 1.`,
      {
        field: 'version',
        value: raw.version,
        rule: 'must be 1',
      },
    );
  if (raw.name !== undefined) textAt(raw.name, 'name', 200);
  if (raw.description !== undefined) textAt(raw.description, 'description', 2000);
  const subject = textAt(raw.subject, 'subject', 40);
  if (!SUBJECTS.has(subject))
    throw new Problem(
      'unknown-subject',
      `There is no subject "${subject}". Known: ${[...SUBJECTS.keys()].join(', ')}.`,
      {
        field: 'subject',
        value: subject,
        rule: 'must be a registered subject',
      },
    );
  const context: Context = { subject, lookup, ids: new Set(), depth: 0 };
  const lines = listAt(raw.lines, 'lines', MOST_LINES).map((line, i) =>
    checkLine(line, `lines[${i}]`, context),
  );
  const tape: Tape = {
    format: 'just-tally.tape',
    version: 1,
    ...(raw.name === undefined ? {} : { name: raw.name as string }),
    ...(raw.description === undefined ? {} : { description: raw.description as string }),
    subject,
    lines,
    ...(raw.sort === undefined ? {} : { sort: validateSort(raw.sort, { subject, lines }) }),
    ...(raw.first === undefined ? {} : { first: wholeAt(raw.first, 'first') }),
    ...(raw.charts === undefined ? {} : { charts: checkCharts(raw.charts, 'charts', subject) }),
  };
  return deepFreeze(tape);
}

interface Context {
  subject: string;
  lookup: Lookup;
  ids: Set<string>;
  /** Has-lines around. */
  depth: number;
}

/** Has-lines within each other: one on the tape, and one in that. */
const MOST_DEEP = 2;
const MOST_COUNTED = 1_000_000;

const MARK_KEYS = ['id', 'not', 'must', 'parked', 'unknown'];

function checkLine(input: unknown, at: string, context: Context): Line {
  const raw = objectAt(input, at);
  return 'either' in raw ? checkBlock(raw, at, context) : checkLeaf(raw, at, context, false);
}

function checkLeaf(raw: Record<string, unknown>, at: string, context: Context, branch: boolean): Leaf {
  return 'has' in raw ? checkHas(raw, at, context, branch) : checkFieldLine(raw, at, context, branch);
}

function checkBlock(raw: Record<string, unknown>, at: string, context: Context): EitherBlock {
  onlyKeys(raw, at, [...MARK_KEYS, 'either']);
  const marks = checkMarks(raw, at, context);
  const branches = listAt(raw.either, `${at}.either`, MOST_LINES);
  if (branches.length === 0)
    throw new Problem('empty-block', `${at}.either has no branches.`, {
      field: `${at}.either`,
      rule: 'at least one line',
    });
  return {
    ...marks,
    either: branches.map((branch, i) =>
      checkLeaf(objectAt(branch, `${at}.either[${i}]`), `${at}.either[${i}]`, context, true),
    ),
  };
}

const BRANCH_KEYS = ['id', 'not', 'parked'];

function checkHas(raw: Record<string, unknown>, at: string, context: Context, branch: boolean): HasLine {
  onlyKeys(raw, at, [...(branch ? BRANCH_KEYS : MARK_KEYS), 'has', 'as', 'count', 'lines']);
  const marks = checkMarks(raw, at, context);
  const has = textAt(raw.has, `${at}.has`, 40);
  const related = relationsOf(context.subject).get(has);
  if (!related)
    throw new Problem(
      'unknown-subject',
      `${context.subject} have no related "${has}"; they have ${[...relationsOf(context.subject).keys()].join(', ')}.`,
      {
        field: `${at}.has`,
        value: has,
        rule: `one of ${[...relationsOf(context.subject).keys()].join(', ')}`,
      },
    );
  if (context.depth === MOST_DEEP)
    throw new Problem(
      'nested-too-deep',
      `${at} is a has-line in a has-line in a has-line; two within each other are read, because nobody can check a longer chain by eye.`,
      { field: `${at}.has`, value: has, rule: 'at most one has-line within another' },
    );
  const roles = rolesOf(context.subject, related.id);
  if (raw.as !== undefined && !roles.some((role) => role.key === raw.as))
    throw new Problem(
      'unknown-role',
      `${has} know no role ${shown(raw.as)}${roles.length ? `; they know ${roles.map(({ key }) => key).join(', ')}` : ''}.`,
      {
        field: `${at}.as`,
        value: raw.as,
        rule: roles.length ? `one of ${roles.map(({ key }) => key).join(', ')}` : `${has} have no roles`,
      },
    );
  const inner = { ...context, subject: related.id, depth: context.depth + 1 };
  return {
    ...marks,
    has,
    ...(raw.as === undefined ? {} : { as: raw.as as string }),
    ...countAt(raw.count, `${at}.count`),
    lines: listAt(raw.lines, `${at}.lines`, MOST_LINES).map((line, i) =>
      checkLine(line, `${at}.lines[${i}]`, inner),
    ),
  };
}

/** At least one is what a has-line asks by itself, so that it is not written. */
function countAt(input: unknown, at: string): { count?: NumberTest } {
  if (input === undefined) return {};
  const count = checkCount(input, at);
  return count.from === 1 && count.to === undefined ? {} : { count };
}

function checkCount(input: unknown, at: string): NumberTest {
  const raw = objectAt(input, at);
  onlyKeys(raw, at, ['from', 'to']);
  const end = (key: 'from' | 'to') => {
    const value = raw[key];
    if (
      value !== undefined &&
      !(typeof value === 'number' && Number.isInteger(value) && value >= 0 && value <= MOST_COUNTED)
    )
      throw new Problem('wrong-value', `${at}.${key} is ${shown(value)}.`, {
        field: `${at}.${key}`,
        value,
        rule: `a whole number from 0 to ${MOST_COUNTED}`,
      });
    return value;
  };
  const [from, to] = [end('from'), end('to')];
  if ((from === undefined && to === undefined) || (from ?? 0) > (to ?? Infinity))
    throw new Problem('wrong-value', `${at} is ${shown(input)}.`, {
      field: at,
      value: input,
      rule: 'from, to or both, from not above to',
    });
  return { ...(from === undefined ? {} : { from }), ...(to === undefined ? {} : { to }) };
}

function checkFieldLine(
  raw: Record<string, unknown>,
  at: string,
  context: Context,
  branch: boolean,
): FieldLine {
  onlyKeys(raw, at, [...(branch ? BRANCH_KEYS : MARK_KEYS), 'field', 'test', 'estimates', 'fresh']);
  const marks = checkMarks(raw, at, context);
  const id = textAt(raw.field, `${at}.field`, 60);
  const field = fieldOf(context.subject, id);
  if (!field || field.openers.length === 0)
    throw new Problem('unknown-field', `There is no condition on "${id}".`, {
      field: `${at}.field`,
      value: id,
      rule: 'must be a field that can be a line',
    });
  const test = checkTest(field, raw.test, `${at}.test`, context.lookup);
  const estimates = flagAt(raw, 'estimates', at);
  if (estimates && field.store.at !== 'range' && field.kind !== 'rank')
    throw new Problem('no-estimates', `${field.label} has no estimates.`, {
      field: `${at}.estimates`,
      value: true,
      rule: 'only on figures that a source may have modelled',
    });
  const fresh = raw.fresh === undefined ? undefined : checkFresh(field, raw.fresh, `${at}.fresh`);
  return {
    ...marks,
    field: id,
    test,
    ...(estimates ? { estimates: true as const } : {}),
    ...(fresh === undefined ? {} : { fresh }),
  };
}

/** Checks the span within which values of a field must be recorded. @throws Problem */
export function checkFresh(field: Field, raw: unknown, at: string): string {
  const fresh = spanAt(raw, at);
  if (!field.dated)
    throw new Problem('no-freshness', `Nothing says how old a value of ${field.label} is.`, {
      field: at,
      value: fresh,
      rule: 'only on fields whose values have a day or a year',
    });
  return fresh;
}

function checkMarks(raw: Record<string, unknown>, at: string, context: Context) {
  const id = textAt(raw.id, `${at}.id`, 60);
  if (context.ids.has(id))
    throw new Problem('id-twice', `Two lines have the id "${id}".`, {
      field: `${at}.id`,
      value: id,
      rule: 'ids must differ',
    });
  context.ids.add(id);
  const unknown = policyAt(raw.unknown, `${at}.unknown`);
  return {
    id,
    ...(flagAt(raw, 'not', at) ? { not: true as const } : {}),
    ...(flagAt(raw, 'must', at) ? { must: true as const } : {}),
    ...(flagAt(raw, 'parked', at) ? { parked: true as const } : {}),
    ...(unknown ? { unknown } : {}),
  };
}

function policyAt(value: unknown, at: string): 'keep' | 'drop' | undefined {
  if (value === undefined || value === 'keep' || value === 'drop') return value;
  throw new Problem('wrong-value', `${at} is ${shown(value)}; it can be "keep" or "drop".`, {
    field: at,
    value,
    rule: '"keep" or "drop"',
  });
}

/** Checks sort keys: known columns that have an order, or counts of the tape's has-lines. @throws Problem */
export function validateSort(input: unknown, tape: Pick<Tape, 'subject' | 'lines'>): SortKey[] {
  return listAt(input, 'sort', 8).map((key, i) => {
    const raw = objectAt(key, `sort[${i}]`);
    onlyKeys(raw, `sort[${i}]`, ['by', 'descending']);
    const by = textAt(raw.by, `sort[${i}].by`, LONGEST_COLUMN);
    const field = fieldOf(tape.subject, by);
    const own = isOwnColumn(by) ? ownColumnOf(tape, by) : undefined;
    const sorts = isOwnColumn(by)
      ? own !== undefined && isSortable(own)
      : field?.column && field.column.sortable !== false;
    if (!sorts)
      throw new Problem('unknown-sort', `There is no order by "${by}".`, {
        field: `sort[${i}].by`,
        value: by,
        rule: 'a sortable column, or count: and the id of a has-line',
      });
    return { by, ...(flagAt(raw, 'descending', `sort[${i}]`) ? { descending: true as const } : {}) };
  });
}

function deepFreeze<T>(value: T): T {
  if (typeof value === 'object' && value !== null) {
    for (const inner of Object.values(value)) deepFreeze(inner);
    Object.freeze(value);
  }
  return value;
}
