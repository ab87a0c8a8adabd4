import { type Page, type PageElement, type PageNode } from './page.ts';

/** Elements that are shown; all others are shown as what they hold. */
const SHOWN = new Set(
  'a abbr address article aside b bdi bdo blockquote br button caption cite code col colgroup dd del details dfn div dl dt em fieldset figcaption figure footer form h1 h2 h3 h4 h5 h6 header hr i img input ins kbd label legend li main mark nav ol optgroup option p pre q s samp section select small span strong sub summary sup table tbody td textarea tfoot th thead time tr u ul var wbr'.split(
    ' ',
  ),
);
/** Elements that are left out with all they hold. */
const LEFT_OUT = new Set(
  'script style template noscript iframe frame frameset object embed applet link meta base svg math audio video canvas dialog portal'.split(
    ' ',
  ),
);
const EMPTY = new Set(['br', 'hr', 'img', 'input', 'wbr', 'col']);
/** Attributes that are shown. None leads anywhere, loads anything or runs. */
const KEPT = new Set([
  'class',
  'colspan',
  'rowspan',
  'value',
  'placeholder',
  'type',
  'checked',
  'selected',
  'align',
  'start',
  'datetime',
  'dir',
  'lang',
]);
const TYPES = new Set([
  'text',
  'search',
  'checkbox',
  'radio',
  'submit',
  'button',
  'number',
  'tel',
  'email',
  'url',
]);
/** Letters of style sheets that are kept. */
const MOST_STYLE = 200_000;

/**
 * A page as it is safely shown: words, tables and boxes with their classes and its own style sheets, each node with its
 * number in `data-node`. No scripts, frames, images, addresses, forms that send or handlers are left.
 */
export function cleanedPage(page: Page): { styles: string; body: string } {
  const parts: string[] = [];
  const write = (node: PageNode) => {
    if (node.gap) parts.push(' ');
    if (node.kind === 'text') {
      const alone = node.parent.children.length === 1;
      parts.push(alone ? escaped(node.text) : `<span data-node="${node.id}">${escaped(node.text)}</span>`);
      return;
    }
    if (LEFT_OUT.has(node.tag) || node.tag === 'head') return;
    if (!SHOWN.has(node.tag)) {
      node.children.forEach(write);
      return;
    }
    parts.push(`<${node.tag} data-node="${node.id}"${attributesOf(node)}>`);
    if (EMPTY.has(node.tag)) return;
    if (node.tag === 'select' || node.tag === 'optgroup')
      node.children.filter((child) => child.kind === 'element').forEach(write);
    else if (node.tag === 'textarea' || node.tag === 'option')
      parts.push(escaped(node.children.map((child) => (child.kind === 'text' ? child.text : '')).join('')));
    else node.children.forEach(write);
    parts.push(`</${node.tag}>`);
  };
  const body = page.root.children.find(
    (child): child is PageElement => child.kind === 'element' && child.tag === 'body',
  );
  body?.children.forEach(write);
  return { styles: stylesOf(page), body: parts.join('') };
}

function attributesOf({ tag, attributes }: PageElement): string {
  let text = '';
  for (const [name, value] of Object.entries(attributes)) {
    if (!KEPT.has(name)) continue;
    if (name === 'type' && tag === 'input' && !TYPES.has(value.toLowerCase())) text += ' type="hidden"';
    else text += ` ${name}="${escaped(value)}"`;
  }
  if (tag === 'a' && attributes.href !== undefined) text += ' data-link=""';
  if (tag === 'img') text += ` data-image="" alt="${escaped(attributes.alt ?? '')}"`;

  return text;
}

/** The page's own style sheets, without what they would load or show over everything. */
function stylesOf(page: Page): string {
  let css = '';
  for (const node of page.nodes)
    if (node.kind === 'element' && node.tag === 'style' && css.length < MOST_STYLE)
      css += node.children.map((child) => (child.kind === 'text' ? child.text : '')).join('');
  return css
    .slice(0, MOST_STYLE)
    .replaceAll('<', '')
    .replace(/@import[^;]{0,500};?/gi, '')
    .replace(/url\([^)]{0,500}\)/gi, 'none')
    .replace(/position\s*:\s*(?:fixed|sticky)/gi, 'position: static');
}

const escaped = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
