import { foldedWords } from '../../text/fold.ts';

/**
 * A text as databases without our full-text index search it: its folded words between single
 * blanks, with one before and after, so that " oak stair " finds the phrase and " oak" what begins so.
 */
export function wordsColumn(text: string | null): string | null {
  return text === null ? null : ` ${foldedWords(text).join(' ')} `;
}

/** What a text so made holds where it has a term. */
export function termText({ words, prefix }: { words: readonly string[]; prefix: boolean }): string {
  return ` ${words.join(' ')}${prefix ? '' : ' '}`;
}
