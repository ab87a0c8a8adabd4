import { fold } from '../text/fold.ts';
import { addressParts, isStreet } from '../values/one-line-address.ts';

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
const DATE = /^\d{1,2}\. ?\d{1,2}\. ?\d{4}$|^\d{4}-\d{2}-\d{2}$|^\d{1,2}\/\d{1,2}\/\d{4}$/;
const NUMBER = /^[≈~<>+-]?\s?[\d.,\s']+\s?(?:%|[a-z€$£]{1,4})?$/i;

export const mailIn = (text: string) => MAIL.exec(text.slice(0, LONGEST))?.[0] ?? null;
export const phoneIn = (text: string) => PHONE.exec(text.slice(0, LONGEST))?.[0]?.trim() ?? null;

/** The first web address in a text; none within a mail address. */
export function webIn(text: string): string | null {
  const bare = text.slice(0, LONGEST).replaceAll(new RegExp(MAIL, 'gi'), ' ');
  return WEB.exec(bare)?.[0] ?? null;
}

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
