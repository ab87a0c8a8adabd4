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
