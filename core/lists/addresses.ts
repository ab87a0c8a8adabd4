import { addressesIn, cleanAddress, type CleanedAddresses } from '../values/addresses.ts';

/** Domains and mail addresses that a suppression list keeps off. */

export const MOST_ADDRESSES = 50_000;

/** A domain, or a mail address. */
export const ADDRESS = /^(?:[^\s@,;<>]{1,64}@)?[^\s@.,;<>/]{1,63}(?:\.[^\s@.,;<>/]{1,63}){1,10}$/;

/** What a pasted text or a column of a file names: mail addresses as they are, web addresses as their domain; in small letters. */
export function suppressedAddresses(text: string): CleanedAddresses {
  return addressesIn(text, (word) => {
    const bare = word.replace(/^mailto:/i, '').toLowerCase();
    const address = bare.includes('@') ? bare : cleanAddress(bare, 'domain');
    return address !== null && ADDRESS.test(address) ? address : null;
  });
}
