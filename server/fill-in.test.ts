import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { parse } from 'csv-parse/sync';
import type { RowsAnswer, UploadAnswer } from '../contract/responses.ts';
import { openUniverse } from './db/open.ts';
import { noteJoin } from './tables/company-joins.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** A file from elsewhere, matched, fills in what it knows of the companies that it was matched with, or who works there. */

const server = new TestServer();

const UNIVERSE = [
  'Company,Registration number,Country,Town,Web',
  'Lakovna Veldín,25000777,CZ,Brno,lakovna-veldin.example',
  'Zarmysko Stolařství,25000118,CZ,Boskovice,zarmysko.example',
  // Nothing but its key tells this one apart in a file.
  'Tarnfeld Möbel,,DE,Aachen,tarnfeld.example',
];

const uploaded = async (name: string, lines: string[]) =>
  (await server.upload(name, Buffer.from(lines.join('\n')))).body as UploadAnswer;

/** An upload read as a file of some subject. */
const as = async (subject: string, { upload, encoding, delimiter }: UploadAnswer) => {
  const read = { encoding, delimiter, hasHeader: true, subject };
  const answer = await server.api.post(`/api/uploads/${upload}/preview`).send(read);
  expect([answer.status, answer.text]).toEqual([200, expect.any(String)]);
  return answer.body as UploadAnswer;
};

/** The file that fills in what a matched file knows, as it is loaded next. */
async function filledIn(lines: string[]): Promise<string[]> {
  const { upload, encoding, delimiter, hasHeader, mapping } = await as(
    'companies',
    await uploaded('enriched.csv', lines),
  );
  const begun = await server.api
    .post('/api/matches')
    .send({ upload, name: 'Enriched', read: { encoding, delimiter, hasHeader }, mapping });
  const { job } = await server.ended((begun.body as { job: { id: string } }).job.id);
  const made = await server.api
    .post(`/api/matches/${job.result!.match as string}/file`)
    .send({ part: 'fill', columns: [] });
  expect(made.status).toBe(200);
  return made.text.replace('\uFEFF', '').trim().split(/\r?\n/);
}

const shown = async (subject: string, columns: string[]) => {
  const answer = await server.api.post('/api/rows').send({ tape: { ...tape([]), subject }, columns });
  return (answer.body as RowsAnswer).rows;
};

beforeAll(async () => {
  await server.start(3);
  expect((await server.load(await uploaded('firms.csv', UNIVERSE))).job.state).toBe('done');
}, 60_000);
afterAll(() => server.stop());

test('values go to the companies found, by their keys, and no company comes of it', async () => {
  const lines = await filledIn([
    'Website,Mail,Employees,Remark',
    'https://www.lakovna-veldin.example/kontakt,info@lakovna-veldin.example,48,rings back',
    'tarnfeld.example,buero@tarnfeld.example,15,',
    'nobody-knows.example,info@nobody-knows.example,3,',
    'lakovna-veldin.example,info@lakovna-veldin.example,48,the same again',
  ]);
  const rows = parse<Record<string, string>>(lines.join('\n'), { columns: true });
  expect(rows.map((row) => row.Company)).toEqual(['Lakovna Veldín', 'Tarnfeld Möbel', 'Lakovna Veldín']);
  expect(rows[0]!['Company key']).toBe('CZ-25000777');
  expect(rows[0]!.Remark).toBe('rings back');

  const file = await uploaded('filled in.csv', lines);
  expect(file.mapping.columns).toContain('company-key');
  const { job } = await server.load(file, { name: 'Bought addresses' });
  expect(job).toMatchObject({ state: 'done', result: { read: 3, refused: 0 } });
  const after = await shown('companies', ['name', 'mail', 'headcount', 'source']);
  expect(after).toHaveLength(3);
  const of = (name: string) => after.find(({ cells }) => cells.name === name)!;
  expect(of('Lakovna Veldín')).toMatchObject({
    key: 'CZ-25000777',
    cells: { mail: 'info@lakovna-veldin.example' },
  });
  expect(of('Tarnfeld Möbel').cells.mail).toBe('buero@tarnfeld.example');
  expect(of('Tarnfeld Möbel').cells.source).toHaveLength(2);
  expect(of('Zarmysko Stolařství').cells.mail).toBeNull();
});

test('people go to the companies found, whatever else their file says of these', async () => {
  const lines = await filledIn([
    'First name,Last name,Job title,Employer,Website',
    'Hana,Vlková,Head of production,Tarnfeld Möbel,tarnfeld.example',
    'Petr,Zeman,Owner,Lakovna Veldín,lakovna-veldin.example',
  ]);
  const people = await as('people', await uploaded('people.csv', lines));
  const { job } = await server.load(people, {
    name: 'Bought people',
    read: { encoding: people.encoding, delimiter: people.delimiter, hasHeader: true, subject: 'people' },
  });
  expect(job).toMatchObject({
    state: 'done',
    result: { found: { key: 2, number: 0, domain: 0, name: 0, not: 0 } },
  });
  const found = await shown('people', ['name', 'company']);
  expect(found.map(({ cells, company }) => [cells.name, company]).sort()).toEqual([
    ['Hana Vlková', expect.stringMatching(/^x-/)],
    ['Petr Zeman', 'CZ-25000777'],
  ]);
});

test('a key that nobody has here says nothing', async () => {
  const file = await uploaded('elsewhere.csv', [
    'Company,Registration number,Country,Company key',
    'Quelbeck Lackierungen,30000001,DE,x-fromelsewhere',
    'Othermark Bau,,DE,CZ-25000118 ',
  ]);
  const { job } = await server.load(file, { name: 'From elsewhere' });
  expect(job.state).toBe('done');
  const keys = (await shown('companies', ['name'])).map(({ key }) => key);
  expect(keys).toContain('DE-30000001');
  expect(keys).not.toContain('x-fromelsewhere');
  expect(keys).toHaveLength(4);
});

test('a row goes to what its company was joined to, and one whose company is gone is left out and counted', async () => {
  const gone = await server.load(
    await uploaded('gone.csv', [
      'Company,Registration number,Country,Web',
      'Othermark Okna,30000007,DE,othermark.example',
      'Halvek Dveře,25000999,CZ,halvek.example',
    ]),
    { name: 'Gone' },
  );
  expect(gone.job.state).toBe('done');
  const { upload, encoding, delimiter, hasHeader, mapping } = await as(
    'companies',
    await uploaded('visitors.csv', [
      'Website,Mail',
      'othermark.example,a@othermark.example',
      'halvek.example,b@halvek.example',
      'lakovna-veldin.example,c@lakovna-veldin.example',
    ]),
  );
  const begun = await server.api
    .post('/api/matches')
    .send({ upload, name: 'Visitors', read: { encoding, delimiter, hasHeader }, mapping });
  const { job } = await server.ended((begun.body as { job: { id: string } }).job.id);
  const filled = async () => {
    const made = await server.api
      .post(`/api/matches/${job.result!.match as string}/file`)
      .send({ part: 'fill', columns: [] });
    const rows = parse<Record<string, string>>(made.text, { columns: true, bom: true });
    return { leftOut: made.headers['rows-left-out'] as string, keys: rows.map((row) => row['Company key']) };
  };
  expect(await filled()).toEqual({ leftOut: '0', keys: ['DE-30000007', 'CZ-25000999', 'CZ-25000777'] });

  const db = openUniverse(server.dir);
  noteJoin(db, { gone: 'CZ-25000999', key: 'CZ-25000118', how: 'hand', chance: null, person: '' });
  db.close();
  expect(await filled()).toEqual({ leftOut: '0', keys: ['DE-30000007', 'CZ-25000118', 'CZ-25000777'] });
  const source = (gone.job.result as { source: string }).source;
  const removed = await server.api.delete(`/api/sources/${source}`);
  await server.ended((removed.body as { job: { id: string } }).job.id);
  expect(await filled()).toEqual({ leftOut: '1', keys: ['CZ-25000118', 'CZ-25000777'] });
});
