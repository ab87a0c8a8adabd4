import type { ReadyFirm } from './firm.ts';

/**
 * What two rows of one file have in common when they are of one company beyond doubt: the register's number, else all that they
 * say. Null where a row says too little for that, and stands for itself.
 */
export function sameRow({
  firm,
  words,
  number,
  domains,
  phone,
  street,
  house,
  postcode,
  town,
}: ReadyFirm): string | null {
  if (firm.key !== undefined) return `key ${firm.key}`;
  if (number !== null) return `number ${firm.country ?? ''} ${number}`;
  if (words.length === 0 && domains.length === 0) return phone;
  return [words.join(' '), firm.country, domains.join(' '), phone, street, house, postcode, town]
    .map((part) => part ?? '')
    .join('\u001f');
}
