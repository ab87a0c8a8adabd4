import { fold } from '../text/fold.ts';
import { wholeAddress } from './follow.ts';
import { elementsIn, squeezed, textOf, type Page, type PageElement } from './page.ts';
import { mailIn, phoneIn } from './shape.ts';

/** What the pages of a company's own site say of it, by open signatures (`data/site-signatures.json`). */

export interface SiteSignatures {
  /** Words of links, buttons and headings, by offer. */
  offers: Readonly<Record<string, readonly string[]>>;
  /** Words of links to pages that are read, by what they are. */
  pages: Readonly<Record<string, readonly string[]>>;
  /** Words before a registration number. */
  registration: readonly string[];
  /** Parts of a script's address, and names in `generator`, where {key} stands for a technology's key. */
  technologies: { scripts: string; generators: string };
}

/** One thing that a page says. */
export interface SiteFact {
  field: 'offers' | 'mail' | 'phone' | 'registration' | 'technologies';
  value: string;
}

/** Pages of a site that are read beside its first. */
const MOST_PAGES = 8;
/** Longest words of a link, button or heading that are looked at. */
const LONGEST = 80;
const SAYING = new Set(['a', 'button', 'h1', 'h2', 'h3', 'h4', 'label', 'summary', 'legend']);

const wordsOf = (element: PageElement) => {
  const text = squeezed(textOf(element) || (element.attributes.value ?? ''));
  return text.length <= LONGEST ? fold(text) : '';
};
const says = (text: string, words: readonly string[]) =>
  text !== '' &&
  words.some(
    (word) => text === fold(word) || text.startsWith(`${fold(word)} `) || text.includes(` ${fold(word)}`),
  );

/** What one page of a site says. @param keys of technologies that there are */
export function siteFacts(page: Page, signatures: SiteSignatures, keys: readonly string[]): SiteFact[] {
  const found: SiteFact[] = [];
  const add = (field: SiteFact['field'], value: string) => {
    if (!found.some((one) => one.field === field && one.value === value)) found.push({ field, value });
  };
  for (const element of elementsIn(page, page.root)) {
    const { attributes } = element;
    if (SAYING.has(element.tag) || (element.tag === 'input' && attributes.type === 'submit')) {
      const text = wordsOf(element);
      for (const [offer, words] of Object.entries(signatures.offers))
        if (says(text, words)) add('offers', offer);
    }
    if (element.tag === 'a' && /^mailto:/i.test(attributes.href ?? '')) {
      const mail = mailIn(attributes.href!.slice(7));
      if (mail) add('mail', mail.toLowerCase());
    }
    for (const key of keys)
      if (
        attributes.src?.includes(signatures.technologies.scripts.replace('{key}', key)) ||
        (attributes.name === 'generator' &&
          attributes.content === signatures.technologies.generators.replace('{key}', key))
      )
        add('technologies', key);
  }
  for (const line of textOf(page.root).split('\n').slice(0, MOST_LINES)) {
    if (line.length > 300) continue;
    const mail = mailIn(line.replace(/ ?[([]at[)\]] ?/i, '@'));
    if (mail) add('mail', mail.toLowerCase());
    const number = registrationIn(line, signatures.registration);
    if (number) add('registration', number);
    else if (/^(?:tel|phone|☎|mobil|telefon|tlf)/i.test(line)) {
      const phone = phoneIn(line);
      if (phone) add('phone', phone);
    }
  }
  return found;
}

/** Lines of a page that are looked at. */
const MOST_LINES = 5000;

function registrationIn(line: string, words: readonly string[]): string | null {
  const plain = fold(line);
  const word = words.map(fold).find((one) => plain.startsWith(one));
  if (word === undefined) return null;
  return /[a-z]{0,3} ?\d[\d ./-]{3,18}\d/i.exec(line.slice(word.length))?.[0]?.trim() ?? null;
}

/** Pages that a site's first page leads to and that are worth reading: contact, imprint, and those of offers. */
export function pagesOfSite(page: Page, url: string, signatures: SiteSignatures): string[] {
  const { host } = new URL(url);
  const wanted = [...Object.values(signatures.pages), ...Object.values(signatures.offers)];
  const found: string[] = [];
  for (const element of elementsIn(page, page.root)) {
    if (element.tag !== 'a' || !wanted.some((words) => says(wordsOf(element), words))) continue;
    const address = wholeAddress(element.attributes.href ?? '', url);
    if (address !== null && new URL(address).host === host && address !== url && !found.includes(address))
      found.push(address);
    if (found.length === MOST_PAGES) break;
  }
  return found;
}

/** Facts of all pages of a site as the values of one record, each with the page it was seen on. */
export function siteRecord(
  pages: readonly { url: string; facts: readonly SiteFact[] }[],
): Record<string, string> {
  const values: Record<string, string> = {};
  const seen: string[] = [];
  for (const { url, facts } of pages)
    for (const { field, value } of facts) {
      const many = field === 'offers' || field === 'technologies';
      const before = values[field];
      if (before === undefined) values[field] = value;
      else if (many && !before.split('; ').includes(value)) values[field] = `${before}; ${value}`;
      else continue;
      seen.push(`${value}: ${new URL(url).pathname}`);
    }
  if (seen.length) values['own:Seen on'] = seen.join('; ');
  return values;
}
