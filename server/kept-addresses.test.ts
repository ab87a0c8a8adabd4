import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { ListView } from '../contract/lists.ts';
import type { RowsAnswer, UploadAnswer, WordedTally } from '../contract/responses.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** Domains and mail addresses that a suppression list keeps off every export, through the API. */

const server = new TestServer();
const FIRMS = `name,registration number,country,web,mail
Lakovna,1,CZ,www.lakovna.example/en,office@lakovna.example
Brusirna,2,CZ,brusirna.example,info@brusirna.example
Veldin,3,CZ,,office@veldin.example
Nobody,4,CZ,,`;
const PEOPLE = `name,title,mail,company number,country
Hana,owner,hana@lakovna.example,1,CZ
Jonas,owner,jonas@elsewhere.example,1,CZ
Ilona,owner,Ilona@Brusirna.example,2,CZ
Petr,owner,petr@veldin.example,3,CZ`;

let key: string;
const load = async (name: string, text: string, subject: string) => {
  const file = (await server.upload(`${name}.csv`, Buffer.from(text))).body as UploadAnswer;
  expect((await server.load(file, { name, read: { ...reading(file), subject } })).job.state).toBe('done');
};
/** How a file is read, as it was guessed. */
const reading = ({ encoding, delimiter }: UploadAnswer) => ({ encoding, delimiter, hasHeader: true });
const put = (addresses: unknown) => server.api.put(`/api/lists/${key}/addresses`).send({ addresses });
const kept = async (subject: string) =>
  ((await server.api.post('/api/tally').send({ tape: { ...tape([]), subject } })).body as WordedTally)
    .suppressed;
const off = async () => [await kept('companies'), await kept('people')];

beforeAll(async () => {
  await server.start(2);
  await load('Firms', FIRMS, 'companies');
  await load('People', PEOPLE, 'people');
  const made = await server.api.post('/api/lists').send({ name: 'Off', suppression: 'members' });
  key = (made.body as { list: ListView }).list.key;
});
afterAll(() => server.stop());

test('a domain keeps off its company with all its people, and whoever has a mail there', async () => {
  expect((await put(['lakovna.example'])).body).toMatchObject({ list: { addresses: 1 } });
  expect(await off()).toEqual([1, 2]);
  expect((await put(['elsewhere.example'])).status).toBe(200);
  expect(await off()).toEqual([0, 1]);
});
test('a mail address keeps off who has it alone, or a company whose own it is', async () => {
  await put(['ilona@brusirna.example']);
  expect(await off()).toEqual([0, 1]);
  await put(['office@veldin.example']);
  expect(await off()).toEqual([1, 1]);
});
test('they are off the file, beside the members, and the roll names the list', async () => {
  await put(['lakovna.example', 'office@veldin.example']);
  const before = await server.api.post('/api/exports/before').send({ tape: tape([]), sort: [] });
  expect(before.body).toMatchObject({ of: 4, goes: 2, off: [{ list: key, count: 2 }] });
  const begun = (
    await server.api
      .post('/api/exports')
      .send({ name: 'Out', format: 'csv', tape: tape([]), columns: ['name'], sort: [{ by: 'name' }] })
  ).body as { export: string; job: { id: string } };
  await server.ended(begun.job.id);
  const file = await server.api.get(`/api/exports/${begun.export}/file`);
  expect(file.text.trim().split('\r\n').slice(1)).toEqual(['Brusirna', 'Nobody']);
});
test('a later file is held to them, and no list means nobody', async () => {
  await put(['lakovna.example', 'late.example']);
  await load('Late', 'name,registration number,country,web\nLate,9,CZ,late.example', 'companies');
  expect(await off()).toEqual([2, 2]);
  expect((await server.api.get(`/api/lists/${key}/addresses`)).body).toEqual({
    addresses: ['lakovna.example', 'late.example'],
  });
  await server.api.put(`/api/lists/${key}`).send({ suppression: null });
  expect(await off()).toEqual([0, 0]);
});
test('what is no address, or no suppression list, is refused', async () => {
  expect((await put(['lakovna.example'])).status).toBe(400);
  await server.api.put(`/api/lists/${key}`).send({ suppression: 'members' });
  for (const wrong of [['nobody'], ['a b.example'], ['http://a.example/x'], 'lakovna.example', [7]])
    expect((await put(wrong)).status).toBe(400);
  expect((await put([])).body).toMatchObject({ list: { addresses: 0 } });
  expect(await off()).toEqual([0, 0]);
});
test('a member is kept off with whoever has its domain, and the people of both', async () => {
  await load(
    'More',
    'name,registration number,country,web\nLakovna Praha,21,CZ,lakovna.example/praha\nApart,22,CZ,apart.example',
    'companies',
  );
  await load('Staff', 'name,title,mail,company number,country\nEva,owner,eva@praha.example,21,CZ', 'people');
  const wanted = tape([{ id: 'l1', field: 'words', test: { text: '"Lakovna"', in: 'name' } }]);
  const { rows } = (await server.api.post('/api/rows').send({ tape: wanted, columns: ['name'] }))
    .body as RowsAnswer;
  const keys = rows.filter(({ cells }) => cells.name === 'Lakovna').map((row) => row.key);
  await server.api.post(`/api/lists/${key}/members`).send({ tape: tape([]), keys });
  expect(await off()).toEqual([2, 3]);
  await server.api.delete(`/api/lists/${key}/members`).send({ tape: tape([]), keys });
  expect(await off()).toEqual([0, 0]);
});
