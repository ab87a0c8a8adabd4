import { parse, type DefaultTreeAdapterTypes as Tree } from 'parse5';

/** A page as a tree in which every node has a number: its place in the order of the page, the same each time it is read. */

export interface PageText {
  kind: 'text';
  id: number;
  text: string;
  parent: PageElement;
  /** Whether a blank stands before it. */
  gap: boolean;
}

export interface PageElement {
  kind: 'element';
  id: number;
  tag: string;
  attributes: Readonly<Record<string, string>>;
  classes: readonly string[];
  parent: PageElement | null;
  children: PageNode[];
  depth: number;
  /** The number of the last node within it. */
  last: number;
  /** Whether a blank stands before it. */
  gap: boolean;
}

export type PageNode = PageElement | PageText;

export interface Page {
  root: PageElement;
  /** All nodes, each at its number. */
  nodes: readonly PageNode[];
  /** Whether it was larger than is read, so that its end is missing. */
  cut: boolean;
}

/** Nodes of a page that are read at most; what comes after them is left out and said. */
export const MOST_NODES = 120_000;
/** Deeper elements are left out: no list lies there, and walks of trees stay within the stack. */
const DEEPEST = 250;

/** Reads a page, whatever its markup; scripts are text to it that nobody runs. */
export function parsePage(html: string): Page {
  const document = parse(html);
  const nodes: PageNode[] = [];
  const top = document.childNodes.find((node): node is Tree.Element => node.nodeName === 'html')!;
  const root = elementOf(top, null, nodes);
  let cut = false;
  // A stack of our own: pages nest as deeply as they like.
  const open: { from: Tree.Element; to: PageElement; at: number }[] = [{ from: top, to: root, at: 0 }];
  let gap = false;
  while (open.length) {
    const { from, to, at } = open[open.length - 1]!;
    const child = from.childNodes[at];
    if (child === undefined) {
      to.last = nodes.length - 1;
      open.pop();
      continue;
    }
    open[open.length - 1]!.at++;
    if (nodes.length >= MOST_NODES) {
      cut = true;
      open.forEach(({ to: element }) => (element.last = nodes.length - 1));
      break;
    }
    if ('value' in child) {
      if (child.value.trim() === '') {
        gap = true;
        continue;
      }
      const text: PageText = { kind: 'text', id: nodes.length, text: child.value, parent: to, gap };
      gap = false;
      nodes.push(text);
      to.children.push(text);
    } else if ('tagName' in child) {
      if (to.depth >= DEEPEST) continue;
      const element = elementOf(child, to, nodes, gap);
      gap = false;
      to.children.push(element);
      open.push({ from: child, to: element, at: 0 });
    }
  }
  return { root, nodes, cut };
}

function elementOf(
  from: Tree.Element,
  parent: PageElement | null,
  nodes: PageNode[],
  gap = false,
): PageElement {
  const attributes: Record<string, string> = {};
  for (const { name, value } of from.attrs) attributes[name] = value;
  const element: PageElement = {
    kind: 'element',
    id: nodes.length,
    tag: from.tagName,
    attributes,
    classes: attributes.class?.split(/\s+/).filter(Boolean) ?? [],
    parent,
    children: [],
    depth: parent === null ? 0 : parent.depth + 1,
    last: nodes.length,
    gap,
  };
  nodes.push(element);
  return element;
}

/** Elements whose texts are no words of the page. */
const UNSEEN = new Set(['script', 'style', 'template', 'noscript', 'head']);
/** Elements within a line of words; all others begin a line of their own. */
const IN_LINE = new Set(
  'a abbr b bdi bdo cite code data dfn em font i kbd mark q s samp small span strong sub sup time u var wbr'.split(
    ' ',
  ),
);

export const isUnseen = (node: PageNode) => node.kind === 'element' && UNSEEN.has(node.tag);
export const isInLine = (node: PageNode) => node.kind === 'text' || IN_LINE.has(node.tag);

/** The words of a node as a reader sees them; a line break where one is drawn. */
export function textOf(node: PageNode): string {
  const parts: string[] = [];
  const add = (one: PageNode) => {
    if (one.gap) parts.push(' ');
    if (one.kind === 'text') parts.push(one.text.replace(/\s+/g, ' '));
    else if (!isUnseen(one)) {
      const apart = one.tag === 'br' || !isInLine(one);
      if (apart) parts.push('\n');
      one.children.forEach(add);
      if (apart && one.tag !== 'br') parts.push('\n');
    }
  };
  add(node);
  return parts
    .join('')
    .split('\n')
    .map((line) => squeezed(line))
    .filter(Boolean)
    .join('\n');
}

/** A text without the blanks around it and with one where several stood. */
export const squeezed = (text: string) => text.replace(/\s+/g, ' ').trim();

/** Whether `inner` lies within `outer`, or is it. */
export const holds = (outer: PageElement, inner: PageNode) => inner.id >= outer.id && inner.id <= outer.last;

/** An element and those it lies in, the nearest first, up to but without `within`. */
export function ancestry(node: PageNode, within: PageElement | null): PageElement[] {
  const found: PageElement[] = [];
  let at = node.kind === 'element' ? node : node.parent;
  for (;;) {
    if (at === within) return found;
    found.push(at);
    if (at.parent === null) return found;
    at = at.parent;
  }
}

/** The elements within one, and itself. */
export function* elementsIn(page: Page, element: PageElement): Generator<PageElement> {
  for (let id = element.id; id <= element.last; id++) {
    const node = page.nodes[id]!;
    if (node.kind === 'element') yield node;
  }
}
