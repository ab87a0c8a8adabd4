import { foldedWords } from '../text/fold.ts';

/** Text of a heading as it is compared: folded, without spaces and punctuation, ä and ae as one. */
export function plainHeading(text: string): string {
  return foldedWords(text)
    .join('')
    .replace(/([aou])e/g, '$1');
}

/** "companyName" as two words, without signs for "number". */
export const splitCamel = (text: string): string =>
  text.replace(/[°º№#]/g, ' ').replace(/(\p{Ll})(\p{Lu})/gu, '$1 $2');

/** Letters of a heading that are looked at. */
const LONGEST = 300;

/** The year that a heading names, such as 2023 in "CA 2023 (k€)"; null where it names none, or several. */
export function yearIn(heading: string): number | null {
  const years = new Set(heading.slice(0, LONGEST).match(/(?<!\d)(?:19|20)\d\d(?!\d)/g));
  return years.size === 1 ? Number([...years][0]) : null;
}
