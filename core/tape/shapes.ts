import { Problem, shown } from './problem.ts';

/** Readers of plain JSON that name the place, the value and the rule when a shape is wrong. */

export function objectAt(value: unknown, at: string): Record<string, unknown> {
  if (typeof value === 'object' && value !== null && !Array.isArray(value))
    return value as Record<string, unknown>;
  throw new Problem('wrong-shape', `${at} is ${shown(value)}; an object is expected.`, {
    field: at,
    value,
    rule: 'must be an object',
  });
}

export function listAt(value: unknown, at: string, most: number): unknown[] {
  if (!Array.isArray(value))
    throw new Problem('wrong-shape', `${at} is ${shown(value)}; a list is expected.`, {
      field: at,
      value,
      rule: 'must be a list',
    });
  if (value.length > most)
    throw new Problem('too-many', `${at} has ${value.length} entries; at most ${most} are read.`, {
      field: at,
      value: value.length,
      rule: `at most ${most}`,
    });
  return value;
}

export function textAt(value: unknown, at: string, most: number): string {
  if (typeof value === 'string' && value.trim() !== '' && value.length <= most) return value;
  throw new Problem(
    'wrong-shape',
    `${at} is ${shown(value)}; a text of 1 to ${most} characters is expected.`,
    {
      field: at,
      value,
      rule: `text of 1 to ${most} characters`,
    },
  );
}

export function wholeAt(value: unknown, at: string): number {
  if (typeof value === 'number' && Number.isInteger(value) && value > 0) return value;
  throw new Problem('wrong-shape', `${at} is ${shown(value)}; a whole number above 0 is expected.`, {
    field: at,
    value,
    rule: 'whole number above 0',
  });
}

export function flagAt(raw: Record<string, unknown>, key: string, at: string): boolean {
  const value = raw[key];
  if (value === undefined || value === false) return false;
  if (value === true) return true;
  throw new Problem('wrong-shape', `${at}.${key} is ${shown(value)}; true or false is expected.`, {
    field: `${at}.${key}`,
    value,
    rule: 'true or false',
  });
}

/** @throws Problem naming the first key that is not among those allowed. */
export function onlyKeys(raw: Record<string, unknown>, at: string, allowed: readonly string[]): void {
  for (const key of Object.keys(raw))
    if (!allowed.includes(key))
      throw new Problem('unknown-key', `${at} has the unknown key "${key}". Known: ${allowed.join(', ')}.`, {
        field: `${at}.${key}`,
        value: raw[key],
        rule: `one of ${allowed.join(', ')}`,
      });
}

const MOST_VALUES = 10_000;

export function oneOfAt<T extends string>(value: unknown, at: string, allowed: readonly T[]): T {
  const found = allowed.find((one) => one === value);
  if (found === undefined) throw wrong(at, value, `one of ${allowed.join(', ')}`);
  return found;
}

/** A list of texts, each of which `known` lets through. */
export function texts(
  value: unknown,
  at: string,
  known: (value: string, where: string) => unknown = () => {},
): string[] {
  const list = listAt(value, at, MOST_VALUES);
  if (list.length === 0) throw wrong(at, value, 'at least one value');
  return list.map((entry, i) => {
    const one = textAt(entry, `${at}[${i}]`, 200);
    known(one, `${at}[${i}]`);
    return one;
  });
}

/** What is said of a value that is not what was expected. */
export function wrong(field: string, value: unknown, rule: string): Problem {
  return new Problem('wrong-value', `${field} is ${shown(value)}; expected: ${rule}.`, {
    field,
    value,
    rule,
  });
}
