import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { anyLines } from '../testing/any-tape.ts';
import type { FieldLine, HasLine, Line } from '../tape/nodes.ts';
import { marked, testKey } from './test-key.ts';

const STAFF: FieldLine = { id: 'a', field: 'headcount', test: { from: 20 } };

test('lines that ask the same have the same key, whatever their names and marks', () => {
  fc.assert(
    fc.property(anyLines, (lines) => {
      for (const line of lines)
        expect(testKey({ ...line, id: 'other', must: true, parked: true, not: true, unknown: 'keep' })).toBe(
          testKey(line),
        );
    }),
  );
});

test('what changes the answer changes the key: test, estimates and freshness', () => {
  const keys = [
    STAFF,
    { ...STAFF, test: { from: 21 } },
    { ...STAFF, estimates: true },
    { ...STAFF, fresh: '12 months' },
    { ...STAFF, field: 'followers' },
  ].map((line) => testKey(line as Line));
  expect(new Set(keys).size).toBe(5);
});

test('of lines within others the marks count too, and of has-lines role and number', () => {
  const has = (more: Partial<HasLine>): HasLine => ({ id: 'h', has: 'deals', lines: [STAFF], ...more });
  const keys = [
    has({}),
    has({ as: 'buyer' }),
    has({ count: { from: 2 } }),
    has({ lines: [{ ...STAFF, not: true }] }),
    has({ lines: [{ ...STAFF, parked: true }] }),
    has({ lines: [{ ...STAFF, unknown: 'drop' }] }),
  ].map(testKey);
  expect(new Set(keys).size).toBe(6);
  const either = (line: FieldLine) => testKey({ id: 'e', either: [line, { ...STAFF, id: 'b' }] });
  expect(either(STAFF)).toBe(either({ ...STAFF, id: 'z' }));
  expect(either(STAFF)).not.toBe(either({ ...STAFF, not: true }));
  expect(marked(STAFF)).toEqual([testKey(STAFF), undefined, undefined, undefined]);
});
