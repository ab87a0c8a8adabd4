import { foldedWords } from '../text/fold.ts';
import { Problem } from './problem.ts';

/** A search in words: `and`, `or`, `not`, "phrases", prefix*, brackets. Words side by side mean `and`. */
export type WordsQuery =
  | { kind: 'term'; words: string[]; prefix: boolean }
  | { kind: 'and' | 'or'; parts: WordsQuery[] }
  | { kind: 'not'; part: WordsQuery };

interface Token {
  kind: 'word' | 'phrase' | 'and' | 'or' | 'not' | '(' | ')';
  text: string;
}

/**
 * Reads a search in words. `not` binds tightest, then `and`, then `or`. Every term is folded.
 * @throws Problem saying what was read and what was expected.
 */
export function parseWords(text: string, field = 'text'): WordsQuery {
  const tokens = tokenize(text, field);
  let at = 0;
  const fail = (expected: string): never => {
    const read = tokens
      .slice(0, at)
      .map((token) => token.text)
      .join(' ');
    const seen = tokens[at] ? `"${tokens[at]!.text}"` : 'the end';
    throw new Problem(
      'words-grammar',
      `${read ? `After “${read}”` : 'At the start'} came ${seen}; expected ${expected}.`,
      {
        field,
        value: text,
        rule: 'words joined by and, or, not; "phrases"; prefix*; brackets in pairs',
      },
    );
  };

  const either = (): WordsQuery => {
    const parts = [both()];
    while (tokens[at]?.kind === 'or') {
      at++;
      parts.push(both());
    }
    return parts.length === 1 ? parts[0]! : { kind: 'or', parts };
  };
  const both = (): WordsQuery => {
    const parts = [one()];
    while (tokens[at] && tokens[at]!.kind !== 'or' && tokens[at]!.kind !== ')') {
      if (tokens[at]!.kind === 'and') at++;
      parts.push(one());
    }
    return parts.length === 1 ? parts[0]! : { kind: 'and', parts };
  };
  const one = (): WordsQuery => {
    const token = tokens[at];
    if (token?.kind === 'not') {
      at++;
      return { kind: 'not', part: one() };
    }
    if (token?.kind === '(') {
      at++;
      const inner = either();
      if (tokens[at]?.kind !== ')') fail('a closing bracket');
      at++;
      return inner;
    }
    if (token?.kind !== 'word' && token?.kind !== 'phrase') return fail('a word');
    at++;
    const prefix = token.text.endsWith('*');
    const words = foldedWords(token.text);
    if (words.length === 0) {
      at--;
      return fail('letters or figures');
    }
    return { kind: 'term', words, prefix };
  };

  const query = either();
  if (at < tokens.length) fail('and, or, not or the end');
  return query;
}

function tokenize(text: string, field: string): Token[] {
  const tokens: Token[] = [];
  const pattern = /\s*(?:"([^"]*)"(\*?)|([()])|([^\s"();|]+))/gy;
  let end = 0;
  for (let found = pattern.exec(text); found; found = pattern.exec(text)) {
    end = pattern.lastIndex;
    if (found[1] !== undefined) tokens.push({ kind: 'phrase', text: found[1] + (found[2] ?? '') });
    else if (found[3]) tokens.push({ kind: found[3] as '(' | ')', text: found[3] });
    else {
      const word = found[4]!;
      const operator = word.toLowerCase();
      tokens.push({
        kind: operator === 'and' || operator === 'or' || operator === 'not' ? operator : 'word',
        text: word,
      });
    }
  }
  if (text.slice(end).trim() !== '')
    throw new Problem(
      'words-grammar',
      `“${text.slice(end).trim()}” cannot be read: a quotation mark is not closed, or ; or | stands outside quotation marks.`,
      {
        field,
        value: text,
        rule: 'quotation marks in pairs; ; and | only within them',
      },
    );
  return tokens;
}

/** One term as an FTS5 string: a phrase of folded words, the last one a prefix if so marked. */
export function ftsTerm(
  term: { words: string[]; prefix: boolean },
  column: 'name' | 'description' | 'both',
): string {
  const phrase = `"${term.words.join(' ')}"${term.prefix ? '*' : ''}`;
  return column === 'both' ? phrase : `{${column}} : ${phrase}`;
}
