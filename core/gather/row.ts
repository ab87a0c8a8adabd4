import { isUnseen, type Page, type PageElement, type PageNode } from './page.ts';
import { labelIn } from './shape.ts';

/** One entry of a list: an element, or a run of neighbours that begins with it. */
export interface Row {
  page: Page;
  first: PageElement;
  nodes: readonly PageNode[];
}

export const rowOf = (page: Page, first: PageElement): Row => ({ page, first, nodes: [first] });

/** Neighbours of one row at most. */
const LONGEST_RUN = 24;

/** The row that begins with an element and goes on until another begins. */
export function runFrom(page: Page, first: PageElement, begins: (element: PageElement) => boolean): Row {
  const siblings = first.parent!.children;
  const nodes: PageNode[] = [first];
  for (let i = siblings.indexOf(first) + 1; i < siblings.length && nodes.length < LONGEST_RUN; i++) {
    const next = siblings[i]!;
    if (next.kind === 'element' && begins(next)) break;
    nodes.push(next);
  }
  return { page, first, nodes };
}

/** Deeper than this within a row says nothing of its build. */
const DEEPEST = 7;
/** Nodes of a row that are looked at. */
const MOST_NODES = 1500;

/**
 * What a row is built of, as texts: `t:` a path of tags, `c:` a tag with a class, `o:` a class of the row itself, `a:` an
 * attribute that names what something is, `x:` short words. Numbers in classes are left out, since they count.
 */
export function buildOf(row: Row): Set<string> {
  const found = new Set<string>();
  let seen = 0;
  const add = (node: PageNode, path: string, depth: number) => {
    if (++seen > MOST_NODES || isUnseen(node)) return;
    if (node.kind === 'text') {
      const words = labelIn(node.text);
      if (words) found.add(`x:${words}`);
      return;
    }
    const own = path === '' ? '' : `${path}>${node.tag}`;
    if (path !== '') found.add(`t:${own}`);
    marksOf(node).forEach((mark) => found.add(path === '' ? `o:${mark}` : `c:${node.tag}${mark}`));
    if (depth < DEEPEST) for (const child of node.children) add(child, path === '' ? '·' : own, depth + 1);
  };
  for (const node of row.nodes)
    if (node === row.first) add(node, '', 0);
    else add(node, '+', 0);
  return found;
}

/** Attributes that say what an element is. */
const TELLING = ['itemprop', 'itemtype', 'rel', 'role', 'property', 'data-field', 'data-role', 'data-type'];

/** What an element is called by its classes and attributes: `.phone`, `[itemprop=name]`. */
export function marksOf(element: PageElement): string[] {
  const marks = element.classes.filter((name) => !/\d{2}/.test(name)).map((name) => `.${name}`);
  for (const name of TELLING) {
    const value = element.attributes[name];
    if (value !== undefined && value.length <= 60) marks.push(`[${name}=${value}]`);
  }
  return marks;
}

/** Tags and marks of what an element lies in, from the outermost. */
export function trailOf(element: PageElement): string[] {
  const trail: string[] = [];
  for (let at = element.parent; at !== null; at = at.parent)
    trail.push(`${at.tag}${marksOf(at).sort().join('')}`);
  return trail.reverse();
}
