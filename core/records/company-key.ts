import { domainOf } from '../text/domain.ts';
import { fold, foldedWords } from '../text/fold.ts';
import { registrationKey, type CompanyRecord } from './record.ts';

/**
 * The key of the company that a row of a file tells of. It rests on what the row says and never on where it stands, so
 * that rows may be put in, taken out, sorted and brought up to date between two loads, and what was written of a
 * company stays with it:
 *
 * 1. country and registration number;
 * 2. else name and domain;
 * 3. else name and place with street, phone or mail address;
 * 4. else the whole row, since a name is no key.
 */
export function companyKey(record: CompanyRecord, cells: readonly string[]): string {
  const registered = registrationKey(record);
  if (registered !== null) return registered;
  const name = plainName(record.name);
  const domain = domainOf(record.web);
  if (domain !== null) return hashed('domain', name, record.country, domain);
  const { country, town, postcode, street, phone, mail } = record;
  const known = [street && fold(street), phone?.replace(/\D/g, ''), mail && fold(mail)];
  if (known.some(Boolean)) return hashed('place', name, country, town && fold(town), postcode, ...known);
  return hashed('row', ...cells.map((cell) => cell.trim()));
}

/** A name as names are compared: folded, without punctuation. */
export const plainName = (name: string): string => foldedWords(name).join(' ');

function hashed(...parts: (string | null | undefined)[]): string {
  const text = parts.map((part) => part ?? '').join('\u001f');
  return `x-${hash(text, 0).toString(36)}${hash(text, 1).toString(36)}`;
}

/**
 * A hash of 53 bits: two multiplicative hashes side by side, mixed as in MurmurHash3's last step. Two of them with
 * other seeds tell any number of companies apart that a universe can have.
 */
function hash(text: string, seed: number): number {
  let [low, high] = [0xdeadbeef ^ seed, 0x41c6ce57 ^ seed];
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    low = Math.imul(low ^ code, 2_654_435_761);
    high = Math.imul(high ^ code, 1_597_334_677);
  }
  low = Math.imul(low ^ (low >>> 16), 2_246_822_507) ^ Math.imul(high ^ (high >>> 13), 3_266_489_909);
  high = Math.imul(high ^ (high >>> 16), 2_246_822_507) ^ Math.imul(low ^ (low >>> 13), 3_266_489_909);
  return 4_294_967_296 * (2_097_151 & high) + (low >>> 0);
}
