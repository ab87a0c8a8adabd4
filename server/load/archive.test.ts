import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import ExcelJS from 'exceljs';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { previewFile } from './read-file.ts';
import { checkArchive } from './archive.ts';
import { readInThread } from './reading-thread.ts';

const dir = mkdtempSync(join(tmpdir(), 'just-tally-archive-'));
afterAll(() => rmSync(dir, { recursive: true }));
const file = (name: string, content: string | Uint8Array) => {
  const path = join(dir, name);
  writeFileSync(path, content);
  return path;
};
let whole: Buffer;
beforeAll(async () => {
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet('Companies');
  sheet.addRow(['name', 'employees']);
  for (let i = 0; i < 50; i++) sheet.addRow([`Firm ${i}`, i]);
  whole = Buffer.from(await book.xlsx.writeBuffer());
});

describe('a workbook', () => {
  test('that is whole is read', async () => {
    await expect(checkArchive(file('whole.xlsx', whole))).resolves.toBeUndefined();
    expect((await previewFile(join(dir, 'whole.xlsx'))).header).toEqual(['name', 'employees']);
  });
  test('whose content has another checksum than its directory says is refused as damaged', async () => {
    // The checksum of the first file of the directory, with one bit turned.
    const damaged = Buffer.from(whole);
    damaged[damaged.indexOf('PK\u0001\u0002', 0, 'latin1') + 16]! ^= 1;
    await expect(checkArchive(file('damaged.xlsx', damaged))).rejects.toMatchObject({
      code: 'broken-xlsx',
      message: expect.stringContaining('checksum'),
    });
  });
  test('that is cut off, or locked by a password, is said to be that', async () => {
    await expect(checkArchive(file('cut.xlsx', whole.subarray(0, 900)))).rejects.toMatchObject({
      code: 'broken-xlsx',
    });
    const locked = Buffer.from(whole);
    locked[locked.indexOf('PK\u0001\u0002', 0, 'latin1') + 8]! |= 1;
    await expect(checkArchive(file('locked.xlsx', locked))).rejects.toMatchObject({ code: 'locked-file' });
  });
});

describe('a text file', () => {
  const preview = (name: string, content: string) => previewFile(file(name, content));
  test('that names its separator in a first line has that one, and the line is no row', async () => {
    const { header, rows, delimiter } = await preview('sep.csv', 'sep=;\r\nname;a,b\r\nFirm;1,2\r\n');
    expect([delimiter, header, rows]).toEqual([';', ['name', 'a,b'], [['Firm', '1,2']]]);
  });
  test('with line ends of several kinds has a row at each', async () => {
    const { rows } = await preview('ends.csv', 'name,n\r\nA,1\nB,2\rC,3\r\n');
    expect(rows.map(([name]) => name)).toEqual(['A', 'B', 'C']);
  });
  test('of more columns than a sheet can have is refused by their number', async () => {
    await expect(preview('wide.csv', `${'a,'.repeat(20_000)}b\n`)).rejects.toMatchObject({
      code: 'too-many-columns',
      message: expect.stringContaining('20,001 columns'),
    });
  });
});

describe('reading in a thread', () => {
  const defaults = { currency: 'EUR', year: 2025 };
  test('says what the columns may mean', async () => {
    const read = await readInThread({
      of: 'preview',
      path: file('firms.csv', 'Firma;Mitarbeiter\nDubina;12\n'),
      reading: {},
      defaults,
    });
    expect(read.mapping.columns).toEqual(['name', 'headcount']);
    expect(read.subject).toBe('companies');
  });
  test('says of a broken file what is broken, as reading says it', async () => {
    const path = file('empty.csv', '');
    await expect(readInThread({ of: 'preview', path, reading: {}, defaults })).rejects.toMatchObject({
      ...{ code: 'empty-file', field: 'file' },
    });
    const sheet = file('nobody.csv', 'shoe size,colour\n42,red\n');
    await expect(readInThread({ of: 'contacts', path: sheet })).rejects.toMatchObject({
      code: 'no-contacts',
    });
  });
});
