import { stringify } from 'csv-stringify/sync';
import { parse, type DefaultTreeAdapterTypes } from 'parse5';

/** The table of an HTML page, which many programs save under the name of a workbook. */

type Node = DefaultTreeAdapterTypes.Node;
type Element = DefaultTreeAdapterTypes.Element;

/** Cells that one may reach over. */
const MOST_SPANNED = 200;

/** The largest table of a page as CSV; null where it has none. */
export function tableOfHtml(html: string): string | null {
  let largest: string[][] = [];
  for (const table of elements(parse(html), (name) => name === 'table')) {
    const rows = rowsOf(table);
    if (sizeOf(rows) > sizeOf(largest)) largest = rows;
  }
  return largest.length ? stringify(largest) : null;
}

const sizeOf = (rows: readonly string[][]) => rows.reduce((sum, cells) => sum + cells.length, 0);

function rowsOf(table: Element): string[][] {
  const rows: string[][] = [];
  for (const row of elements(table, (name) => name === 'tr', 'table')) {
    const cells: string[] = [];
    for (const cell of elements(row, (name) => name === 'td' || name === 'th', 'table')) {
      const span = Number(cell.attrs.find(({ name }) => name === 'colspan')?.value ?? 1);
      cells.push(textOf(cell));
      for (let i = 1; i < Math.min(span, MOST_SPANNED); i++) cells.push('');
    }
    rows.push(cells);
  }
  return rows;
}

/** Elements below a node in their order, without those that lie in one called `not`. */
function* elements(node: Node, isWanted: (name: string) => boolean, not?: string): Generator<Element> {
  const open: Node[] = [...childrenOf(node)].reverse();
  for (let next = open.pop(); next; next = open.pop()) {
    if ('tagName' in next && isWanted(next.tagName)) yield next;
    if ('tagName' in next && next.tagName === not) continue;
    for (const child of [...childrenOf(next)].reverse()) open.push(child);
  }
}

const childrenOf = (node: Node): readonly Node[] => ('childNodes' in node ? node.childNodes : []);

/** The text of a cell, with lines where it has them. */
function textOf(cell: Element): string {
  let text = '';
  const open: Node[] = [cell];
  for (let next = open.pop(); next; next = open.pop()) {
    if (next.nodeName === '#text')
      text += (next as DefaultTreeAdapterTypes.TextNode).value.replace(/\s+/g, ' ');
    else if (next.nodeName === 'br') text += '\n';
    for (const child of [...childrenOf(next)].reverse()) open.push(child);
  }
  return text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
    .join('\n');
}
