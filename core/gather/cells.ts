import { isInLine, isUnseen, squeezed, textOf, type PageElement, type PageNode } from './page.ts';
import { marksOf, type Row } from './row.ts';
import { labelIn, mailIn, phoneIn, shapeOf, webIn, type Shape } from './shape.ts';

/** One value that stands in a row: the words of an element or a loose text, or what an attribute holds. */
export interface Cell {
  /** Number of the element or text. */
  node: number;
  /** "text", or the attribute it is read from. */
  source: string;
  text: string;
  shape: Shape;
  /** Short words that stand before it: "Tel." */
  label: string;
  /** Tags from the row to it. */
  path: string;
  /** What it and what it lies in within the row are called by; the nearest first. */
  marks: readonly string[];
  /** Its place among elements at each level: "1.3". */
  index: string;
  /** How deep its own element lies. */
  depth: number;
}

/** Attributes that hold a value. */
const VALUES = [
  'href',
  'datetime',
  'content',
  'title',
  'alt',
  'data-href',
  'data-phone',
  'data-mail',
  'data-web',
];
/** Cells of a row that are looked at. */
const MOST_CELLS = 400;

/** The values of a row, in their order on the page. */
export function cellsOf(row: Row): Cell[] {
  const cells: Cell[] = [];
  let label = '';

  const put = (node: PageNode, source: string, text: string, at: Place, own = label) => {
    if (cells.length >= MOST_CELLS || text === '') return;
    cells.push({ node: node.id, source, text, shape: shapeOf(text), label: own, ...at });
  };

  const add = (node: PageNode, at: Place) => {
    if (isUnseen(node)) return;
    if (node.kind === 'text') {
      const text = squeezed(node.text);
      put(node, 'text', text, at);
      label = labelIn(text);
      return;
    }
    const before = label;
    for (const name of VALUES) put(node, name, (node.attributes[name] ?? '').trim(), at);
    const one = onlyText(node);
    if (one !== null) {
      put(node, 'text', one, at);
      label = labelIn(one);
      return;
    }
    // An element that is one value though its words are marked within: a whole line with words of the search in bold.
    const whole =
      node.children.length > 1 && node !== row.first && isOneLine(node) ? squeezed(textOf(node)) : '';
    if (whole) put(node, 'text', whole, at);
    walk(node, node.children, at);
    if (whole) label = labelIn(whole) || before;
  };

  const walk = (parent: PageElement, children: readonly PageNode[], at: Place) => {
    const tables = parent.tag === 'tr';
    let nth = 0;
    for (const child of children) {
      if (child.kind === 'element') {
        nth += tables ? Number(child.attributes.colspan ?? 1) || 1 : 1;
        const marks = marksOf(child).map((mark) => `${child.tag}${mark}`);
        if (tables) {
          marks.push(`column ${nth}`);
          label = '';
        }
        add(child, {
          path: `${at.path}>${child.tag}`,
          marks: [...marks, ...at.marks],
          index: `${at.index}.${nth}`,
          depth: at.depth + 1,
        });
      } else add(child, { ...at, path: `${at.path}>#`, index: `${at.index}.${nth}#` });
    }
  };

  row.nodes.forEach((node, i) => {
    const marks = node.kind === 'element' && i > 0 ? marksOf(node).map((mark) => `${node.tag}${mark}`) : [];
    const tag = node.kind === 'element' ? node.tag : '#';
    add(node, { path: i === 0 ? '' : `+${tag}`, marks, index: String(i), depth: 0 });
  });
  return cells;
}

type Place = Pick<Cell, 'path' | 'marks' | 'index' | 'depth'>;

/** The words of an element that holds nothing but them, however deep; null where it holds more. */
function onlyText(element: PageElement): string | null {
  const seen = element.children.filter((child) => !isUnseen(child));
  if (seen.length === 0) return '';
  if (seen.length > 1) return null;
  const [child] = seen;
  return child!.kind === 'text' ? squeezed(child!.text) : null;
}

/** Whether an element is one line of words, with nothing in it that is a value of its own. */
function isOneLine(element: PageElement): boolean {
  return element.children.every(
    (child) =>
      child.kind === 'text' ||
      (isInLine(child) && child.tag !== 'a' && (onlyText(child) !== null || isOneLine(child))),
  );
}

/** The cell that a node of a row stands for: itself, else the first within it, else what it lies in. */
export function cellAt(cells: readonly Cell[], node: PageNode, source: string): Cell | null {
  const own = cells.filter((cell) => cell.source === source);
  const exact = own.find((cell) => cell.node === node.id);
  if (exact) return exact;
  const last = node.kind === 'element' ? node.last : node.id;
  const within = own.find((cell) => cell.node > node.id && cell.node <= last);
  if (within) return within;
  for (let at = node.parent; at !== null; at = at.parent) {
    const around = own.find((cell) => cell.node === at.id);
    if (around) return around;
  }
  return null;
}

/** What a text is without the label that stands before it in the same words: "Tel. +420 …" → "+420 …". */
export function withoutLabel(text: string): string {
  const at = text.search(/[:：]\s/);
  if (at > 0 && at < 24 && labelIn(text.slice(0, at))) return text.slice(at + 1).trim();
  const value = phoneIn(text) ?? mailIn(text) ?? webIn(text);
  return value !== null && text.endsWith(value) && labelIn(text.slice(0, -value.length)) ? value : text;
}

/** The label within a text, before its value; "" where it has none. */
export function labelWithin(text: string): string {
  const bare = withoutLabel(text);
  return bare === text ? '' : labelIn(text.slice(0, text.length - bare.length));
}
