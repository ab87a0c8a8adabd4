import type { Firm, ReadyFirm } from './firm.ts';

/**
 * What two rows of one file have in common when they are of one company beyond doubt: the register's number, else all that they
 * say. Null where a row says too little for that, and stands for itself.
 */
export function sameRow({ key }: Firm, ready: ReadyFirm): string | null {
  const { words, country, number, domains, phone, street, house, postcode, town } = ready;
  if (key !== undefined) return `key ${key}`;
  if (number !== null) return `number ${country ?? ''} ${number}`;
  if (words.length === 0 && domains.length === 0) return phone;
  return [words.join(' '), country, domains.join(' '), phone, street, house, postcode, town]
    .map((part) => part ?? '')
    .join('\u001f');
}
