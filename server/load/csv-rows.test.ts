import { afterAll, expect, test } from '@jest/globals';
import { parse } from 'csv-parse/sync';
import fc from 'fast-check';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { csvBlocks } from './csv-rows.ts';

const dir = mkdtempSync(join(tmpdir(), 'just-tally-csv-'));
afterAll(() => rmSync(dir, { recursive: true }));

async function rowsOf(text: string, delimiter = ','): Promise<string[][]> {
  const path = join(dir, 'file.csv');
  writeFileSync(path, text);
  const rows: string[][] = [];
  for await (const block of csvBlocks(path, { encoding: 'utf-8', delimiter }, () => {})) rows.push(...block);
  return rows;
}

/** What the patient reader alone makes of a text; null where it cannot read it. */
function patient(text: string, delimiter: string): string[][] | null {
  try {
    return parse(text, {
      delimiter,
      bom: true,
      relax_column_count: true,
      relax_quotes: true,
      record_delimiter: ['\r\n', '\n', '\r'],
    });
  } catch {
    return null;
  }
}

test('both readers make the same rows of any text, however it is written', async () => {
  const piece = fc.constantFrom(
    'a',
    'é',
    '"',
    '"',
    '""',
    ',',
    ';',
    '\n',
    '\r\n',
    '\r',
    ' ',
    '"a" ',
    '"b"\n',
    'Foo',
  );
  const text = fc.array(piece, { maxLength: 40 }).map((pieces) => pieces.join(''));
  await fc.assert(
    fc.asyncProperty(text, fc.constantFrom(',', ';'), async (written, delimiter) => {
      const expected = patient(written, delimiter);
      if (expected === null) await expect(rowsOf(written, delimiter)).rejects.toThrow();
      else expect(await rowsOf(written, delimiter)).toEqual(expected);
    }),
    { numRuns: 400 },
  );
});

test('a row stands in one piece wherever the file is cut in reading', async () => {
  const cell = 'x'.repeat(997);
  const rows = Array.from({ length: 1200 }, (_, i) => [`${i}`, `${cell}, "${i}"\r\nsecond line`, 'é']);
  const text = rows.map(([a, b, c]) => `${a},"${b!.replaceAll('"', '""')}",${c}\r\n`).join('');
  expect(await rowsOf(text)).toEqual(rows);
});

test('a row that is not written by the book is read as it stands, and so are those behind it', async () => {
  const plain = Array.from({ length: 9000 }, (_, i) => `Firm ${i},"Ash, ${i}",Brno`).join('\n');
  const rows = await rowsOf(`${plain}\n"Ash" Ltd,5" pipe,"Brno"\nLast,"x, y",z`);
  expect(rows).toHaveLength(9002);
  expect(rows[8999]).toEqual(['Firm 8999', 'Ash, 8999', 'Brno']);
  expect(rows.slice(9000)).toEqual([
    ['"Ash" Ltd', '5" pipe', 'Brno'],
    ['Last', 'x, y', 'z'],
  ]);
});

test('a quotation mark that is never closed is told with its line', async () => {
  const plain = Array.from({ length: 20_000 }, (_, i) => `Firm ${i},"Ash, ${i}",Brno`).join('\n');
  await expect(rowsOf(`${plain}\n"open,Brno\nFirm,x`)).rejects.toMatchObject({
    code: 'broken-csv',
    message: 'A quotation mark is opened and never closed (the reader got to line 20002).',
  });
});

test('a row longer than 4 MB is refused', async () => {
  await expect(rowsOf(`a,b\n"${'x'.repeat(5 * 2 ** 20)}`)).rejects.toMatchObject({
    code: 'broken-csv',
    message: expect.stringContaining('One row is larger than 4 MB'),
  });
});

test.each(['sep=;\r\na;b', 'sep=;\na;b'])(
  '%j: a line that names the separator is a blank row',
  async (text) => {
    expect(await rowsOf(text, ';')).toEqual([[], ['a', 'b']]);
  },
);
