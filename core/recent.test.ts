import { expect, test } from '@jest/globals';
import { Recent } from './recent.ts';

test('what was asked for longest ago goes first, and is made anew when asked for again', () => {
  const made: string[] = [];
  const recent = new Recent<string>(10, (value) => value.length);
  const get = (key: string, size = 4) =>
    recent.get(key, () => {
      made.push(key);
      return key.repeat(size);
    });
  get('a');
  get('b');
  get('a');
  // a and b have 8 of 10; c takes the place of b, which was not asked for lately.
  get('c');
  expect(made).toEqual(['a', 'b', 'c']);
  expect(get('a')).toBe('aaaa');
  get('b');
  expect(made).toEqual(['a', 'b', 'c', 'b']);
});

test('a value too large for it is kept until the next, and the bytes of what went are free again', () => {
  const recent = new Recent<number[]>(10, (value) => value.length);
  let made = 0;
  const large = () => {
    made++;
    return new Array<number>(100).fill(1);
  };
  expect(recent.get('large', large)).toBe(recent.get('large', large));
  expect(made).toBe(1);
  recent.get('small', () => [1]);
  recent.get('large', large);
  expect(made).toBe(2);
  recent.get('x', () => [1, 2, 3]);
  recent.get('y', () => [1, 2, 3]);
  let again = 0;
  recent.get('x', () => {
    again++;
    return [];
  });
  expect(again).toBe(0);
});
