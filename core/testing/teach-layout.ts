import type { Example, Lesson } from '../gather/lesson.ts';
import { learn, readRows } from '../gather/lesson.ts';
import { parsePage, type Page, type PageElement } from '../gather/page.ts';
import type { Layout } from './page-layouts.ts';

/** Teaches a made layout as a user would: the first row with its fields, then whatever is wrong, with at most three examples. */
export function teachLayout(layout: Layout): {
  rows: number;
  fields: number;
  examples: number;
  wrong: string[];
} {
  const page = parsePage(layout.html);
  const at = positions(page);
  strip(page);
  const pages = new Map([['p', page]]);
  const examples: Example[] = [exampleAt(page, layout, at, 0)];
  let lesson = learn(pages, examples);
  for (let n = 1; n < 3; n++) {
    const next = nextExample(page, layout, at, lesson);
    if (!next) break;
    examples.push(next);
    lesson = learn(pages, examples);
  }
  return { ...score(page, layout, at, lesson), examples: examples.length };
}

interface Positions {
  rows: Map<string, PageElement>;
  cells: Map<string, number>;
  adverts: Map<string, number>;
}

function positions(page: Page): Positions {
  const found: Positions = { rows: new Map(), cells: new Map(), adverts: new Map() };
  let row = '';
  for (const node of page.nodes) {
    if (node.kind !== 'element') continue;
    const { 'data-true': id, 'data-cell': cell, 'data-advert': advert } = node.attributes;
    if (advert !== undefined) {
      found.adverts.set(advert, node.id);
      row = '';
    }
    if (id !== undefined) {
      row = id;
      found.rows.set(id, node);
    }
    if (cell !== undefined && row)
      for (const field of cell.split(',')) found.cells.set(`${row} ${field}`, node.id);
  }
  return found;
}

/** Takes the truth out of a page before anything is learned from it. */
function strip(page: Page): void {
  for (const node of page.nodes)
    if (node.kind === 'element')
      for (const name of ['data-true', 'data-cell', 'data-advert'])
        delete (node.attributes as Record<string, string>)[name];
}

const FIELDS = ['name', 'street', 'postcode', 'town', 'phone', 'web', 'trade'];

function exampleAt(page: Page, layout: Layout, at: Positions, i: number): Example {
  const row = layout.rows[i]!;
  const fields = FIELDS.flatMap((field) => {
    const node = at.cells.get(`${row.id} ${field}`);
    return node === undefined || row.values[field] === undefined ? [] : [{ field, node }];
  });
  return { page: 'p', node: at.rows.get(row.id)!.id, as: 'row', fields };
}

function nextExample(page: Page, layout: Layout, at: Positions, lesson: Lesson): Example | null {
  const { rows } = readRows(page, lesson);
  const found = new Set(rows.map(({ node }) => node));
  const advert = [...at.adverts.values()].find((node) => found.has(node));
  if (advert !== undefined) return { page: 'p', node: advert, as: 'advert', fields: [] };
  const missed = layout.rows.findIndex(({ id }) => !found.has(at.rows.get(id)!.id));
  if (missed >= 0) return exampleAt(page, layout, at, missed);
  const byNode = new Map(rows.map((row) => [row.node, row]));
  const wrong = layout.rows.findIndex((row) => {
    const own = byNode.get(at.rows.get(row.id)!.id)!;
    return FIELDS.some(
      (field) =>
        at.cells.has(`${row.id} ${field}`) &&
        wanted(row.values, field) !== plain(own.values.find((value) => value.field === field)?.value ?? ''),
    );
  });
  return wrong >= 0 ? exampleAt(page, layout, at, wrong) : null;
}

/** A web address is right with what it begins with, too. */
const wanted = (values: Record<string, string>, field: string) => values[field] ?? '';
const plain = (value: string) => value.replace(/^https?:\/\//, '');

function score(page: Page, layout: Layout, at: Positions, lesson: Lesson) {
  const { rows } = readRows(page, lesson);
  const byNode = new Map(rows.map((row) => [row.node, row]));
  const taught = new Set(lesson.looks.flatMap(({ rules }) => rules.map(({ field }) => field)));
  const wrong: string[] = [];
  let [right, fields, fieldsRight] = [0, 0, 0];
  for (const row of layout.rows) {
    const own = byNode.get(at.rows.get(row.id)!.id);
    if (own) right++;
    else wrong.push(`missed ${row.id}`);
    for (const field of taught) {
      // A look without a field has none, whatever is true of the firm.
      const stands = at.cells.has(`${row.id} ${field}`);
      const is = plain(own?.values.find((value) => value.field === field)?.value ?? '');
      const should = stands ? wanted(row.values, field) : '';
      fields++;
      if (is === should) fieldsRight++;
      else wrong.push(`${row.id} ${field}: “${is}” for “${should}”`);
    }
  }
  const extra = rows.length - right;
  if (extra) wrong.push(`${extra} too many`);
  return { rows: right / (layout.rows.length + extra), fields: fieldsRight / fields, wrong };
}
