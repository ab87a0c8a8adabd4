import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { ChangesAnswer, NoticesAnswer, PlanAnswer } from '../contract/runs.ts';
import type { MatchListAnswer } from '../contract/matches.ts';
import type { RowsAnswer, SourceChangesAnswer, SourceView, UploadAnswer } from '../contract/responses.ts';
import { UNTOLD, type Answered } from './testing/answered.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** A newer file of people: lists, runs and watches know who is who, and are told who moved. */

const server = new TestServer();
const COMPANIES = [
  'name,registration,country,web,town',
  'Alder Works,111,CZ,alder.example,Brno',
  'Birch Coatings,222,DE,birch.example,Chemnitz',
].join('\n');
const HEAD = 'Full name,Job title,Company domain,Department,Level,E-mail';
const OLD = [
  HEAD,
  'Anna First,Buyer,alder.example,purchasing,specialist,',
  'Bruno Second,Head of sales,alder.example,sales,head,bruno@mail.example',
  'Dora Fourth,Painter,birch.example,production,specialist,',
].join('\n');
const NEW = [
  HEAD,
  'Anna First,Head of purchasing,alder.example,purchasing,head,',
  'Bruno Second,Sales director,birch.example,sales,director,bruno@mail.example',
  'Fay Sixth,Clerk,birch.example,finance,specialist,',
].join('\n');
const HEADS = [{ id: 'l1', field: 'level', test: { any: ['head'] } }];

const load = async (text: string, subject: string, more: object) => {
  const file = (await server.upload('file.csv', Buffer.from(text))).body as UploadAnswer;
  const { encoding, delimiter } = file;
  const { job } = await server.load(file, {
    read: { encoding, delimiter, hasHeader: true, subject },
    ...more,
  });
  expect([job.message, job.state]).toEqual([null, 'done']);
};
const watch = (wish: object) =>
  server.api
    .put('/api/watches')
    .send({
      rate: 'at-once',
      ways: ['bell'],
      growth: null,
      kinds: ['appointment', 'departure', 'move'],
      ...wish,
    })
    .expect(200);
const people = (lines: object[]) => ({ ...tape(lines), subject: 'people' });
const names = async (lines: object[]) =>
  (
    (await server.api.post('/api/rows').send({ tape: people(lines), columns: ['name'] })).body as RowsAnswer
  ).rows
    .map(({ cells }) => cells.name)
    .sort();
/** The newest run of the plan, counted now. */
const ran = async () => {
  await server.api.post(`/api/plans/${plan}/run`).expect(202);
  await server.runs.idle();
  return ((await server.api.get(`/api/plans/${plan}`)).body as PlanAnswer).runs[0]!;
};
const keyOf = async (name: string) => {
  const answer = await server.api.post('/api/rows').send({ tape: people([]), columns: ['name'] });
  return (answer.body as RowsAnswer).rows.find(({ cells }) => cells.name === name)!.key;
};

let plan: string;
beforeAll(async () => {
  await server.start(3);
  await load(COMPANIES, 'companies', { name: 'Companies' });
  await load(OLD, 'people', { name: 'Staff' });
  const saved = await server.api
    .post('/api/tapes')
    .send({ kind: 'tape', name: 'Heads', tape: people(HEADS) });
  const { id } = (saved.body as { tape: { id: string } }).tape;
  const made = await server.api
    .post('/api/plans')
    .send({ kind: 'tape', name: 'Heads', target: { tape: id }, schedule: { how: 'hand' }, tell: UNTOLD });
  plan = (made.body as PlanAnswer).plan.key;
});
afterAll(() => server.stop());

test('is refused where the rows are read as something else', async () => {
  const file = (await server.upload('file.csv', Buffer.from(COMPANIES))).body as UploadAnswer;
  const { upload, encoding, delimiter, hasHeader, mapping } = file;
  const answer = (await server.api.post('/api/sources').send({
    ...{ upload, name: 'Staff', asOf: '2026-09-30', read: { encoding, delimiter, hasHeader }, mapping },
    refreshes: 'staff',
  })) as Answered<{ error: { code: string; message: string } }>;
  expect([answer.status, answer.body.error.code]).toEqual([400, 'wrong-subject']);
  expect(answer.body.error.message).toContain('“Staff” holds people');
});

test('lists and runs know who is who, and watches are told who came, went and moved', async () => {
  expect((await ran()).count).toBe(1);
  const bruno = await keyOf('Bruno Second');
  const list = (await server.api.post('/api/lists').send({ name: 'To call', subject: 'people' })).body as {
    list: { key: string };
  };
  await server.api
    .post(`/api/lists/${list.list.key}/members`)
    .send({ tape: people([{ id: 'd', field: 'department', test: { any: ['sales'] } }]) })
    .expect(200);
  await watch({ subject: 'people', key: bruno });
  await watch({ subject: 'people', key: await keyOf('Dora Fourth') });
  await watch({ subject: 'companies', key: 'CZ-111' });
  await watch({ subject: 'companies', key: 'DE-222' });

  await load(NEW, 'people', { name: 'Staff', asOf: '2026-10-31', refreshes: 'staff' });
  expect(await keyOf('Bruno Second')).toBe(bruno);
  expect(await names([{ id: 'l', field: 'list', test: { any: [list.list.key] } }])).toEqual(['Bruno Second']);
  const source = ((await server.api.get('/api/sources')).body as { sources: SourceView[] }).sources[1]!;
  expect(source.refreshed).toMatchObject({ before: 3, added: 1, gone: 1, now: 3, changed: 2 });

  server.runs.wake();
  await server.runs.idle();
  const { notices } = (await server.api.get('/api/notices')).body as NoticesAnswer;
  const told = new Map(notices.map(({ title, items }) => [title.split(':')[0], items] as const));
  expect(Object.fromEntries(told)).toEqual({
    'Bruno Second': ['employer: Alder Works → Birch Coatings', 'post: Head of sales → Sales director'],
    'Dora Fourth': ['is not in its source any more'],
    'Alder Works': ['Bruno Second goes to Birch Coatings'],
    'Birch Coatings': [
      'Bruno Second is new: from Alder Works',
      'Fay Sixth is new: Clerk',
      'Dora Fourth is not there any more',
    ],
  });

  const run = await ran();
  expect(run).toMatchObject({ joined: 1, left: 1, count: 1 });
  const { changes } = (await server.api.get(`/api/runs/${run.id}/changes`)).body as ChangesAnswer;
  expect(changes.map(({ what, name, was, now }) => [what, name, was, now]).sort()).toEqual([
    ['joined', 'Anna First', 'Buyer', 'Head of purchasing'],
    ['left', 'Bruno Second', 'Head of sales', 'Sales director'],
  ]);
});

test('what changed is shown with who is there, and becomes a list of people', async () => {
  const of = async (what: string) =>
    ((await server.api.get(`/api/sources/staff/changes?what=${what}`)).body as SourceChangesAnswer).changes;
  expect((await of('gone')).map(({ name, there }) => [name, there])).toEqual([['Dora Fourth', false]]);
  expect((await of('new')).map(({ name, there }) => [name, there])).toEqual([['Fay Sixth', true]]);
  const made = await server.api.post('/api/sources/staff/list').send({ what: 'changed', name: 'Moved' });
  const { list, added } = made.body as MatchListAnswer;
  expect([made.status, list.subject, added]).toEqual([201, 'people', 2]);
  expect(await names([{ id: 'l', field: 'list', test: { any: [list.key] } }])).toEqual([
    'Anna First',
    'Bruno Second',
  ]);
});

test('of a company that is watched and is gone from its source one is told, as of one on a list', async () => {
  const made = (await server.api.post('/api/lists').send({ name: 'Ours', subject: 'companies' })).body as {
    list: { key: string };
  };
  await server.api
    .post(`/api/lists/${made.list.key}/members`)
    .send({ tape: tape([]) })
    .expect(200);
  const kinds = ['departure'];
  await watch({ subject: 'companies', key: 'DE-222', kinds });
  await watch({ subject: 'lists', key: made.list.key, kinds });
  const only = COMPANIES.split('\n').slice(0, 2).join('\n');
  await load(only, 'companies', { name: 'Companies', asOf: '2026-11-30', refreshes: 'companies' });
  server.runs.wake();
  await server.runs.idle();
  const { notices } = (await server.api.get('/api/notices')).body as NoticesAnswer;
  const told = notices.filter(({ items }) => items.some((item) => item.includes('not in its source')));
  expect(told.map(({ items }) => items).sort()).toEqual([
    ['Birch Coatings: is not in its source any more'],
    ['is not in its source any more'],
    ['is not in its source any more'],
  ]);
});
