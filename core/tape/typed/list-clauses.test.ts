import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { listClauses as anyClauses } from '../../testing/any-list.ts';
import { listClauses, spellListClauses, wordListClauses } from './list-clauses.ts';

test('what is asked of members is spelled and read again without loss', () => {
  fc.assert(
    fc.property(anyClauses, (asked) => {
      expect(listClauses(`targets or "our customers"${spellListClauses(asked)}`)).toEqual({
        lists: 'targets or "our customers"',
        clauses: asked,
      });
    }),
  );
});

test.each([
  ['judged firms', 'judged firms'],
  ['our verdict list', 'our verdict list'],
  ['added value', 'added value'],
  ['tag team or reason first', 'tag team or reason first'],
])('a name with the word of a clause stays a name: %s', (typed, lists) => {
  expect(listClauses(typed)).toEqual({ lists, clauses: {} });
});

test('in words it reads as people say it', () => {
  expect(
    wordListClauses({
      verdict: ['out', 'not-judged'],
      reason: ['too small'],
      added: '30 days',
      step: 'again-3',
    }),
  ).toBe(', out or not judged, because too small, added in the past 30 days, on it already at origin 3');
});
