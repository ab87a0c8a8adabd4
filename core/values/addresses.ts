import { domainOf } from '../text/domain.ts';
import { readWeb } from './identifiers.ts';
import { CellError } from './cell.ts';

/** Web addresses that somebody pastes, cleaned. */

/** To what an address is cleaned: its domain, or the one page it names. */
export type CleanedTo = 'domain' | 'page';

export interface CleanedAddresses {
  /** Each once, in the order in which they came. */
  addresses: string[];
  /** How many were there already. */
  twice: number;
  /** What is no address, as it came. */
  none: string[];
}

/**
 * The web addresses of a text, by lines, commas, semicolons, tabs or spaces: without scheme, trackers, fragments and closing slashes,
 * to their domain or to the page. A mail address gives its domain.
 */
export function cleanAddresses(text: string, to: CleanedTo): CleanedAddresses {
  return addressesIn(text, (word) => cleanAddress(word, to));
}

/** The addresses among the words of a text, each once. @param read one word without quotes and brackets; null where it is none */
export function addressesIn(text: string, read: (word: string) => string | null): CleanedAddresses {
  const found = new Set<string>();
  const none: string[] = [];
  let twice = 0;
  for (const word of text.split(/[\s,;]+/)) {
    const bare = word.replace(/^["'<(]{1,3}|["'>)]{1,3}$/g, '');
    if (bare === '') continue;
    const address = read(bare);
    if (address === null) none.push(word);
    else if (found.has(address)) twice++;
    else found.add(address);
  }
  return { addresses: [...found], twice, none };
}

/** One address cleaned; null where it is none. */
export function cleanAddress(text: string, to: CleanedTo): string | null {
  if (to === 'domain' || text.includes('@')) return domainOf(text);
  try {
    return readWeb(text).replace(/^www\./, '');
  } catch (error) {
    if (error instanceof CellError) return null;
    throw error;
  }
}
