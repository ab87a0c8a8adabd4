import { labelWithin, withoutLabel, type Cell } from './cells.ts';
import { addressParts, apartIn } from '../values/one-line-address.ts';
import { mailIn, phoneIn, webIn } from './shape.ts';

/** How a value is got out of the words of a cell. */
export type Take =
  | 'whole'
  | 'bare'
  | 'phone'
  | 'mail'
  | 'web'
  | 'street'
  | 'postcode'
  | 'town'
  | `part ${number}`
  | `part -${number}`;

/** Where one cell has several values, they stand apart. */
const partsOf = (text: string) => apartIn(withoutLabel(text));

/** The value that a take finds in a text; "" where there is none. */
export function taken(take: Take, text: string): string {
  switch (take) {
    case 'whole':
      return text;
    case 'bare':
      return withoutLabel(text);
    case 'phone':
      return phoneIn(text.replace(/^tel:/i, '')) ?? '';
    case 'mail':
      return mailIn(text.replace(/^mailto:/i, '')) ?? '';
    case 'web':
      return webIn(text) ?? '';
    case 'street':
    case 'postcode':
    case 'town':
      return addressParts(text)[take] ?? '';
    default: {
      const at = Number(take.slice(5));
      return partsOf(text).at(at) ?? '';
    }
  }
}

/** Fields that are found in a text by how they are written. */
const TYPED: Readonly<Record<string, Take>> = {
  phone: 'phone',
  mail: 'mail',
  web: 'web',
  street: 'street',
  postcode: 'postcode',
  town: 'town',
};

/**
 * Ways in which a field may be got out of the words of a cell, the likeliest first.
 * @param wanted the part of the cell that was marked; null where all of it was pointed at
 */
export function takesFor(field: string, text: string, wanted: string | null): Take[] {
  const typed = TYPED[field];
  if (wanted === null) {
    if (typed !== undefined && taken(typed, text) !== '') return [typed, 'bare'];
    return labelWithin(text) ? ['bare'] : ['whole', 'bare'];
  }
  const parts = partsOf(text);
  const all: Take[] = [
    'whole',
    'bare',
    ...(typed === undefined ? [] : [typed]),
    ...parts.flatMap((_, i): Take[] => [`part ${i}`, `part -${parts.length - i}`]),
  ];
  return all.filter((take) => taken(take, text) === wanted);
}

/** Where the value of a field stands: in the words, or in the address that they lead to. */
export function sourceFor(field: string, text: string, addresses: readonly Cell[]): string {
  const typed = TYPED[field];
  const link = addresses.find(({ source }) => source === 'href');
  if (field === 'page') return link ? 'href' : 'text';
  if (!link || typed === undefined || taken(typed, text) !== '') return 'text';
  const fits =
    field === 'mail'
      ? /^mailto:/i.test(link.text)
      : field === 'phone'
        ? /^tel:/i.test(link.text)
        : field === 'web' && /^https?:\/\//i.test(link.text);
  return fits ? 'href' : 'text';
}
