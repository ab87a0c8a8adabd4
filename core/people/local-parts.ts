import { fold } from '../text/fold.ts';
import type { NameParts } from './name-parts.ts';

/** What stands before the @ of an address, as a company makes it of a name. */

/** Patterns, in words that show what each makes of "Monika Planik"; the commonest first. */
export const PATTERNS = [
  'first.last',
  'f.last',
  'flast',
  'last',
  'first',
  'last.first',
  'firstlast',
  'first_last',
  'first-last',
  'firstl',
  'lastf',
  'last.f',
  'first.l',
  'lastfirst',
] as const;
export type Pattern = (typeof PATTERNS)[number];

/** How accented letters are written: without their accents, or as the country spells them out (ü as ue). */
export const SPELLINGS = ['plain', 'spelt-out'] as const;
/** What becomes of a double surname: hyphen kept, joined, or the first part alone. */
export const DOUBLES = ['hyphen', 'joined', 'first-part'] as const;

/** One way to write a name before the @. */
export interface LocalPart {
  local: string;
  /** Index in PATTERNS. */
  pattern: number;
  /** Index in SPELLINGS; null where the name has no letter that it matters for. */
  spelling: number | null;
  /** Index in DOUBLES; null where the surname is not double. */
  double: number | null;
}

/** Letters that are spelt out where accents are not just dropped: German, Danish, Norwegian. */
const SPELT_OUT: Readonly<Record<string, string>> = {
  ä: 'ae',
  ö: 'oe',
  ü: 'ue',
  ø: 'oe',
  å: 'aa',
  æ: 'ae',
  ß: 'ss',
};

/** Every way to write a name before the @, each text with each pattern that makes it. Empty where the name has no Latin letters. */
export function localPartsOf({ given, family }: NameParts): LocalPart[] {
  const parts: LocalPart[] = [];
  const whole = [...given, ...family].join('').toLowerCase();
  const spelt = /[äöüøåæß]/.test(whole);
  const double = family.length > 1;
  for (let spelling = 0; spelling < (spelt ? SPELLINGS.length : 1); spelling++) {
    const plain = (text: string) => letters(spelling === 1 ? speltOut(text) : text);
    const first = plain(given[0]!);
    const surnames = family.map(plain);
    if (first === '' || surnames.some((one) => one === '')) continue;
    for (let way = 0; way < (double ? DOUBLES.length : 1); way++) {
      const last = way === 0 ? surnames.join('-') : way === 1 ? surnames.join('') : surnames[0]!;
      PATTERNS.forEach((pattern, at) =>
        parts.push({
          local: write(pattern, first, last),
          pattern: at,
          spelling: spelt ? spelling : null,
          double: double ? way : null,
        }),
      );
    }
  }
  return parts;
}

function write(pattern: Pattern, first: string, last: string): string {
  const [f, l] = [first[0]!, last[0]!];
  switch (pattern) {
    case 'first.last':
      return `${first}.${last}`;
    case 'f.last':
      return `${f}.${last}`;
    case 'flast':
      return f + last;
    case 'last':
      return last;
    case 'first':
      return first;
    case 'last.first':
      return `${last}.${first}`;
    case 'firstlast':
      return first + last;
    case 'first_last':
      return `${first}_${last}`;
    case 'first-last':
      return `${first}-${last}`;
    case 'firstl':
      return first + l;
    case 'lastf':
      return last + f;
    case 'last.f':
      return `${last}.${f}`;
    case 'first.l':
      return `${first}.${l}`;
    case 'lastfirst':
      return last + first;
  }
}

function speltOut(text: string): string {
  return text.toLowerCase().replace(/[äöüøåæß]/g, (letter) => SPELT_OUT[letter]!);
}

const letters = (text: string) => fold(text).replace(/[^a-z]/g, '');

/** Names before the @ that are a department's or a house's rather than a person's, folded. */
const GENERAL = new Set(
  'info office mail contact kontakt kontakty post posta sales vertrieb prodej obchod verkauf commercial ventas vendite einkauf nakup purchasing hello team support service servis sekretariat secretariat sekretariatet reception recepce rezeption buero buro biuro firma administration admin zentrale export import bestellung orders order uctarna buchhaltung accounting rechnung invoice hr jobs personal bewerbung marketing press presse webmaster noreply no-reply'.split(
    ' ',
  ),
);

/** Whether an address is a house's or department's, such as info@, rather than a person's. */
export function isGeneral(mail: string): boolean {
  return GENERAL.has(fold(mail.slice(0, mail.lastIndexOf('@'))));
}
