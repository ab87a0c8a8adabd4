import { cellAt, cellsOf } from './cells.ts';
import { LIKE, likenessTo, likelyRows, lookOf } from './look.ts';
import { ancestry, elementsIn, type Page, type PageElement } from './page.ts';
import { buildOf, rowOf } from './row.ts';
import { shapeOf, type Shape } from './shape.ts';

/** What somebody may mean who points at a place of a page: the nearest rows that repeat, the likeliest first marked. */
export interface RowChoice {
  node: number;
  /** How many are built like it. */
  alike: number;
}

/** Values of a row at least, for it to be one. */
const LEAST_CELLS = 2;
const MOST_LEVELS = 14;

/**
 * The rows that a place on the page may be within, from the narrowest to the widest, and which of them is likeliest meant.
 * @param rows elements that are rows already: what stands beside one is a row of another look, however seldom
 */
export function rowsAround(
  page: Page,
  node: number,
  rows: readonly number[] = [],
): { choices: RowChoice[]; best: number } {
  const at = page.nodes[node]!;
  const up = ancestry(at, null)
    .filter(({ tag }) => tag !== 'html' && tag !== 'body')
    .slice(0, MOST_LEVELS);
  const choices = up
    .map((element) => ({ element, alike: alikeIn(page, element) }))
    .filter(({ element, alike }, i) => alike > 1 || i === 0 || element.children.length > 1);
  let best = 0;
  let score = -1;
  const lists = new Set(rows.map((row) => page.nodes[row]?.parent ?? null));
  choices.forEach(({ element, alike }, i) => {
    const own = element.parent !== null && lists.has(element.parent) ? BESIDE : worth(page, element, alike);
    if (own >= score) [best, score] = [i, own];
  });
  return { choices: choices.map(({ element, alike }) => ({ node: element.id, alike })), best };
}

/** What stands beside known rows outweighs all that repeats within it. */
const BESIDE = 100;

const alikeIn = (page: Page, element: PageElement) =>
  likelyRows(page, lookOf([rowOf(page, element)], false)).length;

/** How likely an element that so many are built like is one row: it repeats, it holds several values, and nothing within it repeats like a row. */
function worth(page: Page, element: PageElement, alike: number): number {
  const cells = cellsOf(rowOf(page, element)).filter(({ source }) => source === 'text').length;
  if (alike < 2 || cells < LEAST_CELLS) return alike < 2 ? 0 : 0.1;
  return isGroup(page, element) ? 0.2 : Math.min(cells, 6) + Math.log2(alike) / 2;
}

/** Rows that are built like one, by their numbers. */
export function rowsLike(page: Page, node: number): number[] {
  const first = page.nodes[node]!;
  if (first.kind === 'text') return [];
  return likelyRows(page, lookOf([rowOf(page, first)], false), CLEARLY).map(({ first: one }) => one.id);
}

/** Rows as alike as this are surely of one look. */
const CLEARLY = 0.8;

/** Whether an element holds several rows rather than being one. */
function isGroup(page: Page, element: PageElement): boolean {
  for (const inner of elementsIn(page, element)) {
    if (inner.children.length < 2) continue;
    const builds = inner.children
      .filter((child): child is PageElement => child.kind === 'element')
      .slice(0, 6)
      .map((child) => ({ child, build: buildOf(rowOf(page, child)) }))
      .filter(({ build }) => [...build].filter((feature) => feature.startsWith('t:')).length >= 3);
    const [first, second] = builds;
    if (first && second && first.child.tag === second.child.tag) {
      const like = likenessTo(lookOf([rowOf(page, first.child)], false), second.build);
      if (like >= LIKE + 0.1) return true;
    }
  }
  return false;
}

/** Fields that a value is likely to be, by what it looks like and how its element is called. */
export function fieldGuess(
  page: Page,
  row: number,
  node: number,
): { field: string; text: string; cell: number } {
  const first = page.nodes[row]!;
  const cells = cellsOf(rowOf(page, first.kind === 'element' ? first : first.parent));
  const cell = cellAt(cells, page.nodes[node]!, 'text');
  if (!cell) return { field: 'name', text: '', cell: node };
  const isFirst = cells.find(({ source }) => source === 'text') === cell;
  return {
    field: isFirst ? 'name' : (BY_SHAPE[shapeOf(cell.text)] ?? 'other'),
    text: cell.text,
    cell: cell.node,
  };
}

const BY_SHAPE: Partial<Record<Shape, string>> = {
  phone: 'phone',
  mail: 'mail',
  web: 'web',
  postcode: 'postcode',
  address: 'address',
  place: 'place',
  street: 'street',
};
