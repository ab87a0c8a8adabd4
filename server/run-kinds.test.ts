import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdtempSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ChangesAnswer, NoticesAnswer, PlanAnswer, RunView } from '../contract/runs.ts';
import type { SourceView, UploadAnswer } from '../contract/responses.ts';
import { GatherDesk } from './testing/gather-desk.ts';
import { UNTOLD, type Wrong } from './testing/answered.ts';
import { tape } from './testing/test-server.ts';

/** Plans of each kind that does its work elsewhere: a source refreshed from a file that lies somewhere, an export made again, pages read anew. */

const server = new GatherDesk();
const folder = mkdtempSync(join(tmpdir(), 'just-tally-files-'));
const path = join(folder, 'firms.csv');
const HEAD = 'Company,Registration number,Country,Town,Employees,Website';
const OLD = [
  HEAD,
  'Alder Works,11111111,CZ,Brno,20,alder.example',
  'Birch Works,22222222,CZ,Brno,30,birch.example',
  'Cedar Works,33333333,CZ,Brno,40,',
];
const NEW = [
  HEAD,
  'Alder Works,11111111,CZ,Brno,20,alder.example',
  'Birch Works,22222222,CZ,Praha,45,birch.example',
  'Dogwood Works,44444444,CZ,Brno,5,',
];

beforeAll(async () => {
  await server.open();
  const preview = (await server.upload('firms.csv', Buffer.from(OLD.join('\n')))).body as UploadAnswer;
  await server.load(preview, { name: 'Firms' });
});
afterAll(async () => {
  await server.stop();
  rmSync(folder, { recursive: true });
});

const planned = async (kind: string, target: object, schedule: object = { how: 'hand' }): Promise<string> => {
  const answer = await server.api
    .post('/api/plans')
    .send({ kind, name: `A ${kind}`, target, schedule, tell: UNTOLD });
  if (answer.status !== 201) throw new Error(JSON.stringify(answer.body));
  return (answer.body as PlanAnswer).plan.key;
};
const last = async (key: string): Promise<RunView | undefined> =>
  ((await server.api.get(`/api/plans/${key}`)).body as PlanAnswer).runs[0];
const ended = async (key: string): Promise<RunView> => {
  await server.runs.idle();
  return (await last(key))!;
};
const ran = async (key: string): Promise<RunView> => {
  await server.api.post(`/api/plans/${key}/run`).expect(202);
  return ended(key);
};

test('a source is refreshed from its file, of the day of that file, and what runs after it says what changed', async () => {
  const made = await server.api.post('/api/tapes').send({
    kind: 'tape',
    name: 'In Brno',
    tape: tape([{ id: 'l1', field: 'place', test: { towns: ['Brno, CZ-64'] } }]),
  });
  const { id } = (made.body as { tape: { id: string } }).tape;
  const [{ key: source }] = ((await server.api.get('/api/sources')).body as { sources: [SourceView] })
    .sources;
  writeFileSync(path, NEW.join('\n'));
  utimesSync(path, new Date('2026-10-31T12:00Z'), new Date('2026-10-31T12:00Z'));
  const refresh = await planned('refresh', { source, path });
  const after = await planned('tape', { tape: id }, { how: 'after', plan: refresh, outcome: 'any' });
  expect((await ran(after)).count).toBe(3);
  expect(await ran(refresh)).toMatchObject({
    state: 'done',
    message: '3 records; 1 new, 1 gone, 1 changed',
    count: 3,
    roll: { foot: 3 },
  });
  const run = await ended(after);
  expect(run).toMatchObject({ cause: 'after', count: 2, joined: 1, left: 2, moved: 0 });
  const { changes } = (await server.api.get(`/api/runs/${run.id}/changes`)).body as ChangesAnswer;
  expect(changes.map(({ what, name, why, was, now, there }) => [what, name, why, was, now, there])).toEqual([
    ['joined', 'Dogwood Works', 'new: Firms was refreshed', null, null, true],
    ['left', 'Birch Works', expect.stringMatching(/^Place/), 'Brno', 'Praha', true],
    ['left', 'Cedar Works', 'gone: Firms was refreshed', null, null, false],
  ]);
  const { sources } = (await server.api.get('/api/sources')).body as { sources: SourceView[] };
  expect(sources[0]).toMatchObject({ key: source, asOf: '2026-10-31' });
});

test('a file that is not there, or has other headings, fails the run and leaves the source as it is', async () => {
  const [{ key: source }] = ((await server.api.get('/api/sources')).body as { sources: [SourceView] })
    .sources;
  const gone = await planned('refresh', { source, path: join(folder, 'nowhere.csv') });
  expect(await ran(gone)).toMatchObject({
    state: 'failed',
    message: expect.stringContaining('There is no file'),
  });
  const other = join(folder, 'other.csv');
  writeFileSync(other, ['Firm;Town', 'Alder;Brno'].join('\n'));
  const wrong = await planned('refresh', { source, path: other });
  expect(await ran(wrong)).toMatchObject({ state: 'failed', message: expect.stringContaining('headings') });
  expect(
    ((await server.api.post('/api/tally').send({ tape: tape([]) })).body as { tally: number }).tally,
  ).toBe(3);
});

test('an export is made again as it was asked; one that is gone from the ledger cannot say what changed', async () => {
  const asked = await server.api.post('/api/exports').send({
    ...{ tape: tape([]), name: 'All', format: 'csv', columns: ['name', 'headcount'], currency: 'EUR' },
    receiver: 'Finance',
  });
  const { export: id, job } = asked.body as { export: string; job: { id: string } };
  await server.ended(job.id);
  const again = await planned('export', { export: id });
  expect(await ran(again)).toMatchObject({
    state: 'done',
    message: '3 rows',
    carriedBy: { export: expect.any(String) },
  });
  const changed = await planned('export', { export: id, rows: 'changes' });
  expect(await ran(changed)).toMatchObject({ state: 'done', message: '0 rows', count: 0, roll: { foot: 0 } });
});

test('a gatherer reads its pages anew; a sheet gives it words and places', async () => {
  const taught = await server.taught('Guide', { words: ['Works'], places: ['Brno'] });
  const key = await planned('gatherer', { gatherer: taught.id });
  const run = await ran(key);
  expect(run).toMatchObject({ state: 'done', message: expect.stringMatching(/^\d+ records$/) });
  const sheet = await server.api
    .post('/api/batches/pasted')
    .send({ text: 'Word\tPlace\nWorks\tBrno\n\tPraha\nWorks\tPraha\n' });
  const { batch } = sheet.body as { batch: { id: string } };
  const fed = await planned('batch', {
    batch: batch.id,
    gatherer: taught.id,
    search: 0,
    fields: [{ column: 1, as: 'place' }],
  });
  const feeding = await ran(fed);
  expect(feeding).toMatchObject({ state: 'done', message: expect.stringMatching(/records$/) });
  const { searches } = (await server.api.get(`/api/runs/${feeding.id}/searches`)).body as {
    searches: { state: string; search: string }[];
  };
  expect(searches.map(({ state, search }) => [state, search])).toEqual([
    ['done', 'Works, Brno'],
    ['refused', 'Praha'],
    ['done', 'Works, Praha'],
  ]);
});

test('a run is left while it waits, and one that is over cannot be', async () => {
  const taught = await server.taught('Slow', { words: ['Works'], places: ['Brno'] });
  const key = await planned('gatherer', { gatherer: taught.id });
  const { run } = (await server.api.post(`/api/plans/${key}/run`)).body as { run: RunView };
  await server.api.post(`/api/runs/${run.id}/cancel`);
  const over = await ended(key);
  expect(['cancelled', 'done']).toContain(over.state);
  await server.api.post(`/api/runs/${run.id}/cancel`).expect(409);
});

test('a matched file is matched again, and who is found now goes on its list', async () => {
  const load = async (lines: string[], name: string) => {
    const preview = (await server.upload('more.csv', Buffer.from(lines.join('\n')))).body as UploadAnswer;
    await server.load(preview, { name });
  };
  const others = Array.from({ length: 30 }, (_, i) => `Other ${i} Bau,5000${1000 + i},DE,Bremen,5,`);
  await load([HEAD, ...others], 'Others');
  const visitors = [
    'Company,Registration number,Country',
    'Dogwood Works,44444444,CZ',
    'Elder Works,55555555,CZ',
  ];
  const file = (await server.upload('visitors.csv', Buffer.from(visitors.join('\n')))).body as UploadAnswer;
  const { upload, encoding, delimiter, hasHeader, mapping } = file;
  const begun = await server.api
    .post('/api/matches')
    .send({ upload, name: 'Visitors', read: { encoding, delimiter, hasHeader }, mapping });
  const { job } = await server.ended((begun.body as { job: { id: string } }).job.id);
  const match = job.result!.match as string;
  await server.api.post(`/api/matches/${match}/list`).send({ name: 'Who came' }).expect(201);
  const key = await planned('match', { match });
  expect(await ran(key)).toMatchObject({
    state: 'done',
    message: '1 of 2 rows found, 0 doubtful',
    roll: {
      steps: [
        { step: 'rows', delta: 2 },
        { step: 'none', delta: -1 },
      ],
      foot: 1,
    },
  });
  await load([HEAD, 'Elder Works,55555555,CZ,Brno,7,'], 'Elder');
  expect(await ran(key)).toMatchObject({
    state: 'done',
    count: 2,
    message: '2 of 2 rows found, 0 doubtful, 1 came to something else, 1 more on Who came',
    carriedBy: { list: 'who-came' },
  });
  await server.api.delete(`/api/matches/${match}`).expect(204);
  expect(await ran(key)).toMatchObject({
    state: 'failed',
    message: expect.stringContaining('There is no match'),
  });
  const refused = await server.api
    .post('/api/plans')
    .send({ kind: 'match', name: 'None', target: { match }, schedule: { how: 'hand' }, tell: UNTOLD });
  expect([refused.status, (refused.body as Wrong).error.field]).toEqual([400, 'target.match']);
});

test('of searches that are asked again it is said what the run before had not found, and what it had', async () => {
  const lists = await server.api.post('/api/lists').send({ name: 'In mind', subject: 'companies' });
  const { key: list } = (lists.body as { list: { key: string } }).list;
  const members = (staff: number, how: 'post' | 'delete' = 'post') =>
    server.api[how](`/api/lists/${list}/members`)
      .send({ tape: tape([{ id: 'l1', field: 'headcount', test: { from: staff, to: staff } }]) })
      .expect(200);
  await members(5);
  const onList = [{ id: 'l1', field: 'list', test: { any: [list] } }];
  await server.api.post('/api/tapes').send({ kind: 'tape', name: 'Those in mind', tape: tape(onList) });
  const sheet = await server.api
    .post('/api/batches/pasted')
    .send({ text: 'Search\tNote\nThose in mind\tx\n' });
  const { batch } = sheet.body as { batch: { id: string } };
  const key = await planned('batch', { batch: batch.id, search: 0, into: 'one-list', results: 'Found' });
  const first = await ran(key);
  expect(first).toMatchObject({ state: 'done', comparedTo: null, joined: null });
  await members(20);
  await members(5, 'delete');
  const second = await ran(key);
  expect(second).toMatchObject({ count: 1, before: first.count, joined: 1, left: first.count, moved: 0 });
  expect(second.before! + second.joined! - second.left!).toBe(second.count);
  const named = (await server.api.get(`/api/runs/${second.id}/tape?what=new`)).body as {
    tape: { lines: { test: { any: string[] } }[] };
  };
  expect(named.tape.lines[0]!.test.any).toEqual(['CZ-11111111']);
  const made = await server.api.post(`/api/runs/${second.id}/list`).send({ what: 'left', name: 'No more' });
  expect((made.body as { added: number }).added).toBe(first.count);
});

test('what fails is told by mail through the stand-in, where no server is set, whatever one’s address is', async () => {
  const [{ key: source }] = ((await server.api.get('/api/sources')).body as { sources: [SourceView] })
    .sources;
  const made = await server.api.post('/api/plans').send({
    ...{ kind: 'refresh', name: 'From nowhere', schedule: { how: 'hand' } },
    target: { source, path: join(folder, 'nowhere-at-all.csv') },
    tell: { ...UNTOLD, failure: true, rate: 'at-once', ways: ['bell', 'mail'] },
  });
  for (const mail of [
    'ilona@ternhollow.example',
    'o.p@no-such.example',
    'x@quelbek.example',
    'us@a.example',
  ]) {
    await server.api.put('/api/notices/settings').send({ mail, hour: 7 }).expect(200);
    expect(await ran((made.body as PlanAnswer).plan.key)).toMatchObject({ state: 'failed' });
    server.runs.wake();
    await server.runs.idle();
  }
  const { notices } = (await server.api.get('/api/notices')).body as NoticesAnswer;
  const told = notices.filter(({ title }) => title.includes('From nowhere'));
  expect(told.map(({ kind, trouble, toldAt }) => [kind, trouble, toldAt !== null])).toEqual(
    Array.from({ length: 4 }, () => ['failure', null, true]),
  );
  // Nobody answers what the program itself has told.
  const { replies } = (await server.api.get('/api/outreach/replies')).body as { replies: unknown[] };
  expect(replies).toEqual([]);
});
