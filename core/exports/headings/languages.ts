import { cs } from './cs.ts';
import { de } from './de.ts';
import { fr } from './fr.ts';

/** Languages that headings of an export are known in. */
export const HEADING_LANGUAGES = { en: 'English', de: 'German', cs: 'Czech', fr: 'French' } as const;
export type HeadingLanguage = keyof typeof HEADING_LANGUAGES;

const TABLES: Readonly<Record<Exclude<HeadingLanguage, 'en'>, Readonly<Record<string, string>>>> = {
  de,
  cs,
  fr,
};

/** A heading, with its unit and what it says of another column, in a language; in English where that has no word for it. */
export function inLanguage(heading: string, language: HeadingLanguage): string {
  if (language === 'en') return heading;
  const words = TABLES[language];
  const [, whole, unit = ''] = /^(.*?)(, (?:[A-Z]{3}|%))?$/.exec(heading)!;
  const [, stem, part] = /^(.*?)(?: (basis|year|currency))?$/.exec(whole!)!;
  const named =
    words[whole!] ?? (part !== undefined && words[stem!] ? `${words[stem!]}, ${words[part]}` : undefined);
  return named === undefined ? heading : named + unit;
}
