import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdtempSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ChangesAnswer, PlanAnswer, RunView } from '../contract/runs.ts';
import type { SourceView, UploadAnswer } from '../contract/responses.ts';
import { GatherDesk } from './testing/gather-desk.ts';
import { UNTOLD } from './testing/answered.ts';
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
