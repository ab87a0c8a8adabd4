import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { cellsOf } from './cells.ts';
import { guessRow } from './guess.ts';
import { learn, readRows, type Example } from './lesson.ts';
import { extentOf } from './look.ts';
import { parsePage, textOf, type PageElement } from './page.ts';
import { rowsAround } from './pointed.ts';
import { rowOf } from './row.ts';
import { taken, takesFor } from './take.ts';

/** Whatever a page is built of, what is learned from it keeps to its rules. */

const word = fc.constantFrom(
  'Drevanko',
  'Brno',
  '602 00',
  '+420 000 018 552',
  'a@b.example',
  'Tel.',
  'Ad',
  '1,250',
  '',
);
const mark = fc.constantFrom(
  '',
  ' class="row"',
  ' class="tel x1"',
  ' itemprop="name"',
  ' href="/f"',
  ' data-next="/n"',
);
const tag = fc.constantFrom(
  'div',
  'p',
  'li',
  'ul',
  'span',
  'b',
  'a',
  'table',
  'tr',
  'td',
  'h3',
  'dl',
  'dt',
  'dd',
  'br',
  'script',
);

const html: fc.Arbitrary<string> = fc.letrec<{ node: string; list: string }>((tie) => ({
  node: fc.oneof(
    { depthSize: 'small', withCrossShrink: true },
    word,
    fc.tuple(tag, mark, tie('list')).map(([name, own, inner]) => `<${name}${own}>${inner}</${name}>`),
  ),
  list: fc.array(tie('node'), { maxLength: 6 }).map((parts) => parts.join(' ')),
})).list;

const elementsOf = (page: ReturnType<typeof parsePage>) =>
  page.nodes.filter(
    (node): node is PageElement => node.kind === 'element' && !['html', 'head'].includes(node.tag),
  );

describe('any page', () => {
  it('is numbered in its order, and every node lies within its parent', () => {
    fc.assert(
      fc.property(html, (text) => {
        const page = parsePage(text);
        page.nodes.forEach((node, i) => {
          expect(node.id).toBe(i);
          const parent = node.parent;
          if (parent) expect(parent.id < i && parent.last >= i).toBe(true);
        });
        expect(textOf(page.root)).not.toMatch(/ {2}|\n\n/);
      }),
    );
  });

  it('gives rows that hold what was pointed at, do not overlap, and are the same each time', () => {
    fc.assert(
      fc.property(html, fc.nat(), fc.nat(), (text, first, second) => {
        const page = parsePage(`<main>${text}</main>`);
        const elements = elementsOf(page);
        const pick = (n: number) => elements[n % elements.length]!;
        const { choices, best } = rowsAround(page, pick(first).id);
        const node = choices[best]?.node ?? pick(first).id;
        const examples: Example[] = [
          { page: 'p', node, as: 'row', fields: guessRow(page, node, 'http://x.example/') },
          { page: 'p', node: pick(second).id, as: second % 2 ? 'advert' : 'row', fields: [] },
        ];
        const pages = new Map([['p', page]]);
        const reading = readRows(page, learn(pages, examples));
        const extents = reading.rows.map((row) => extentOf(rowOf(page, page.nodes[row.node] as PageElement)));
        extents.forEach(([from, to], i) =>
          extents.slice(i + 1).forEach(([other, end]) => expect(to < other || end < from).toBe(true)),
        );
        for (const { values, sure } of reading.rows) {
          expect(sure).toBeLessThanOrEqual(1);
          // One value of each field, none of them empty, and no cell twice in one way.
          expect(new Set(values.map(({ field }) => field)).size).toBe(values.length);
          expect(values.every(({ value }) => value !== '')).toBe(true);
          const cells = values.map((value) => `${value.node} ${value.source} ${value.take}`);
          expect(new Set(cells).size).toBe(cells.length);
        }
        expect(reading.rows.some((row) => reading.adverts.includes(row.node))).toBe(false);
        expect(reading.perhaps.some((node) => reading.rows.some((row) => row.node === node))).toBe(false);
        expect(readRows(page, learn(pages, examples))).toEqual(reading);
      }),
      { numRuns: 300 },
    );
  });

  it('has cells whose words are those of their node', () => {
    fc.assert(
      fc.property(html, (text) => {
        const page = parsePage(text);
        for (const cell of cellsOf(rowOf(page, page.root))) {
          if (cell.source !== 'text') continue;
          expect(textOf(page.nodes[cell.node]!).replace(/\n/g, ' ')).toContain(cell.text);
        }
      }),
    );
  });

  it('has values that are parts of their cells, in each way that they may be taken', () => {
    const field = fc.constantFrom('name', 'phone', 'mail', 'web', 'street', 'postcode', 'town', 'own:Trade');
    const cell = fc
      .array(word, { minLength: 1, maxLength: 4 })
      .map((words) => words.filter(Boolean).join(', '));
    fc.assert(
      fc.property(field, cell, (name, text) => {
        for (const take of takesFor(name, text, null)) expect(text).toContain(taken(take, text));
        for (const part of text.split(', ')) {
          const [take] = takesFor(name, text, part);
          if (take !== undefined) expect(taken(take, text)).toBe(part);
        }
      }),
    );
  });
});
