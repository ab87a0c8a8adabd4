import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { PersonAboutAnswer, TitlesAnswer } from '../contract/people.ts';
import type { Job, RowsAnswer, UploadAnswer } from '../contract/responses.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** How titles are read is put right for everybody who has one, and holds through newer files. */

const server = new TestServer();
const COMPANIES = [
  'name,registration,country,web',
  'Alder Works,111,CZ,alder.example',
  'Birch Coatings,222,DE,birch.example',
].join('\n');
const HEAD = 'Full name,Job title,Company domain,Department,Level,E-mail';
const OLD = [
  HEAD,
  'Anna First,Obermeister Halle,alder.example,,,anna@mail.example',
  'Bruno Second,Obermeister-Halle,birch.example,sales,manager,',
  'Dora Fourth,Head of sales,birch.example,sales,head,',
].join('\n');
const NEW = [
  HEAD,
  'Anna First,Obermeister Halle,birch.example,,,anna@mail.example',
  'Bruno Second,OBERMEISTER HALLE,birch.example,sales,manager,',
  'Egon Fifth,Obermeister Halle,alder.example,,,',
].join('\n');

const load = async (text: string, subject: string, more: object) => {
  const file = (await server.upload('file.csv', Buffer.from(text))).body as UploadAnswer;
  const { encoding, delimiter } = file;
  const { job } = await server.load(file, {
    read: { encoding, delimiter, hasHeader: true, subject },
    ...more,
  });
  expect([job.message, job.state]).toEqual([null, 'done']);
};
const people = (lines: object[]) => ({ ...tape(lines), subject: 'people' });
const read = async () => {
  const answer = await server.api
    .post('/api/rows')
    .send({ tape: people([]), columns: ['name', 'department', 'level'] });
  return Object.fromEntries<unknown>(
    (answer.body as RowsAnswer).rows.map(({ cells }) => [
      cells.name as string,
      [cells.department, cells.level],
    ]),
  );
};
const titles = async (query = '') =>
  (await server.api.get(`/api/people/titles${query}`)).body as TitlesAnswer;
const say = async (wish: object) => {
  const { job } = (await server.api.post('/api/people/titles').send(wish).expect(202)).body as { job: Job };
  return server.ended(job.id);
};
const keyOf = async (name: string) => {
  const answer = await server.api.post('/api/rows').send({ tape: people([]), columns: ['name'] });
  return (answer.body as RowsAnswer).rows.find(({ cells }) => cells.name === name)!.key;
};
const about = async (name: string) =>
  (await server.api.get(`/api/people/${await keyOf(name)}/about`)).body as PersonAboutAnswer;

beforeAll(async () => {
  await server.start(3);
  await load(COMPANIES, 'companies', { name: 'Companies' });
  await load(OLD, 'people', { name: 'Staff' });
});
afterAll(() => server.stop());

test('everybody has the language of the country, also once it is another', async () => {
  const languages = async () => {
    const answer = await server.api
      .post('/api/rows')
      .send({ tape: people([]), columns: ['name', 'language'] });
    return (answer.body as RowsAnswer).rows.map(({ cells }) => [cells.name, cells.language]);
  };
  const german = () =>
    server.api
      .post('/api/tally')
      .send({ tape: people([{ id: 'l1', field: 'language', test: { any: ['german'] } }]) });
  expect(await languages()).toEqual([
    ['Anna First', 'czech'],
    ['Bruno Second', 'german'],
    ['Dora Fourth', 'german'],
  ]);
  expect((await german()).body).toMatchObject({ tally: 2 });
  const { rows } = (await server.api.post('/api/rows').send({ tape: tape([]), columns: ['name'] }))
    .body as RowsAnswer;
  const alder = rows.find(({ cells }) => cells.name === 'Alder Works')!.key;
  const correct = async (value: string | null) => {
    const corrections = [{ field: 'country', value, reason: 'moved' }];
    const answer = await server.api.post(`/api/companies/${alder}/corrections`).send({ corrections });
    await server.ended((answer.body as { job: Job }).job.id);
  };
  await correct('AT');
  expect((await languages())[0]).toEqual(['Anna First', 'german']);
  expect((await german()).body).toMatchObject({ tally: 3 });
  await correct(null);
  expect((await german()).body).toMatchObject({ tally: 2 });
});

test('titles that differ in case and punctuation are one, and say what most of those who have it are', async () => {
  const { titles: all, total } = await titles();
  expect(total).toBe(2);
  expect(all[0]).toMatchObject({ people: 2, readings: 2, own: null });
  expect((await titles('?by=title&descending=no')).titles.map(({ title }) => title.slice(0, 4))).toEqual([
    'Head',
    'Ober',
  ]);
  expect((await titles('?text=of%20head')).titles).toMatchObject([
    { title: 'Head of sales', department: 'sales' },
  ]);
  expect((await titles('?text=nobody')).total).toBe(0);
});

test('what is said of a title holds for everybody who has it, over what the source says', async () => {
  const { job } = await say({ title: 'Obermeister Halle', department: 'production', level: 'head' });
  expect(job).toMatchObject({ state: 'done', result: { people: 2 } });
  expect(await read()).toEqual({
    'Anna First': ['production', 'head'],
    'Bruno Second': ['production', 'head'],
    'Dora Fourth': ['sales', 'head'],
  });
  const answer = await server.api.post('/api/tally').send({
    tape: people([{ id: 'l1', field: 'department', test: { any: ['production'] } }]),
  });
  expect(answer.body).toMatchObject({ tally: 2 });
  expect((await titles()).titles[0]).toMatchObject({
    readings: 1,
    own: { department: 'production', level: 'head' },
  });
  expect(await about('Anna First')).toMatchObject({ reading: { department: 'production' } });
  expect(await about('Dora Fourth')).toMatchObject({ reading: null });
});

test('it holds for a newer file too, which changes nobody by it', async () => {
  await load(NEW, 'people', { name: 'Staff', refreshes: 'staff', gone: 'removed' });
  expect(await read()).toEqual({
    'Anna First': ['production', 'head'],
    'Bruno Second': ['production', 'head'],
    'Egon Fifth': ['production', 'head'],
  });
  // The post changed in nothing but how it is written; the employer did.
  const anna = await about('Anna First');
  expect(anna.happenings.map(({ what }) => what)).toEqual(['Moved from Alder Works to Birch Coatings']);
  expect((await about('Egon Fifth')).happenings[0]!.what).toBe(
    'Came with a newer file, as Obermeister Halle',
  );
});

test('left to the source again, each has what was loaded', async () => {
  await say({ title: 'obermeister halle' });
  expect(await read()).toMatchObject({
    'Anna First': [null, 'head'],
    'Bruno Second': ['sales', 'manager'],
  });
  expect((await titles()).titles[0]!.own).toBeNull();
});

test('what is no title, department or order is refused by name', async () => {
  const refused = async (wish: object) =>
    (await server.api.post('/api/people/titles').send(wish).expect(400)).body as unknown;
  expect(await refused({ title: '–', level: 'head' })).toMatchObject({ error: { field: 'title' } });
  expect(await refused({ title: 'Clerk', department: 'kitchen' })).toMatchObject({
    error: { field: 'department' },
  });
  expect((await server.api.get('/api/people/titles?by=age').expect(400)).body).toMatchObject({
    error: { field: 'by' },
  });
  await server.api.get('/api/people/person-999/about').expect(404);
});
