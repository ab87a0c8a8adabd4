import { foldedWords } from '../text/fold.ts';

/** Text of a heading as it is compared: folded, without spaces and punctuation, ä and ae as one. */
export function plainHeading(text: string): string {
  return foldedWords(text)
    .join('')
    .replace(/([aou])e/g, '$1');
}
