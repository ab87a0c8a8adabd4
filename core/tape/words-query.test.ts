import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { ftsTerm, parseWords, type WordsQuery } from './words-query.ts';

const word = fc.constantFrom('oak', 'stair', 'Größe', 'łódź', 'x1', 'bending');
/** Queries as trees; a term has one or several words, and may be a beginning. */
const { query } = fc.letrec<{ query: WordsQuery; term: WordsQuery }>((tie) => ({
  term: fc.record({
    kind: fc.constant('term' as const),
    words: fc.array(word, { minLength: 1, maxLength: 3 }),
    prefix: fc.boolean(),
  }),
  query: fc.oneof(
    { maxDepth: 3, depthIdentifier: 'words' },
    tie('term'),
    fc.record({ kind: fc.constant('not' as const), part: tie('query') }),
    fc.record({
      kind: fc.constantFrom('and' as const, 'or' as const),
      parts: fc.array(tie('query'), { minLength: 2, maxLength: 3 }),
    }),
  ),
}));

/** Spells a tree with every bracket. */
function spelled(one: WordsQuery): string {
  if (one.kind === 'term') return `"${one.words.join(' ')}"${one.prefix ? '*' : ''}`;
  if (one.kind === 'not') return `not (${spelled(one.part)})`;
  return one.parts.map((part) => `(${spelled(part)})`).join(` ${one.kind} `);
}

/** Whether a text with these words meets a query; a term of several words must stand side by side. */
function meets(one: WordsQuery, words: readonly string[]): boolean {
  if (one.kind === 'not') return !meets(one.part, words);
  if (one.kind !== 'term')
    return one.kind === 'and'
      ? one.parts.every((part) => meets(part, words))
      : one.parts.some((part) => meets(part, words));
  return words.some((_, at) =>
    one.words.every((wanted, i) => {
      const seen = words[at + i];
      return one.prefix && i === one.words.length - 1 ? seen?.startsWith(wanted) : seen === wanted;
    }),
  );
}

describe('a search in words', () => {
  test('means the same however it is bracketed', () => {
    fc.assert(
      fc.property(query, fc.array(fc.constantFrom('oak', 'stair', 'grosse', 'lodz', 'x1')), (tree, text) => {
        const folded = parseWords(spelled(tree));
        const again = parseWords(spelled(folded));
        expect(again).toEqual(folded);
        expect(meets(again, text)).toBe(meets(folded, text));
      }),
    );
  });
  test('binds not before and before or; words side by side mean and', () => {
    const same = (one: string, other: string) => expect(parseWords(one)).toEqual(parseWords(other));
    same('a b or c', '(a and b) or c');
    same('not a b', '(not a) and b');
    same('not not a', 'not (not a)');
    same('A AND b OR c', 'a and b or c');
    expect(parseWords('"and"')).toEqual({ kind: 'term', words: ['and'], prefix: false });
  });
  test.each([
    ['', 'At the start came the end; expected a word.'],
    ['a and', 'After “a and” came the end; expected a word.'],
    ['or a', 'At the start came "or"; expected a word.'],
    ['(a or b', 'After “( a or b” came the end; expected a closing bracket.'],
    ['a ) b', 'After “a” came ")"; expected and, or, not or the end.'],
    ['a "b', 'a quotation mark is not closed'],
    ['a; b', '; or | stands outside quotation marks'],
    ['***', 'expected letters or figures'],
  ])('“%s” says what was read and what was expected', (text, message) => {
    expect(() => parseWords(text, 'words')).toThrow(message);
  });
  test('never takes long, and never fails but with words, on any text', () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(...'ab"()*;| \n-é%'), maxLength: 60 }), (text) => {
        try {
          parseWords(text);
        } catch (error) {
          expect((error as Error).message).toMatch(/expected|cannot be read/);
        }
      }),
    );
  });
});

test('a term as full-text search has it: a phrase of folded words, of one column or both', () => {
  const term = parseWords('"Größe łó*"') as { words: string[]; prefix: boolean };
  expect(ftsTerm(term, 'both')).toBe('"grosse lo"*');
  expect(ftsTerm(term, 'name')).toBe('{name} : "grosse lo"*');
});
