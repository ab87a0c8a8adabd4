import { cleanAddresses } from '../values/addresses.ts';

/** Domains and mail addresses that a suppression list keeps off. */

export const MOST_ADDRESSES = 50_000;

/** A domain, or a mail address. */
export const ADDRESS = /^(?:[^\s@,;<>]{1,64}@)?[^\s@.,;<>/]{1,63}(?:\.[^\s@.,;<>/]{1,63}){1,10}$/;

export interface SuppressedAddresses {
  /** In small letters, each once. */
  addresses: string[];
  twice: number;
  /** What is neither a domain nor a mail address. */
  none: string[];
}

/** What a pasted text or a column of a file names: mail addresses as they are, web addresses as their domain. */
export function suppressedAddresses(text: string): SuppressedAddresses {
  const found = new Set<string>();
  const none: string[] = [];
  let twice = 0;
  for (const word of text.split(/[\s,;]+/)) {
    const bare = word
      .replace(/^["'<(]{1,3}|["'>)]{1,3}$/g, '')
      .replace(/^mailto:/i, '')
      .toLowerCase();
    if (bare === '') continue;
    const address = bare.includes('@') ? bare : cleanAddresses(bare, 'domain').addresses[0];
    if (address === undefined || !ADDRESS.test(address)) none.push(word);
    else if (found.has(address)) twice++;
    else found.add(address);
  }
  return { addresses: [...found], twice, none };
}
