import { describe, expect, test } from '@jest/globals';
import { Problem } from './problem.ts';
import { flagAt, listAt, objectAt, oneOfAt, onlyKeys, textAt, texts, wholeAt } from './shapes.ts';
import { rangeAt } from './range-at.ts';
import { spanAt } from './span-at.ts';

/** What is said of a value that is refused: the field, and the message. */
const refusal = (work: () => unknown): [string | undefined, string] => {
  try {
    work();
  } catch (error) {
    if (error instanceof Problem) return [error.field, error.message];
    throw error;
  }
  throw new Error('It was let through.');
};

describe('shapes of plain JSON', () => {
  test('what is as it should be passes as it is', () => {
    expect(objectAt({ a: 1 }, 'x')).toEqual({ a: 1 });
    expect(listAt([1, 2], 'x', 2)).toEqual([1, 2]);
    expect(textAt(' a ', 'x', 3)).toBe(' a ');
    expect(wholeAt(3, 'x')).toBe(3);
    expect([flagAt({}, 'a', 'x'), flagAt({ a: false }, 'a', 'x'), flagAt({ a: true }, 'a', 'x')]).toEqual([
      false,
      false,
      true,
    ]);
    expect(oneOfAt('b', 'x', ['a', 'b'])).toBe('b');
    expect(texts(['a', 'b'], 'x')).toEqual(['a', 'b']);
    expect(spanAt('24 months', 'x')).toBe('24 months');
    expect(rangeAt({ from: 2, to: 2 }, 'x')).toEqual({ from: 2, to: 2 });
    expect(() => onlyKeys({ a: 1 }, 'x', ['a', 'b'])).not.toThrow();
  });

  test.each<[string, () => unknown, string, RegExp]>([
    ['a list for an object', () => objectAt([], 'tape'), 'tape', /an object is expected/],
    ['null for an object', () => objectAt(null, 'tape'), 'tape', /an object is expected/],
    ['a text for a list', () => listAt('a', 'lines', 5), 'lines', /a list is expected/],
    ['too long a list', () => listAt([1, 2, 3], 'lines', 2), 'lines', /has 3 entries; at most 2/],
    ['spaces for a text', () => textAt('  ', 'name', 5), 'name', /1 to 5 characters/],
    ['too long a text', () => textAt('abcdef', 'name', 5), 'name', /1 to 5 characters/],
    ['a number for a text', () => textAt(5, 'name', 5), 'name', /1 to 5 characters/],
    ['a fraction', () => wholeAt(1.5, 'first'), 'first', /a whole number above 0/],
    ['nought', () => wholeAt(0, 'first'), 'first', /a whole number above 0/],
    ['a word for yes', () => flagAt({ not: 'yes' }, 'not', 'lines[0]'), 'lines[0].not', /true or false/],
    ['an unknown key', () => onlyKeys({ colour: 1 }, 'x', ['a']), 'x.colour', /unknown key "colour"/],
    ['none of some', () => oneOfAt('c', 'rank', ['a', 'b']), 'rank', /one of a, b/],
    ['no values', () => texts([], 'any'), 'any', /at least one value/],
    ['one wrong among values', () => texts(['a', 5], 'any'), 'any[1]', /1 to 200 characters/],
    ['a span of nothing', () => spanAt('a while', 'fresh'), 'fresh', /a span such as "24 months"/],
    ['a range without ends', () => rangeAt({}, 'test'), 'test', /at least one of from and to/],
    ['a range turned round', () => rangeAt({ from: 5, to: 3 }, 'test'), 'test', /from 5 is above to 3/],
    ['no number', () => rangeAt({ from: Infinity }, 'test'), 'test.from', /a number/],
  ])('%s is refused by place and rule', (_, work, field, message) => {
    const [where, said] = refusal(work);
    expect(where).toBe(field);
    expect(said).toMatch(message);
  });
});
