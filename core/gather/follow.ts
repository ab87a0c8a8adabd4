import { elementsIn, squeezed, textOf, type Page, type PageElement } from './page.ts';
import { marksOf } from './row.ts';

/** The way from one page of results to the next, as it was pointed at. */
export interface NextRule {
  /** What its element says, in small letters; "" where it says nothing. */
  words: string;
  tag: string;
  marks: string[];
  /** The attribute that holds the address; "form" where it is the button of a form. */
  address: string;
  /** Whether it was a page's number: then the number after that of the page is followed. */
  numbered: boolean;
}

/** Words of ways to a next page, in the languages of the gazetteer's countries. */
const NEXT_WORDS = new Set(
  'next|next page|more|show more|load more|older|weiter|nächste|nächste seite|mehr|mehr anzeigen|další|další strana|více|ďalej|ďalšia|następna|dalej|więcej|suivant|suivante|page suivante|plus|siguiente|más|avanti|successiva|volgende|meer|nästa|fler|neste|næste|seuraava|következő|înainte|următoarea|dalje|sljedeća|naprej|›|»|>|>>|→'.split(
    '|',
  ),
);

/** An address that an element leads to, with how it is held; null where it leads nowhere. */
export function addressOf(page: Page, element: PageElement): { from: string; address: string } | null {
  const { attributes } = element;
  if (attributes.href !== undefined) return { from: 'href', address: attributes.href };
  for (const [name, value] of Object.entries(attributes))
    if ((name.startsWith('data-') || name === 'formaction') && /^(?:\/|\?|https?:\/\/)/.test(value))
      return { from: name, address: value };
  if (element.tag === 'button' || (element.tag === 'input' && attributes.type === 'submit')) {
    const form = formAround(element);
    if (form && (form.attributes.method ?? 'get').toLowerCase() === 'get') {
      const asked = new URLSearchParams();
      for (const input of elementsIn(page, form))
        if (input.tag === 'input' && input.attributes.type === 'hidden' && input.attributes.name)
          asked.append(input.attributes.name, input.attributes.value ?? '');
      return { from: 'form', address: `${(form.attributes.action ?? '').split('?')[0]}?${asked.toString()}` };
    }
  }
  return null;
}

function formAround(element: PageElement): PageElement | null {
  for (let at = element.parent; at !== null; at = at.parent) if (at.tag === 'form') return at;
  return null;
}

const wordsOf = (element: PageElement) =>
  squeezed(textOf(element) || (element.attributes['aria-label'] ?? element.attributes.title ?? ''))
    .toLowerCase()
    .slice(0, 60);

/** What is learned from pointing at the way to the next page; null where what was pointed at leads nowhere. */
export function nextRule(page: Page, node: number): NextRule | null {
  const at = page.nodes[node];
  let element = at?.kind === 'element' ? at : (at?.parent ?? null);
  for (let up = 0; element !== null && up < 4; up++, element = element.parent) {
    const found = addressOf(page, element);
    if (!found) continue;
    const words = wordsOf(element);
    return {
      words,
      tag: element.tag,
      marks: marksOf(element),
      address: found.from,
      numbered: /^\d{1,4}$/.test(words),
    };
  }
  return null;
}

/**
 * Where the next page is, as the page itself writes it; null on the last one.
 * @param rule what was pointed at; null to look for what such ways are usually called
 * @param nth the number of this page in its search, from 1
 */
export function nextAddress(page: Page, rule: NextRule | null, nth: number): string | null {
  for (const element of elementsIn(page, page.root)) {
    if (element.attributes['aria-disabled'] === 'true' || element.attributes.disabled !== undefined) continue;
    if (!(rule ? fitsRule(element, rule, nth) : isNext(element))) continue;
    const found = addressOf(page, element);
    if (found && (!rule || found.from === rule.address) && !found.address.startsWith('#'))
      return found.address;
  }
  return null;
}

function fitsRule(element: PageElement, rule: NextRule, nth: number): boolean {
  if (element.tag !== rule.tag) return false;
  if (rule.numbered) return wordsOf(element) === String(nth + 1);
  // What says how many are left counts down from page to page.
  const plain = (words: string) => words.replace(/\d+/g, '#');
  if (rule.words !== '') return plain(wordsOf(element)) === plain(rule.words);
  return rule.marks.length > 0 && rule.marks.every((mark) => marksOf(element).includes(mark));
}

function isNext(element: PageElement): boolean {
  // What loads as one scrolls names what comes next itself.
  if (Object.keys(element.attributes).some((name) => /^data-(?:next|more)\b/.test(name))) return true;
  if (!['a', 'button', 'link'].includes(element.tag)) return false;
  if (/\bnext\b/.test(element.attributes.rel ?? '')) return true;
  return NEXT_WORDS.has(wordsOf(element).replace(/[ \d()]{1,12}$/, ''));
}

/** An address on a page as a whole one. Null where it is of another kind than a page's, such as javascript: or mailto:. */
export function wholeAddress(address: string, on: string): string | null {
  try {
    const url = new URL(address.trim(), on);
    if (url.protocol !== 'http:' && url.protocol !== 'https:') return null;
    url.hash = '';
    return url.href;
  } catch {
    return null;
  }
}
