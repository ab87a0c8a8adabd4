import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { between, compared, either, end } from './ranges.ts';
import { filled, joined, listed, literal, sql, written } from './statement.ts';

test('pieces stand in their places, and their values in the same order', () => {
  const made = filled('a IN (@) AND @', listed(['x', 'y']), sql('b = ? OR c = ?', 1, 'z'));
  expect(made).toEqual({ text: 'a IN (?, ?) AND b = ? OR c = ?', values: ['x', 'y', 1, 'z'] });
  expect(joined([sql('a = ?', 1), sql('b = ?', 2)], ' AND ')).toEqual({
    text: 'a = ? AND b = ?',
    values: [1, 2],
  });
});

test('nothing is in an empty list', () => {
  expect(listed([])).toEqual({ text: 'NULL', values: [] });
});

test('a mark within a piece or a value is no place for another piece', () => {
  const mail = sql('mail = ?', 'a@b.example');
  expect(filled('@ OR @', mail, sql('x = 1'))).toEqual({
    text: 'mail = ? OR x = 1',
    values: ['a@b.example'],
  });
  expect(written(sql('a = ? AND b = ?', 'why?', 2))).toBe("a = 'why?' AND b = 2");
});

test('a value written into a statement is read back as itself, whatever is in it', () => {
  fc.assert(
    fc.property(fc.string(), (text) => {
      const one = literal(text);
      expect(one.slice(1, -1).replaceAll("''", "'")).toBe(text);
      expect(one.slice(1, -1).replaceAll("''", '')).not.toContain("'");
    }),
  );
});

test('an open end asks nothing', () => {
  expect(between('v', end(2), end(5))).toEqual({ text: '(v >= ? AND v <= ?)', values: [2, 5] });
  expect(between('v', end(2), end(undefined)).text).toBe('(v >= ?)');
  expect(compared('v', '<', end(null))).toBeNull();
  expect(either(' OR ', compared('v', '<', end(1)), null, compared('v', '>', end(9)))).toEqual({
    text: '(v < ? OR v > ?)',
    values: [1, 9],
  });
});
