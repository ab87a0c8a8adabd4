/** The language that most people of a country write business letters in, by ISO 639-1; of several the most spoken. */
const LANGUAGES: Readonly<Record<string, string>> = {
  ...{ AT: 'de', CH: 'de', DE: 'de', LI: 'de', LU: 'fr', BE: 'nl', NL: 'nl', FR: 'fr' },
  ...{ CZ: 'cs', SK: 'sk', PL: 'pl', HU: 'hu', SI: 'sl', HR: 'hr', RS: 'sr', BG: 'bg', RO: 'ro' },
  ...{ IT: 'it', ES: 'es', PT: 'pt', MX: 'es', BR: 'pt', GR: 'el', CY: 'el', TR: 'tr', UA: 'uk' },
  ...{ SE: 'sv', NO: 'no', DK: 'da', FI: 'fi', IS: 'is', EE: 'et', LV: 'lv', LT: 'lt', JP: 'ja', KR: 'ko' },
};

/** The language to write to a country in; English where no other is known. */
export function languageOf(country: string | null): string {
  return LANGUAGES[country ?? ''] ?? 'en';
}

/** Countries where it is English. */
const ENGLISH = new Set(['GB', 'IE', 'US', 'AU', 'CA', 'NZ', 'MT', 'ZA']);

/** Each language by its English name, in small letters as it is typed. */
const NAMES: Readonly<Record<string, string>> = {
  ...{ en: 'english', de: 'german', fr: 'french', nl: 'dutch', cs: 'czech', sk: 'slovak', pl: 'polish' },
  ...{ hu: 'hungarian', sl: 'slovenian', hr: 'croatian', sr: 'serbian', bg: 'bulgarian', ro: 'romanian' },
  ...{ it: 'italian', es: 'spanish', pt: 'portuguese', el: 'greek', tr: 'turkish', uk: 'ukrainian' },
  ...{ sv: 'swedish', no: 'norwegian', da: 'danish', fi: 'finnish', is: 'icelandic', et: 'estonian' },
  ...{ lv: 'latvian', lt: 'lithuanian', ja: 'japanese', ko: 'korean' },
};

/** The names of all languages that are told apart, in alphabetical order. */
export const LANGUAGE_NAMES: readonly string[] = Object.values(NAMES).sort();

/** The language of a country by name; null where the country, or its language, is not known. */
export function languageNameOf(country: string | null): string | null {
  if (country === null || !(country in LANGUAGES || ENGLISH.has(country))) return null;
  return NAMES[languageOf(country)] ?? null;
}
