import { afterAll, expect, test } from '@jest/globals';
import ExcelJS from 'exceljs';
import iconv from 'iconv-lite';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileRows, previewFile } from './read-file.ts';

const dir = mkdtempSync(join(tmpdir(), 'just-tally-files-'));
afterAll(() => rmSync(dir, { recursive: true }));

const rows = [
  ['Name', 'Town', 'Employees'],
  ['Größe & Söhne', 'Köln', '12'],
  ['Says “quote”, and\nbreaks', 'Nîmes', '10-49'],
  ['Straße GmbH', 'Gießen', '7'],
];
const csv = (delimiter: string) =>
  rows.map((row) => row.map((cell) => (/[,;\n]/.test(cell) ? `"${cell}"` : cell)).join(delimiter)).join('\n');

test.each([
  ['utf-8', ',', iconv.encode(csv(','), 'utf-8')],
  ['utf-8', '\t', iconv.encode(csv('\t'), 'utf-8', { addBOM: true })],
  ['utf-16le', ';', iconv.encode(csv(';'), 'utf-16le', { addBOM: true })],
  ['utf-16be', '|', iconv.encode(csv('|'), 'utf-16be', { addBOM: true })],
  ['windows-1252', ';', iconv.encode(csv(';').replaceAll(/[“”]/g, "'"), 'windows-1252')],
])('a file in %s with %j between cells is recognised and read', async (encoding, delimiter, content) => {
  const path = join(dir, 'file.csv');
  writeFileSync(path, content);
  const preview = await previewFile(path);
  expect(preview).toMatchObject({ encoding, delimiter, hasHeader: true, header: rows[0] });
  const read: string[][] = [];
  for await (const block of fileRows(path, preview)) read.push(...block);
  expect(read).toEqual(
    rows.map((row) =>
      row.map((cell) => (encoding === 'windows-1252' ? cell.replaceAll(/[“”]/g, "'") : cell)),
    ),
  );
});

test('the first sheet of a workbook is read, dates and formulas as their values', async () => {
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet('Firms');
  sheet.addRow(['Name', 'Founded', 'Checked', 'Employees']);
  sheet.addRow(['Eins GmbH', 1994, new Date('2026-03-01'), { formula: '6*7', result: 42 }]);
  sheet.addRow([{ richText: [{ text: 'Zwei ' }, { text: 'AG' }] }, null, null, 7]);
  const path = join(dir, 'book.xlsx');
  await book.xlsx.writeFile(path);
  const preview = await previewFile(path);
  expect(preview).toMatchObject({ kind: 'xlsx', header: ['Name', 'Founded', 'Checked', 'Employees'] });
  expect(preview.rows).toEqual([
    ['Eins GmbH', '1994', '2026-03-01', '42'],
    ['Zwei AG', '', '', '7'],
  ]);
});
