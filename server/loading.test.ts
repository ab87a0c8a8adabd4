import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import ExcelJS from 'exceljs';
import iconv from 'iconv-lite';
import { parse } from 'csv-parse/sync';
import type { RowsAnswer, SourceView, UploadAnswer, WordedTally } from '../contract/responses.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** A file on its way through the API: recognised, loaded, counted, exported, removed; on real SQLite files with the real threads. */

const server = new TestServer();
beforeAll(() => server.start(1));
afterAll(() => server.stop());

function rowsText(sheet: ExcelJS.Worksheet): string {
  const cells: string[] = [];
  sheet.eachRow((row) => row.eachCell((cell) => cells.push(cell.text)));
  return cells.join('\n');
}

const FILE = [
  'Název firmy;IČO;Země;Obec;Počet zaměstnanců;Obrat (Kč);CZ-NACE;Ověřeno;Popis',
  'Žluťásek Okna s.r.o.;111;CZ;Brno;35;12.500.000,50;16.25;1.9.2026;"Okna',
  'a dveře; na míru"',
  '=SUM(1+1);112;CZ;Zlín;10-49;;25.51;15.8.2026;Lakovna',
  'Stará Huť a.s.;113;CZ;Tišnov;250+;900.000;25;1.1.2020;',
  'Chybný řádek;114;CZ;Brno;mnoho;1;16.25;1.9.2026;',
  ';115;CZ;Brno;5;1;16.25;1.9.2026;',
].join('\r\n');

describe('a file in Windows-1250 with semicolons, decimal commas and quoted line breaks', () => {
  let preview: UploadAnswer;

  test('is recognised', async () => {
    const response = await server.upload('firmy.csv', iconv.encode(FILE, 'windows-1250'));
    preview = response.body as UploadAnswer;
    expect(preview).toMatchObject({ encoding: 'windows-1250', delimiter: ';', hasHeader: true, kind: 'csv' });
    expect(preview.mapping).toMatchObject({ decimal: ',', currency: 'CZK', scheme: 'nace-2.1' });
    expect(preview.rows[0]![8]).toBe('Okna\r\na dveře; na míru');
  });

  test('lands whole or not at all where that is asked for', async () => {
    const { job } = await server.load(preview, { allOrNothing: true });
    expect(job.state).toBe('failed');
    expect(job.message).toContain('2 of 5 rows');
    expect(((await server.api.get('/api/sources')).body as { sources: SourceView[] }).sources).toEqual([]);
  });

  test('otherwise lands but for the bad rows, which are told by row, column, value and rule', async () => {
    const answer = await server.load(preview, { mapping: { ...preview.mapping, unreadable: 'refuse' } });
    expect(answer.job).toMatchObject({ state: 'done', result: { read: 5, refused: 2, left: 0 } });
    const refused = await server.api.get(`/api/jobs/${answer.job.id}/refusals`);
    // In the form in which they came, so that they can be mended and loaded.
    expect(parse(refused.text, { bom: true, delimiter: ';' })).toEqual([
      [...preview.header, 'row', 'why'],
      [
        ...['Chybný řádek', '114', 'CZ', 'Brno', 'mnoho', '1', '16.25', '1.9.2026', '', '5'],
        'Počet zaměstnanců: “mnoho”, expected a number with decimal comma',
      ],
      [
        ...['', '115', 'CZ', 'Brno', '5', '1', '16.25', '1.9.2026', '', '6'],
        'Název firmy: empty, expected a name; a row without one cannot be loaded',
      ],
    ]);
  });

  test('is counted, bands that straddle and codes too coarse as unknown', async () => {
    const lines = [
      { id: 'a', field: 'industry', test: { scheme: 'nace-2.1', any: ['25.51', '16'] } },
      { id: 'b', field: 'headcount', test: { from: 20, to: 249 }, unknown: 'keep' },
      { id: 'c', field: 'place', test: { near: { lat: 49.195, lon: 16.608, km: 60, label: 'Brno' } } },
    ];
    const { body } = (await server.api.post('/api/tally').send({ tape: tape(lines) })) as {
      body: WordedTally;
    };
    expect(body).toMatchObject({ universe: 3, tally: 1 });
    expect(
      body.lines.map(({ subtotal, cut, alone, without, unknown }) => [
        subtotal,
        cut,
        alone,
        without,
        unknown,
      ]),
    ).toEqual([
      [2, 1, 2, 1, 0],
      [2, 0, 2, 1, 0],
      [1, 1, 2, 2, 0],
    ]);
    expect(body.lines[2]!.words).toEqual({ label: 'Place', text: 'within 60 km of Brno' });
  });

  test('comes out of an export as it went in, cells that would run as formulas made safe', async () => {
    const started = await server.api.post('/api/exports').send({
      tape: tape([]),
      name: 'All',
      format: 'csv',
      columns: ['name', 'place', 'headcount', 'revenue', 'checked', 'description'],
      sort: [{ by: 'headcount' }],
      delimiter: ';',
      bom: true,
      currency: 'CZK',
    });
    await server.ended((started.body as { job: { id: string } }).job.id);
    const file = await server.api.get(`/api/exports/${(started.body as { export: string }).export}/file`);
    expect(file.text.charCodeAt(0)).toBe(0xfeff);
    expect(parse(file.text, { delimiter: ';', bom: true })).toEqual(
      [
        [
          'Company',
          'Town',
          'Region',
          'Country',
          'Headcount',
          'Headcount year',
          'Headcount basis',
          'Revenue, CZK',
          'Revenue year',
          'Revenue basis',
          'Last checked',
          'Description',
        ],
        [
          "'=SUM(1+1)",
          'Zlín',
          'Zlín',
          'Czechia',
          '10-49',
          '',
          'band',
          '',
          '',
          'unknown: not collected',
          '2026-08-15',
          'Lakovna',
        ],
        [
          'Žluťásek Okna s.r.o.',
          'Brno',
          'South Moravia',
          'Czechia',
          '35',
          '',
          'reported',
          '12500000.5',
          '2025',
          'reported',
          '2026-09-01',
          'Okna\r\na dveře; na míru',
        ],
        [
          'Stará Huť a.s.',
          'Tišnov',
          'South Moravia',
          'Czechia',
          '250+',
          '',
          'band',
          '900000',
          '2025',
          'reported',
          '2020-01-01',
          '',
        ],
      ].map((row) =>
        row.map((cell) =>
          cell === 'South Moravia'
            ? (expect.stringMatching(/South Morav|Jihomorav/) as unknown as string)
            : cell === 'Zlín'
              ? (expect.stringMatching(/Zl/) as unknown as string)
              : cell,
        ),
      ),
    );
  });

  test('a workbook has real numbers and dates, and says how it was made', async () => {
    const lines = [{ id: 'a', field: 'headcount', test: { from: 20 }, unknown: 'keep' }];
    const started = await server.api.post('/api/exports').send({
      tape: tape(lines),
      name: 'Big ones',
      format: 'xlsx',
      columns: ['name', 'headcount', 'checked'],
      sort: [{ by: 'checked', descending: true }],
    });
    await server.ended((started.body as { job: { id: string } }).job.id);
    const file = await server.api
      .get(`/api/exports/${(started.body as { export: string }).export}/file`)
      .buffer(true)
      .parse((response, done) => {
        const chunks: Buffer[] = [];
        response.on('data', (chunk: Buffer) => chunks.push(chunk));
        response.on('end', () => done(null, Buffer.concat(chunks)));
      });
    const book = new ExcelJS.Workbook();
    await book.xlsx.load(file.body as ArrayBuffer);
    const sheet = book.getWorksheet('Companies')!;
    expect(sheet.views[0]).toMatchObject({ state: 'frozen', ySplit: 1 });
    expect(sheet.getRow(2).getCell(1).value).toBe('Žluťásek Okna s.r.o.');
    expect(sheet.getRow(2).getCell(2).value).toBe(35);
    expect(sheet.getRow(2).getCell(5).value).toEqual(new Date('2026-09-01'));
    const made = book.getWorksheet('How this list was made')!;
    const text = rowsText(made);
    expect(text).toContain('Headcount 20 or more (unknown kept)');
    expect(text).toContain('Branch list');
  });

  test('joins with another source by registration number, and leaves again', async () => {
    const second = await server.upload(
      'more.csv',
      Buffer.from(
        'name,reg no,country,phone,employees\nZlutasek Okna,111,CZ,+420 000 111 222,≈40 (30-50)\nNew One,999,CZ,,3\n',
      ),
    );
    expect((await server.load(second.body as UploadAnswer, { name: 'Second' })).job.result).toMatchObject({
      read: 2,
      refused: 0,
      joined: 1,
    });
    const profile = await server.api.get('/api/companies/CZ-111');
    expect(profile.body).toMatchObject({
      row: {
        cells: {
          phone: '+420 000 111 222',
          headcount: { amount: 35, basis: 'reported' },
          source: ['Branch list', 'Second'],
        },
      },
    });
    const removed = await server.api.delete('/api/sources/branch-list');
    expect((await server.ended((removed.body as { job: { id: string } }).job.id)).job.state).toBe('done');
    expect((await server.api.post('/api/tally').send({ tape: tape([]) })).body).toMatchObject({
      universe: 2,
    });
    expect((await server.api.get('/api/companies/CZ-111')).body).toMatchObject({
      row: { cells: { name: 'Zlutasek Okna', headcount: { amount: 40, basis: 'estimate' } } },
    });
  });
});

test('a load that is cancelled leaves nothing', async () => {
  const before = (await server.api.get('/api/health')).body as { universe: number };
  const rows = Array.from({ length: 15_000 }, (_, i) => `Firm ${i},CZ,Brno,${i}`).join('\n');
  const preview = (await server.upload('many.csv', Buffer.from(`name,country,town,employees\n${rows}`)))
    .body as UploadAnswer;
  const { upload, encoding, delimiter, hasHeader, mapping } = preview;
  const started = await server.api
    .post('/api/sources')
    .send({ upload, name: 'Many', asOf: '2026-09-30', read: { encoding, delimiter, hasHeader }, mapping });
  const { id } = (started.body as { job: { id: string } }).job;
  expect((await server.api.post(`/api/jobs/${id}/cancel`)).status).toBe(200);
  expect((await server.ended(id)).job).toMatchObject({ state: 'cancelled' });
  expect((await server.api.get('/api/health')).body).toMatchObject({ universe: before.universe });
  expect((await server.api.post(`/api/jobs/${id}/cancel`)).body).toMatchObject({
    error: { code: 'not-running' },
  });
});

test('a workbook loads like a CSV, its numbers and dates as they are', async () => {
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet('Firmen');
  sheet.addRow(['Firmenname', 'Land', 'Ort', 'Mitarbeiter', 'Umsatz (Mio EUR)', 'WZ', 'Geprüft am']);
  sheet.addRow(['Arbeitsbuch GmbH', 'DE', 'Köln', 1234.0, 12.5, '25.51', new Date('2026-08-01')]);
  sheet.addRow(['Zweite GmbH', 'Deutschland', 'Bonn', '10 bis 49', null, '16.23', null]);
  const preview = (await server.upload('firmen.xlsx', Buffer.from(await book.xlsx.writeBuffer())))
    .body as UploadAnswer;
  expect(preview).toMatchObject({
    kind: 'xlsx',
    mapping: {
      columns: ['name', 'country', 'town', 'headcount', 'revenue', 'main-code', 'checked'],
      revenueUnit: 1_000_000,
      currency: 'EUR',
    },
  });
  const { job } = await server.load(preview, { name: 'Workbook' });
  expect(job).toMatchObject({ state: 'done', result: { read: 2, refused: 0 } });
  const { source } = job.result as { source: string };
  const lines = [{ id: 'a', field: 'source', test: { any: [source] } }];
  const sort = [{ by: 'name', descending: false }];
  const found = await server.api.post('/api/rows').send({ tape: tape(lines), columns: ['name'], sort });
  const { key } = (found.body as RowsAnswer).rows[0]!;
  expect((await server.api.get(`/api/companies/${key}`)).body).toMatchObject({
    row: {
      cells: {
        name: 'Arbeitsbuch GmbH',
        headcount: { amount: 1234, basis: 'reported' },
        revenue: { amount: 12_500_000, currency: 'EUR' },
        checked: '2026-08-01',
        place: { town: 'Köln', country: 'DE', townKey: 'Köln, DE-NW' },
      },
    },
  });
});

test('two loads at once are refused; a wrong mapping is told by column', async () => {
  const preview = (await server.upload('a.csv', Buffer.from('name,country\nA,CZ\nB,CZ\n')))
    .body as UploadAnswer;
  const { upload, encoding, delimiter, hasHeader, mapping } = preview;
  const request = (columns: (string | null)[]) =>
    server.api.post('/api/sources').send({
      upload,
      name: 'A',
      asOf: '2026-09-30',
      read: { encoding, delimiter, hasHeader },
      mapping: { ...mapping, columns },
    });
  expect((await request([null, 'country'])).body).toMatchObject({ error: { code: 'no-name' } });
  expect((await request(['name', 'name'])).body).toMatchObject({
    error: { code: 'column-twice', field: 'mapping.columns[1]' },
  });
  expect((await request(['name', 'mood'])).body).toMatchObject({
    error: { code: 'unknown-column', value: 'mood' },
  });
  expect((await request(['name'])).body).toMatchObject({ error: { code: 'wrong-mapping' } });
  const first = await request(['name', 'country']);
  expect(first.status).toBe(202);
  const second = await request(['name', 'country']);
  expect([second.status, second.body]).toMatchObject([409, { error: { code: 'busy' } }]);
  await server.ended((first.body as { job: { id: string } }).job.id);
  expect((await request(['name', 'country'])).body).toMatchObject({ error: { code: 'unknown-upload' } });
});

test('a tape is stored under one id and found by it; settings stay', async () => {
  const lines = [{ id: 'a', field: 'headcount', test: { from: 20 } }];
  const ids = await Promise.all(
    [1, 2].map(
      async () =>
        ((await server.api.post('/api/addresses').send({ tape: tape(lines) })).body as { id: string }).id,
    ),
  );
  expect(ids[0]).toBe(ids[1]);
  expect((await server.api.get(`/api/addresses/${ids[0]}`)).body).toEqual({ tape: tape(lines) });
  expect((await server.api.get('/api/addresses/none')).status).toBe(404);
  const settings = {
    currency: 'CZK',
    distance: 'miles',
    numbers: 'point',
    dates: 'iso',
    theme: 'night',
    paper: 'Letter',
    keys: false,
    person: 'Hana',
    asOf: '2026-01-31',
  };
  expect((await server.api.put('/api/settings').send(settings)).body).toEqual(settings);
  expect((await server.api.get('/api/settings')).body).toEqual(settings);
  expect((await server.api.get('/api/health')).body).toMatchObject({ asOf: '2026-01-31' });
});

test('an export is listed, and removed with its file', async () => {
  const started = (
    await server.api
      .post('/api/exports')
      .send({ tape: tape([]), name: 'To go', format: 'csv', columns: ['name'] })
  ).body as { export: string; job: { id: string } };
  await server.ended(started.job.id);
  const listed = (
    (await server.api.get('/api/exports')).body as {
      exports: { id: string; count: number; wording: string[] }[];
    }
  ).exports;
  const health = (await server.api.get('/api/health')).body as { universe: number };
  expect(listed.find(({ id }) => id === started.export)).toMatchObject({
    count: health.universe,
    wording: [],
  });
  expect((await server.api.delete(`/api/exports/${started.export}`)).status).toBe(204);
  expect((await server.api.get(`/api/exports/${started.export}/file`)).status).toBe(404);
  const wrong = await server.api
    .post('/api/exports')
    .send({ tape: tape([]), name: 'No', format: 'csv', columns: ['mood'] });
  expect(wrong.body).toMatchObject({ error: { code: 'unknown-column', value: 'mood' } });
  const nobody = await server.api
    .post('/api/exports')
    .send({ tape: tape([]), name: 'No', format: 'csv', columns: ['name'], keys: ['nobody'] });
  expect(nobody.body).toMatchObject({ error: { code: 'unknown-key', value: 'nobody' } });
});
