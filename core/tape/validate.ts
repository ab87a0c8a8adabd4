import { fieldOf, SUBJECTS } from '../fields/registry.ts';
import type { Lookup } from './lookup.ts';
import type { EitherBlock, FieldLine, Line, SortKey, Tape } from './nodes.ts';
import { Problem, shown } from './problem.ts';
import { flagAt, listAt, objectAt, onlyKeys, textAt, wholeAt } from './shapes.ts';
import { checkTest, spanAt } from './tests.ts';

const MOST_LINES = 200;

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
  onlyKeys(raw, 'tape', ['format', 'version', 'name', 'description', 'subject', 'lines', 'sort', 'first']);
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
  const context: Context = { subject, lookup, ids: new Set() };
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
    ...(raw.sort === undefined ? {} : { sort: validateSort(raw.sort, subject) }),
    ...(raw.first === undefined ? {} : { first: wholeAt(raw.first, 'first') }),
  };
  return deepFreeze(tape);
}

interface Context {
  subject: string;
  lookup: Lookup;
  ids: Set<string>;
}

const MARK_KEYS = ['id', 'not', 'must', 'parked', 'unknown'];

function checkLine(input: unknown, at: string, context: Context): Line {
  const raw = objectAt(input, at);
  if ('has' in raw)
    throw new Problem(
      'unknown-subject',
      `${at} asks for related ${shown(raw.has)}; no such subject is registered.`,
      {
        field: `${at}.has`,
        value: raw.has,
        rule: 'must be a registered subject',
      },
    );
  return 'either' in raw ? checkBlock(raw, at, context) : checkFieldLine(raw, at, context, false);
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
      checkFieldLine(objectAt(branch, `${at}.either[${i}]`), `${at}.either[${i}]`, context, true),
    ),
  };
}

function checkFieldLine(
  raw: Record<string, unknown>,
  at: string,
  context: Context,
  branch: boolean,
): FieldLine {
  onlyKeys(raw, at, [
    ...(branch ? ['id', 'not', 'parked'] : MARK_KEYS),
    'field',
    'test',
    'estimates',
    'fresh',
  ]);
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
  const fresh = raw.fresh === undefined ? undefined : spanAt(raw.fresh, `${at}.fresh`);
  if (fresh !== undefined && !field.dated)
    throw new Problem('no-freshness', `Nothing says how old a value of ${field.label} is.`, {
      field: `${at}.fresh`,
      value: fresh,
      rule: 'only on fields whose values have a day or a year',
    });
  return {
    ...marks,
    field: id,
    test,
    ...(estimates ? { estimates: true as const } : {}),
    ...(fresh === undefined ? {} : { fresh }),
  };
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

/** Checks sort keys: known columns that have an order. @throws Problem */
export function validateSort(input: unknown, subject: string): SortKey[] {
  return listAt(input, 'sort', 8).map((key, i) => {
    const raw = objectAt(key, `sort[${i}]`);
    onlyKeys(raw, `sort[${i}]`, ['by', 'descending']);
    const by = textAt(raw.by, `sort[${i}].by`, 60);
    const field = fieldOf(subject, by);
    if (!field?.column || field.column.sortable === false)
      throw new Problem('unknown-sort', `There is no order by "${by}".`, {
        field: `sort[${i}].by`,
        value: by,
        rule: 'a sortable column',
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
