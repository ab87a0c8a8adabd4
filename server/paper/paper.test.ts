import { afterAll, describe, expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fontFor } from './fonts.ts';
import { Paper } from './paper.ts';

const dir = mkdtempSync(join(tmpdir(), 'just-tally-paper-'));
afterAll(() => rmSync(dir, { recursive: true }));

const NAMES = [
  'Łódź & Brněnská Größe Ltd',
  'Αφοί Παπαδόπουλοι Α.Ε.',
  'Строител Пловдив ООД',
  'מפעלי עץ הצפון בע״מ',
  'مصنع الأثاث الشمالي',
];

/** What a PDF says, and the fonts that it is set in. */
async function read(paper: Paper): Promise<{ text: string; fonts: string }> {
  const path = join(dir, 'paper.pdf');
  writeFileSync(path, await paper.done());
  const run = (program: string, ...args: string[]) => spawnSync(program, args, { encoding: 'utf8' }).stdout;
  return { text: run('pdftotext', '-layout', path, '-').normalize('NFKC'), fonts: run('pdffonts', path) };
}
const made = (title: string) => new Paper({ title, under: '', foot: 'Register, 2026-09-30', size: 'A4' });
/** Letters of a text, whatever their order: readers of PDFs turn what runs from the right as they see fit. */
const letters = (text: string) => [...text.normalize('NFKC').replace(/[^\p{L}]/gu, '')].sort().join('');

describe('names on paper', () => {
  test('are set in a font that has their letters, in title, facts, tables and bars', async () => {
    for (const name of NAMES) {
      const paper = made(name);
      paper.heading(name, name);
      paper.fact('Name', name);
      paper.table([{ heading: 'Company', width: 1 }], [[name]]);
      paper.bars([{ name, length: 0.5, shown: '5' }]);
      const { text } = await read(paper);
      // Of each letter as many as in five times the name: those of the note beside a heading may be cut.
      for (const letter of new Set(letters(name))) {
        const count = (all: string) => [...letters(all)].filter((one) => one === letter).length;
        expect([name, letter, count(text) >= 5 * count(name)]).toEqual([name, letter, true]);
      }
      expect(text).not.toContain('\u0000');
    }
  });
  test('keep the faces of the page where their letters are in them', () => {
    expect(fontFor('slab', 'Łódź Größe')).toBe('slab');
    expect(fontFor('mono', '1,234')).toBe('mono');
    expect([fontFor('sans', 'Α.Ε.'), fontFor('slab', 'ООД')]).toEqual(['wide', 'wideBold']);
    expect([fontFor('bold', 'עץ 12'), fontFor('sans', 'مصنع')]).toEqual(['hebrewBold', 'arabic']);
  });
  test('take along only the fonts that they need', async () => {
    const plain = await read(made('Coaters'));
    expect(plain.fonts).toMatch(/ZillaSlab/);
    expect(plain.fonts).not.toMatch(/Noto/);
    expect((await read(made('Строител'))).fonts).toMatch(/NotoSans/);
  });
});

test('a table goes on over pages with its heading on each, and every page is numbered', async () => {
  const paper = made('Long');
  paper.table(
    [
      { heading: 'Company', width: 3 },
      { heading: 'Headcount', width: 1, right: true, mono: true },
    ],
    Array.from({ length: 200 }, (_, i) => [`Company ${i} ${'x'.repeat(300)}`, String(i)]),
  );
  const { text } = await read(paper);
  const pages = text.split('\f').filter((page) => page.trim() !== '');
  expect(pages.length).toBeGreaterThan(2);
  for (const [at, page] of pages.entries()) {
    expect(page).toMatch(/Company +Headcount/);
    expect(page).toContain(`page ${at + 1} of ${pages.length}`);
    expect(page).toContain('Register, 2026-09-30');
  }
  // A cell is one row, cut with dots.
  expect(text).toMatch(/^ *Company 199 x+\.\.\. +199$/m);
});
