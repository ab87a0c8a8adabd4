import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { FileReadingAnswer } from '../contract/readings.ts';
import type { RowsAnswer, UploadAnswer } from '../contract/responses.ts';
import type { Mapping } from '../core/records/mapping.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** A file of somebody else's through the API: read before it is loaded, answered, refused rows mended, loaded anew. */

const server = new TestServer();
beforeAll(() => server.start(3));
afterAll(() => server.stop());

const uploaded = async (name: string, lines: string[]) =>
  (await server.upload(name, Buffer.from(lines.join('\n')))).body as UploadAnswer;
const readOf = ({ encoding, delimiter, hasHeader }: UploadAnswer) => ({ encoding, delimiter, hasHeader });
const reading = async (file: UploadAnswer, mapping: Mapping): Promise<FileReadingAnswer> => {
  const answer = await server.api
    .post(`/api/uploads/${file.upload}/readings`)
    .send({ read: readOf(file), mapping });
  const { job } = await server.ended((answer.body as { job: { id: string } }).job.id);
  expect(job).toMatchObject({ kind: 'read', state: 'done' });
  return job.result as unknown as FileReadingAnswer;
};
const companies = async (columns: string[]) => {
  const sort = [{ by: 'name', descending: false }];
  const answer = await server.api.post('/api/rows').send({ tape: tape([]), columns, sort });
  return (answer.body as RowsAnswer).rows;
};

const FILE = [
  'Suppliers 2026;;;;',
  'Company;Country;Employees;Revenue (EUR m);Website',
  'Alderway Coatings;UK;1.250;2,5;alderway.example',
  'Brackfold;Atlantis;viele;1,25;brackfold.example',
  'Corbin Works;CZ;10-49;k.A.;corbin.example',
  'Corbin Works;CZ;11;3;http://www.corbin.example/?utm_source=fair',
  ';CZ;1;1;',
  'Total;;1.300;8;',
];

describe('a file is read as it would be loaded', () => {
  let file: UploadAnswer;

  test('its rows, less what is no data, refused and twice, are its records', async () => {
    file = await uploaded('suppliers.csv', FILE);
    expect(file).toMatchObject({ skip: 1, headerRows: 1, above: [['Suppliers 2026', '', '', '', '']] });
    const read = await reading(file, file.mapping);
    expect(read).toMatchObject({ rows: 6, notData: 1, refused: 1, twice: 1, records: 3 });
    expect(read.notDataRows).toEqual([{ row: 8, why: 'total', text: 'Total · 1.300 · 8' }]);
    expect(read.refusals).toMatchObject([{ row: 7, column: 'Company', value: '' }]);
    expect(
      read.columns.map(({ understood, empty, notUnderstood }) => [understood, empty, notUnderstood]),
    ).toEqual([
      [4, 1, 0],
      [4, 0, 1],
      [4, 0, 1],
      [4, 1, 0],
      [4, 1, 0],
    ]);
    expect(read.columns[2]!.values).toEqual([
      { value: 'viele', count: 1, rule: 'a number with decimal comma' },
    ]);
    expect(read.columns[3]!.emptyWords).toEqual([{ word: 'k.A.', count: 1 }]);
    expect(read.understood.slice(0, 2)).toEqual([
      ['Alderway Coatings', 'GB', '1,250', '2,500,000', 'alderway.example'],
      ['Brackfold', '', '', '1,250,000', 'brackfold.example'],
    ]);
    expect(read.came[1]).toEqual(['Brackfold', 'Atlantis', 'viele', '1,25', 'brackfold.example']);
  });

  test('answers say what a cell means, leave it empty, or refuse its rows', async () => {
    const answers: Mapping['answers'] = [
      null,
      { Atlantis: 'Portugal' },
      { viele: '250+' },
      { '3': null },
      null,
    ];
    const read = await reading(file, { ...file.mapping, answers });
    expect(read).toMatchObject({ refused: 2, twice: 0, records: 3 });
    expect(read.understood[1]).toEqual(['Brackfold', 'PT', '250+', '1,250,000', 'brackfold.example']);
    const { job } = await server.load(file, { mapping: { ...file.mapping, answers } });
    expect(job).toMatchObject({ state: 'done', result: { read: 5, refused: 2, left: 0, notData: 1 } });
    expect((await companies(['name', 'headcount'])).map(({ cells }) => cells.name)).toEqual([
      ...['Alderway Coatings', 'Brackfold', 'Corbin Works'],
    ]);
  });

  test('the next file with the same headings can be read so again, answers and all', async () => {
    const next = await uploaded('suppliers-october.csv', FILE);
    expect(next.remembered).toMatchObject([
      {
        name: 'Branch list',
        subject: 'companies',
        mapping: { answers: [null, { Atlantis: 'Portugal' }, { viele: '250+' }, { '3': null }, null] },
      },
    ]);
    expect((await uploaded('other.csv', ['Company,Town', 'A Works,Brno'])).remembered).toEqual([]);
  });

  test('what nobody can see has to be said before it is loaded', async () => {
    const unclear = await uploaded('unclear.csv', ['Company;Revenue', 'Dunlow;12.500', 'Elswick;8.200']);
    expect(unclear.mapping.undecided).toEqual([{ column: 1, what: 'decimal' }]);
    expect(await reading(unclear, unclear.mapping)).toMatchObject({ records: 2 });
    const send = (mapping: Mapping) =>
      server.api
        .post('/api/sources')
        .send({ upload: unclear.upload, name: 'U', asOf: '2026-09-30', read: readOf(unclear), mapping });
    const refused = await send(unclear.mapping);
    expect([refused.status, refused.body]).toMatchObject([
      400,
      { error: { code: 'undecided', field: 'mapping.undecided[0]', value: 'decimal' } },
    ]);
    const styles = [{}, { ...unclear.mapping.styles![1], decimal: ',' as const }];
    const said = await send({ ...unclear.mapping, styles, undecided: [] });
    expect(said.status).toBe(202);
    await server.ended((said.body as { job: { id: string } }).job.id);
    const rows = await companies(['name', 'revenue']);
    expect(rows.find(({ cells }) => cells.name === 'Dunlow')!.cells.revenue).toMatchObject({
      amount: 12_500,
    });
  });

  test('wrong answers, styles and parts are refused by name', async () => {
    const send = (mapping: object, read: object = readOf(file)) =>
      server.api.post(`/api/uploads/${file.upload}/readings`).send({ read, mapping });
    const again = await uploaded('again.csv', FILE);
    file = again;
    for (const [mapping, field] of [
      [{ ...file.mapping, answers: [{ x: 5 }] }, 'mapping.answers'],
      [{ ...file.mapping, styles: [{ unit: 7 }] }, 'mapping.styles.0.unit'],
      [{ ...file.mapping, unreadable: 'guess' }, 'mapping.unreadable'],
    ] as const) {
      const answer = await send(mapping);
      expect([answer.status, answer.body]).toMatchObject([400, { error: { field } }]);
    }
    expect((await send(file.mapping, { ...readOf(file), skip: -1 })).status).toBe(400);
  });
});

test('refused rows come back as they came, and load once they are mended', async () => {
  const file = await uploaded('bad.csv', [
    'Company,Registration,Country',
    ',77000011,CZ',
    'Fenwright,77000022,CZ',
  ]);
  const { job } = await server.load(file, { name: 'Bad' });
  expect(job.result).toMatchObject({ read: 2, refused: 1 });
  const { text } = await server.api.get(`/api/jobs/${job.id}/refusals`);
  expect(text.split('\n').slice(0, 2)).toEqual([
    '\ufeffCompany,Registration,Country,row,why',
    ',77000011,CZ,2,"Company: empty, expected a name; a row without one cannot be loaded"',
  ]);
  const mended = await uploaded('mended.csv', text.replace('\n,', '\nGreyholt,').trimEnd().split('\n'));
  expect(mended.mapping.columns.slice(0, 3)).toEqual(['name', 'registration', 'country']);
  expect((await server.load(mended, { name: 'Mended' })).job.result).toMatchObject({ read: 1, refused: 0 });
  expect((await companies(['name'])).map(({ key }) => key)).toContain('CZ-77000011');
});

test('a note stays with its company when its file is loaded anew with rows put in, sorted and brought up to date', async () => {
  const rows = (order: number[], heads: number) => [
    'Company,Town,Phone,Employees',
    ...order.map((n) => `Hatherley ${n},Brno,+420 777 000 00${n},${heads + n}`),
  ];
  const first = await server.load(await uploaded('h.csv', rows([1, 2, 3], 10)), { name: 'Hatherleys' });
  const keyOf = async (name: string) =>
    (await companies(['name'])).find(({ cells }) => cells.name === name)?.key;
  const key = await keyOf('Hatherley 2');
  await server.api.put(`/api/notes/companies/${key}`).send({ text: 'asked for samples' });
  const { source } = first.job.result as { source: string };
  const removed = await server.api.delete(`/api/sources/${source}`);
  await server.ended((removed.body as { job: { id: string } }).job.id);
  expect(await keyOf('Hatherley 2')).toBeUndefined();
  await server.load(await uploaded('h.csv', rows([4, 3, 2, 1], 20)), { name: 'Hatherleys' });
  expect(await keyOf('Hatherley 2')).toBe(key);
  expect((await server.api.get(`/api/notes/companies/${key}`)).body).toMatchObject({
    text: 'asked for samples',
  });
  for (const n of [1, 3, 4])
    expect(
      (await server.api.get(`/api/notes/companies/${await keyOf(`Hatherley ${n}`)}`)).body,
    ).not.toMatchObject({
      text: 'asked for samples',
    });
});
