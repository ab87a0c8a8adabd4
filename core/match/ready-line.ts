import type { ReadyFirm } from './firm.ts';

/** Ready firms as short texts, from which they are had again without being made ready anew. */

const BETWEEN = '\u001f';

const text = (value: string | number | null): string => (value === null ? '' : String(value));
const textOf = (part: string): string | null => (part === '' ? null : part);
const numberOf = (part: string): number | null => (part === '' ? null : Number(part));
const listOf = (part: string): string[] => (part === '' ? [] : part.split(' '));

/** No part of a ready firm is an empty text, and neither a word nor a domain has a space. */
export function lineOf(key: string, ready: ReadyFirm): string {
  const { words, form, number, domains, phone, street, house, postcode, town, country, lat, lon } = ready;
  return [
    key,
    words.join(' '),
    text(form),
    text(number),
    domains.join(' '),
    text(phone),
    text(street),
    text(house),
    text(postcode),
    text(town),
    text(country),
    text(lat),
    text(lon),
    text(ready.headcount),
  ].join(BETWEEN);
}

export function fromLine(line: string): { key: string; ready: ReadyFirm } {
  const parts = line.split(BETWEEN);
  return {
    key: parts[0]!,
    ready: {
      words: listOf(parts[1]!),
      form: textOf(parts[2]!),
      number: textOf(parts[3]!),
      domains: listOf(parts[4]!),
      phone: textOf(parts[5]!),
      street: textOf(parts[6]!),
      house: textOf(parts[7]!),
      postcode: textOf(parts[8]!),
      town: textOf(parts[9]!),
      country: textOf(parts[10]!),
      lat: numberOf(parts[11]!),
      lon: numberOf(parts[12]!),
      headcount: numberOf(parts[13]!),
    },
  };
}
