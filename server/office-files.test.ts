import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { RowsAnswer, UploadAnswer } from '../contract/responses.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** Workbooks as an office program writes them, from a sheet whose cells it has made numbers, dates and texts of. */

const server = new TestServer();
const dir = mkdtempSync(join(tmpdir(), 'just-tally-office-'));

/** Opened as German: decimal commas and days before months become figures and dates. */
const SHEET = [
  'Firmen im Raum Chemnitz;;;;;;;',
  ';;;;;;;',
  'Firma;Registernummer;Land;Ort;Mitarbeiter;Umsatz Tsd. €;Gegründet;Zuletzt geprüft',
  'Lackwerk Öderan GmbH;HRB 12345;DE;Chemnitz;48;1.250,5;1994;30.09.2026',
  'Müller & Söhne "Süd" KG;HRB 222;DE;Köln;10-49;;1956;01.02.2026',
  'Tarnfeld Möbel GmbH;HRB 333;DE;Aachen;7;0,5;;',
  'Summe;;;;104;1.251;;',
].join('\r\n');

beforeAll(async () => {
  await server.start(5);
  writeFileSync(join(dir, 'firmen.csv'), SHEET);
}, 60_000);
afterAll(async () => {
  await server.stop();
  rmSync(dir, { recursive: true });
});

/** The sheet as LibreOffice saves it. Its filter: semicolon, quotes, UTF-8, from row 1, German, cells made figures and dates. */
function written(format: 'xlsx' | 'ods' | 'xls'): Buffer {
  const made = spawnSync(
    'soffice',
    [
      ...['--headless', `-env:UserInstallation=file://${join(dir, 'profile')}`],
      '--infilter=Text - txt - csv (StarCalc):59,34,76,1,,1031,false,true',
      ...['--convert-to', format, '--outdir', dir, join(dir, 'firmen.csv')],
    ],
    { encoding: 'utf8', timeout: 120_000 },
  );
  expect([made.status, made.stderr.includes('Error:')]).toEqual([0, false]);
  return readFileSync(join(dir, `firmen.${format}`));
}

describe.each(['xlsx', 'ods'] as const)('LibreOffice’s %s', (format) => {
  test('is read as it was typed, below its title and above its total', async () => {
    const file = (await server.upload(`firmen.${format}`, written(format))).body as UploadAnswer;
    expect(file).toMatchObject({ kind: format, skip: 2, headerRows: 1, subject: 'companies' });
    expect(file.mapping.columns).toEqual([
      ...['name', 'registration', 'country', 'town', 'headcount', 'revenue', 'founded', 'checked'],
    ]);
    const { skip, headerRows, sheet } = file;
    const { job } = await server.load(file, {
      name: `As ${format}`,
      read: { hasHeader: true, skip, headerRows, sheet },
    });
    expect(job).toMatchObject({ state: 'done', result: { read: 3, refused: 0, left: 0, notData: 1 } });
    const { body } = (await server.api.post('/api/rows').send({
      tape: tape([{ id: 's', field: 'source', test: { any: [`as-${format}`] } }]),
      columns: ['name', 'registration', 'headcount', 'revenue', 'founded', 'checked'],
      sort: [{ by: 'founded', descending: true }],
    })) as { body: RowsAnswer };
    const exact = (amount: number) => ({ basis: 'reported', amount, low: amount, high: amount });
    expect(body.rows.map(({ cells }) => cells)).toMatchObject([
      {
        ...{ name: 'Lackwerk Öderan GmbH', registration: 'HRB 12345', founded: 1994, checked: '2026-09-30' },
        ...{ headcount: exact(48), revenue: { ...exact(1_250_500), currency: 'EUR' } },
      },
      {
        ...{ name: 'Müller & Söhne "Süd" KG', founded: 1956, checked: '2026-02-01', revenue: null },
        headcount: { basis: 'band', low: 10, high: 49 },
      },
      { name: 'Tarnfeld Möbel GmbH', headcount: exact(7), revenue: exact(500), founded: null, checked: null },
    ]);
    await server.ended(
      ((await server.api.delete(`/api/sources/as-${format}`)).body as { job: { id: string } }).job.id,
    );
  });
});

test('LibreOffice’s old XLS is refused by name, with what to do', async () => {
  const refused = await server.upload('firmen.xls', written('xls'));
  expect(refused.status).toBe(400);
  expect((refused.body as { error: { message: string } }).error.message).toMatch(
    /old XLS workbook.*save it as XLSX, ODS or CSV/,
  );
});
