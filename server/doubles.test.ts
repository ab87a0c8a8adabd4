import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import Database from 'better-sqlite3';
import { join } from 'node:path';
import type { DoublesAnswer, JoinsAnswer, MatchRowsAnswer } from '../contract/matches.ts';
import type {
  Job,
  ProfileAnswer,
  RowsAnswer,
  SourceView,
  UploadAnswer,
  WordedTally,
} from '../contract/responses.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** Two sources that name the same companies differently, made one universe, and two again. */

const server = new TestServer();

const REGISTER = [
  'Company,Registration number,Country,Town,Postcode,Street,Employees',
  'Zarmysko Stolařství s.r.o.,25000118,CZ,Boskovice,680 01,Lipová 18,46',
  'Zarmysko Schody a.s.,26000473,CZ,Letovice,679 61,Nádražní 4,12',
  'Lakovna Veldín s.r.o.,25000777,CZ,Brno,602 00,Hutní 7,30',
  ...Array.from(
    { length: 60 },
    (_, i) => `Othermark ${i} Bau GmbH,4000${1000 + i},DE,Bremen,28195,Polweg ${i},5`,
  ),
];
const DIRECTORY = [
  'Company,Country,Town,Postcode,Street,Phone,Website',
  'ZARMYSKO STOLARSTVI,CZ,Boskovice,68001,Lipova 18,+420 000 041 228,zarmysko.example',
  'Veldín Lakovna,CZ,Brno,602 00,Hutní 7,+420 000 055 512,veldin.example',
  'Nobody Else Works,CZ,Praha,110 00,Polní 3,+420 000 099 001,nobody.example',
];

const load = async (name: string, lines: string[]) => {
  const file = (await server.upload(`${name}.csv`, Buffer.from(lines.join('\n')))).body as UploadAnswer;
  expect((await server.load(file, { name, joinSure: false })).job.state).toBe('done');
  // What a load looks for by itself would come between what is asked for here.
  const { jobs } = (await server.api.get('/api/jobs')).body as { jobs: Job[] };
  for (const { id, state } of jobs) if (state === 'running') await server.ended(id);
};
const begin = async (path: string, body: object = {}) => {
  const begun = await server.api.post(`/api${path}`).send(body);
  expect(begun.status).toBe(202);
  const { job } = await server.ended((begun.body as { job: { id: string } }).job.id);
  expect([job.message, job.state]).toEqual([null, 'done']);
  return job.result!;
};
const count = async () =>
  ((await server.api.post('/api/tally').send({ tape: tape([]) })).body as WordedTally).tally;
const doubles = async () => (await server.api.get('/api/doubles')).body as DoublesAnswer;
/** All that is said of companies, by key. */
const companies = () => {
  const db = new Database(join(server.dir, 'universe.sqlite'), { readonly: true });
  const rows = db
    .prepare<[], Record<string, unknown>>('SELECT * FROM company ORDER BY key')
    .all()
    // Which change of the universe a company came with is another once it was away.
    .map(({ came_with: _, ...row }) => row);
  const sources = db
    .prepare(
      'SELECT c.key, s.source FROM company_source s JOIN company c ON c.id = s.company_id ORDER BY 1, 2',
    )
    .raw()
    .all();
  const words = db
    .prepare("SELECT count(*) FROM company_words WHERE company_words MATCH 'zarmysko'")
    .pluck()
    .get();
  db.close();
  return { rows: rows.map(({ id: _, ...row }) => row), sources, words };
};
const keyOf = (name: string) => (companies().rows.find((row) => row.name === name) as { key: string }).key;

beforeAll(() => server.start(3));
afterAll(() => server.stop());

let before: ReturnType<typeof companies>;
let own: string;

describe('doubles', () => {
  test('are looked for among the companies without a number', async () => {
    await load('Register', REGISTER);
    expect((await server.api.post('/api/doubles/join')).status).toBe(409);
    await load('Directory', DIRECTORY);
    before = companies();
    expect(await count()).toBe(66);
    own = keyOf('ZARMYSKO STOLARSTVI');
    expect(await doubles()).toMatchObject({ withoutNumber: 3, joined: 0 });
    await begin('/doubles');
    const { match } = await doubles();
    expect(match).toMatchObject({ of: 'doubles', toMatch: 3, sure: { name: 2 }, none: 1 });
    const { rows } = (await server.api.get(`/api/matches/${match!.id}/rows?state=sure`))
      .body as MatchRowsAnswer;
    expect(rows.map(({ company }) => company!.key).sort()).toEqual(['CZ-25000118', 'CZ-25000777']);
  });

  test('are joined: one company has the records of both, and lists and notes follow', async () => {
    const { list } = (await server.api.post('/api/lists').send({ name: 'Spray rooms' })).body as {
      list: { key: string };
    };
    await server.api.post(`/api/lists/${list.key}/members`).send({ tape: tape([]), keys: [own] });
    await server.api.post(`/api/lists/${list.key}/verdicts`).send({ members: [own], verdict: 'in' });
    await server.api
      .put(`/api/notes/companies/${own}`)
      .set('if-match', '"none"')
      .send({ text: 'asked for a visit' });
    const result = await begin('/doubles/join');
    expect(result.joined).toHaveLength(2);
    expect(await count()).toBe(64);
    expect(await doubles()).toMatchObject({
      withoutNumber: 1,
      joined: 2,
      match: { toMatch: 1, changed: false },
    });
    const shown = await server.api.post('/api/rows').send({
      tape: tape([{ id: 'l', field: 'list', test: { any: [list.key], verdict: ['in'] } }]),
      columns: ['name', 'headcount', 'web', 'phone'],
    });
    const { rows, total } = shown.body as RowsAnswer;
    expect([total, rows[0]!.key]).toEqual([1, 'CZ-25000118']);
    expect(rows[0]!.cells).toMatchObject({ web: 'zarmysko.example' });
    // The old key leads to the company.
    const profile = (await server.api.get(`/api/companies/${own}`)).body as ProfileAnswer;
    expect(profile.row.key).toBe('CZ-25000118');
    expect((await server.api.get('/api/notes/companies/CZ-25000118')).body).toMatchObject({
      text: 'asked for a visit',
    });
    const { joins } = (await server.api.get('/api/companies/CZ-25000118/joins')).body as JoinsAnswer;
    expect(joins).toMatchObject([{ gone: own, how: 'name' }]);
  });

  test('a source loaded again comes to the company that its records were joined to', async () => {
    await load('Directory again', DIRECTORY);
    expect(await count()).toBe(64);
    const { job } = (await server.api.delete('/api/sources/directory-again')).body as { job: { id: string } };
    expect((await server.ended(job.id)).job.state).toBe('done');
    expect(await count()).toBe(64);
  });

  test('taken apart, all is as it was, and they are not offered to each other again', async () => {
    await begin('/companies/CZ-25000118/apart', { gone: own });
    const other = ((await server.api.get('/api/companies/CZ-25000777/joins')).body as JoinsAnswer).joins[0]!
      .gone;
    await begin('/companies/CZ-25000777/apart', { gone: other });
    expect(companies()).toEqual(before);
    expect(await count()).toBe(66);
    await begin('/doubles');
    expect((await doubles()).match).toMatchObject({ toMatch: 3, sure: { number: 0, domain: 0, name: 0 } });
    const wrong = await server.api.post('/api/companies/CZ-25000118/apart').send({ gone: own });
    expect(wrong.status).toBe(404);
  });
});

test('joined, and the source of the other removed, the company keeps what is left', async () => {
  const matches = new Database(join(server.dir, 'matches.sqlite'));
  matches.exec('DELETE FROM company_apart');
  matches.close();
  await begin('/doubles');
  await begin('/doubles/join');
  const { job } = (await server.api.delete('/api/sources/directory')).body as { job: { id: string } };
  expect((await server.ended(job.id)).job.state).toBe('done');
  expect(await count()).toBe(63);
  const only = before.rows.filter(
    ({ key }) => String(key).startsWith('CZ-2') || String(key).startsWith('DE-'),
  );
  expect(companies().rows).toEqual(only);
});

test('taken apart once its own source is gone, nothing is left of the company that had the records', async () => {
  for (const { key } of ((await server.api.get('/api/sources')).body as { sources: SourceView[] }).sources) {
    const { job } = (await server.api.delete(`/api/sources/${key}`)).body as { job: { id: string } };
    await server.ended(job.id);
  }
  await load('Register', REGISTER);
  await load('Directory', DIRECTORY);
  // The joins of before hold for the sources loaded again.
  expect(await count()).toBe(64);
  const { job } = (await server.api.delete('/api/sources/register')).body as { job: { id: string } };
  await server.ended(job.id);
  expect(companies().rows.map(({ key }) => key)).toEqual(
    expect.arrayContaining(['CZ-25000118', 'CZ-25000777']),
  );
  await begin('/companies/CZ-25000118/apart', { gone: own });
  expect(companies().rows.map(({ key }) => key)).toContain(own);
  expect(companies().rows.map(({ key }) => key)).not.toContain('CZ-25000118');
  expect(await count()).toBe(3);
});

test('asked for twice at once they are looked for once, and matches written at once all land', async () => {
  const ask = async (path: string, body: object = {}) => {
    const begun = await server.api.post(`/api${path}`).send(body);
    return (begun.body as { job: { id: string } }).job.id;
  };
  const matching = async (name: string) => {
    const { upload, encoding, delimiter, hasHeader, mapping } = (
      await server.upload(`${name}.csv`, Buffer.from(`Company,Country\n${name},CZ\n`))
    ).body as UploadAnswer;
    return { upload, name, read: { encoding, delimiter, hasHeader }, mapping };
  };
  const [one, other] = [await matching('Ash'), await matching('Oak')];
  const jobs = await Promise.all([
    ask('/doubles'),
    ask('/doubles'),
    ask('/matches', one),
    ask('/matches', other),
  ]);
  expect(jobs[0]).toBe(jobs[1]);
  for (const id of jobs) {
    const { job } = await server.ended(id);
    expect([job.message, job.state]).toEqual([null, 'done']);
  }
});
