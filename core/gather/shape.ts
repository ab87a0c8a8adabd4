import { fold } from '../text/fold.ts';

/** What a text looks like, by its letters and figures alone. */
export type Shape =
  | 'phone'
  | 'mail'
  | 'web'
  | 'postcode'
  | 'address'
  | 'street'
  | 'place'
  | 'number'
  | 'date'
  | 'words'
  | 'empty';

/** Longest text that is looked at; a longer one is words. */
const LONGEST = 300;

const MAIL = /[^\s@<>()[\],;:"]{1,64}@[a-z0-9-]{1,63}(?:\.[a-z0-9-]{1,63}){1,8}/i;
const WEB = /(?:https?:\/\/)?(?:[a-z0-9-]{1,63}\.){1,8}[a-z]{2,12}(?:\/[^\s<>"]{0,200})?/i;
/** At least six figures, with what people put between them. */
const PHONE = /(?:\+|\(|\b0)[\d\s()/.-]{5,24}\d|\b\d{3,4}[\s/-]\d{3}[\s/-]?\d{2,4}\b/;
/**
 * Postcodes as countries write them: figures (with a blank, a dash or a country before them), or letters and figures of
 * Britain, Ireland, the Netherlands, Malta and Canada. The forms are those of the Universal Postal Union's address guides.
 */
const POSTCODE =
  /(?:\b[A-Z]{1,2}[- ])?(?:\b\d{5}-\d{3}\b|\b\d{3} \d{2}\b|\b\d{2}-\d{3}\b|\b\d{4} [A-Z]{2}\b|\b\d{4}-\d{3}\b|\b\d{4,6}\b)|\b[A-Z]{1,2}\d[A-Z\d]? \d[A-Z]{2}\b|\b[A-Z]\d[A-Z] \d[A-Z]\d\b|\b[A-Z]\d{2} [A-Z\d]{4}\b|\b[A-Z]{3} \d{4}\b/;
const DATE = /^\d{1,2}\. ?\d{1,2}\. ?\d{4}$|^\d{4}-\d{2}-\d{2}$|^\d{1,2}\/\d{1,2}\/\d{4}$/;
const NUMBER = /^[≈~<>+-]?\s?[\d.,\s']+\s?(?:%|[a-z€$£]{1,4})?$/i;
/** A house's number behind the street's name, or before it. */
const HOUSE_BEHIND = /\p{L}\p{L}.{0,60} \d{1,4} ?[a-z]?(?:[/-]\d{1,4}[a-z]?)?$/iu;
const HOUSE_BEFORE = /^\d{1,4}[a-z]?(?:[/-]\d{1,4})?,? \p{L}{2,}/iu;

export const mailIn = (text: string) => MAIL.exec(text.slice(0, LONGEST))?.[0] ?? null;
export const phoneIn = (text: string) => PHONE.exec(text.slice(0, LONGEST))?.[0]?.trim() ?? null;

/** The first web address in a text; none within a mail address. */
export function webIn(text: string): string | null {
  const bare = text.slice(0, LONGEST).replaceAll(new RegExp(MAIL, 'gi'), ' ');
  return WEB.exec(bare)?.[0] ?? null;
}

/** An address taken apart; what is not there is null. */
export interface AddressParts {
  street: string | null;
  postcode: string | null;
  town: string | null;
}

/** What may stand before a postcode, and between an address and what is not of it. */
const SEPARATORS = /[,;|·•\n]| [–—-] /;

/** The parts of a text that stand apart by commas, dots in the middle, dashes or lines, without blanks around them. */
export const apartIn = (text: string): string[] =>
  text
    .slice(0, LONGEST)
    .replace(/[^\S\n]+/g, ' ')
    .split(SEPARATORS)
    .map((part) => part.trim())
    .filter(Boolean);

/** Takes apart an address on one line or several. What stands before the street (such as a name) is left out. */
export function addressParts(text: string): AddressParts {
  const parts = apartIn(text);
  // From the end, since a street may begin with figures that look like a postcode.
  for (let i = parts.length - 1; i >= 0; i--) {
    const found = postcodeOf(parts[i]!);
    if (!found) continue;
    const { before, postcode, after } = found;
    const street = isStreet(before) ? before : i > 0 && isStreet(parts[i - 1]!) ? parts[i - 1]! : null;
    const wordsBefore = before !== '' && !isStreet(before) ? before : null;
    const next = parts[i + 1];
    const town =
      after !== ''
        ? after
        : (wordsBefore ??
          (next !== undefined && isWords(next)
            ? next
            : i > 0 && isWords(parts[i - 1]!)
              ? parts[i - 1]!
              : null));
    return { street, postcode, town };
  }
  const at = parts.findIndex(isStreet);
  const next = at < 0 ? undefined : parts[at + 1];
  return {
    street: at < 0 ? null : parts[at]!,
    postcode: null,
    town: next !== undefined && isWords(next) ? next : null,
  };
}

function postcodeOf(part: string): { before: string; postcode: string; after: string } | null {
  // Short figures at the end of words are a house's number, unless nothing but words follows them.
  const found = POSTCODE.exec(part);
  if (!found) return null;
  const before = part.slice(0, found.index).trim();
  const after = part.slice(found.index + found[0].length).trim();
  if (/\d/.test(after)) return null;
  return { before, postcode: found[0], after };
}

const isStreet = (text: string) => text.length <= 120 && (HOUSE_BEHIND.test(text) || HOUSE_BEFORE.test(text));
const isWords = (text: string) => /^\p{L}[^\d@]*$/u.test(text);

/** What a text looks like. */
export function shapeOf(text: string): Shape {
  const plain = text.trim();
  if (plain === '') return 'empty';
  if (plain.length > LONGEST) return 'words';
  if (mailIn(plain) !== null && plain.length < 80) return 'mail';
  if (DATE.test(plain)) return 'date';
  if (isWholeWeb(plain)) return 'web';
  const { street, postcode, town } = addressParts(plain);
  const phone = phoneIn(plain);
  if (phone !== null && phone.replace(/\D/g, '').length >= 8 && phone.length * 2 >= plain.length)
    return 'phone';
  if (postcode !== null && street !== null) return 'address';
  if (postcode === plain) return 'postcode';
  if (phone !== null && phone.length * 2 >= plain.length) return 'phone';
  if (postcode !== null && town !== null && /^\p{Lu}/u.test(town)) return 'place';
  if (NUMBER.test(plain)) return 'number';
  if (isStreet(plain)) return 'street';
  return 'words';
}

const isWholeWeb = (text: string) => {
  const found = webIn(text);
  return found !== null && found.length * 2 >= text.length && (!text.includes(' ') || found.length > 8);
};

/** A text without the marks at its end that only lead on to what follows. */
export function withoutMarks(text: string): string {
  let end = text.length;
  while (end > 0 && ':：.* \t\n'.includes(text.charAt(end - 1))) end--;
  return text.slice(0, end);
}

/** Longest text that may be a label. */
const LONGEST_LABEL = 24;

/** A short text that may be a label: letters, and no figures. */
export function labelIn(text: string): string {
  const trimmed = text.trim();
  if (trimmed.length > 2 * LONGEST_LABEL) return '';
  const plain = fold(withoutMarks(trimmed));
  return plain.length > 0 && plain.length <= LONGEST_LABEL && !/[\d@]/.test(plain) ? plain : '';
}
