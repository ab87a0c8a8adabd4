import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { BatchPreviewAnswer, BatchSearchView, BatchView } from '../contract/runs.ts';
import type { ListView } from '../contract/lists.ts';
import { RunsDesk } from './runs-desk.ts';
import { type Answered, type Wrong } from '../server/testing/answered.ts';

/** Sheets of searches: read, tried, run one after another, gone on with, and what becomes of what they find. */

const desk = new RunsDesk();
beforeAll(() => desk.start(3000));
afterAll(() => desk.stop());

const SHEET = [
  'Search\tCountry\tHeadcount from\tHeadcount to',
  'nace 16.23\tCzechia\t5\t249',
  'nace 16.23 31.00\tCzechia\t5\t',
  'no such words at all\t\t\t',
  'Rivals: makers of air-cleaning plant\t\t\t',
  'nace 25.51\tNowhere land\t\t',
].join('\n');

const pasted = async (text: string): Promise<BatchView> => {
  const { status, body } = (await desk.api.post('/api/batches/pasted').send({ text })) as Answered<unknown>;
  if (status !== 201) throw new Error(JSON.stringify(body));
  return (body as { batch: BatchView }).batch;
};
const targetOf = ({ id, guess }: BatchView, more: object = {}) => ({
  batch: id,
  ...guess,
  into: 'one-list',
  ...more,
});
const searches = async (run: string) =>
  ((await desk.api.get(`/api/runs/${run}/searches`)).body as { searches: BatchSearchView[] }).searches;
const lists = async () => ((await desk.api.get('/api/lists')).body as { lists: ListView[] }).lists;

test('a pasted sheet is read, its columns are guessed, and a preview says what each row finds or why it is refused', async () => {
  const batch = await pasted(SHEET);
  expect(batch).toMatchObject({
    ...{ header: ['Search', 'Country', 'Headcount from', 'Headcount to'], rows: 5, at: 0 },
    guess: {
      search: 0,
      fields: [
        { column: 1, as: 'in' },
        { column: 2, as: 'headcount from' },
        { column: 3, as: 'headcount to' },
      ],
    },
  });
  const { body } = (await desk.api
    .post(`/api/batches/${batch.id}/preview`)
    .send({ target: targetOf(batch) })) as Answered<unknown>;
  const preview = body as BatchPreviewAnswer;
  expect(preview.searches.map(({ state }) => state)).toEqual([
    'ready',
    'ready',
    'refused',
    'ready',
    'refused',
  ]);
  expect([preview.ready, preview.refused]).toEqual([3, 2]);
  expect(preview.searches[0]!.said).toMatch(/16\.23.*Czechia.*5/);
  expect(preview.searches[4]!.said).toMatch(/Nowhere land/);
  expect(preview.searches[1]!.found).toBeGreaterThan(preview.searches[0]!.found!);
});

test('runs into one list, nobody twice, each member knowing its searches; bad rows are refused with why', async () => {
  const batch = await pasted(SHEET);
  const plan = await desk.plan({
    kind: 'batch',
    name: 'Clusters',
    target: targetOf(batch, { results: 'Found in clusters' }),
  });
  const run = await desk.ran(plan.key);
  expect(run.state).toBe('done');
  expect(run.message).toMatch(/^3 searches, .* companies, 2 refused$/);
  const list = (await lists()).find(({ name }) => name === 'Found in clusters')!;
  expect(list.members).toBe(run.count);
  expect(run.roll!.foot).toBe(list.members);
  expect(list.origins).toBe('tape 3');
  const rows = await searches(run.id);
  expect(rows.map(({ state }) => state)).toEqual(['done', 'done', 'refused', 'done', 'refused']);
  expect(rows[0]!.added! + rows[1]!.added!).toBe(rows[1]!.found);
  expect(run.carriedBy).toEqual({ list: list.key });
});

test('caps rows each and searches a run, and goes on where the last run stopped', async () => {
  const batch = await pasted(SHEET);
  const target = targetOf(batch, { results: 'A few of each', rowsEach: 2, searchesEach: 2 });
  const plan = await desk.plan({ kind: 'batch', name: 'A few', target });
  const rowsOf = async () =>
    (await searches((await desk.ran(plan.key)).id)).map(({ row, taken }) => [row, taken]);
  expect(await rowsOf()).toEqual([
    [0, 2],
    [1, 2],
  ]);
  expect(((await desk.api.get(`/api/batches/${batch.id}`)).body as { batch: BatchView }).batch.at).toBe(2);
  expect(await rowsOf()).toEqual([
    [2, null],
    [3, 2],
  ]);
  expect(await rowsOf()).toEqual([[4, null]]);
  expect((await rowsOf())[0]![0]).toBe(0);
});

test('makes a list each, or one file in which cells that begin like formulas are safe', async () => {
  const batch = await pasted('Search;in\n"nace 16.23";Austria\n"nace 31.00";Austria\n');
  const each = await desk.plan({
    kind: 'batch',
    name: 'Each',
    target: targetOf(batch, { into: 'list-each', results: 'Austria' }),
  });
  await desk.ran(each.key);
  expect((await lists()).map(({ name }) => name).filter((name) => name.startsWith('Austria'))).toEqual([
    ...['Austria: nace 16.23', 'Austria: nace 31.00'],
  ]);
  const file = await desk.plan({
    kind: 'batch',
    name: 'As a file',
    target: targetOf(batch, { into: 'file' }),
  });
  const run = await desk.ran(file.key);
  const { status, text } = await desk.api.get(`/api/runs/${run.id}/file`);
  expect(status).toBe(200);
  const lines = text.trim().split('\n');
  expect(lines[0]).toContain('search,key,name');
  expect(lines).toHaveLength(run.count! + 1);
  expect(lines.some((line) => /,[=@-]/.test(line))).toBe(false);
});

test('searches come from a file, too; a sheet without rows and one too long are refused', async () => {
  const file = Buffer.from('Search,Country\nnace 16.23,Czechia\n');
  const { status, body } = (await desk.api
    .post('/api/batches')
    .attach('file', file, 'searches.csv')) as Answered<unknown>;
  const { batch } = body as { batch: BatchView };
  expect([status, batch.fileName, batch.rows]).toEqual([201, 'searches.csv', 1]);
  const none = await desk.api.post('/api/batches/pasted').send({ text: 'Search,Country\n' });
  expect(none.status).toBe(400);
  const long = `Search,Country\n${'nace 16.23,Czechia\n'.repeat(5001)}`;
  expect(((await desk.api.post('/api/batches/pasted').send({ text: long })).body as Wrong).error.code).toBe(
    'too-many-rows',
  );
});

test('lists that hold others than what is found are not mixed', async () => {
  await desk.api.post('/api/lists').send({ name: 'Persons', subject: 'people' });
  const batch = await pasted('Search,in\nnace 16.23,Austria\n');
  const plan = await desk.plan({
    kind: 'batch',
    name: 'Mixed',
    target: targetOf(batch, { results: 'Persons' }),
  });
  expect(await desk.ran(plan.key)).toMatchObject({
    state: 'failed',
    message: expect.stringContaining('holds people'),
  });
});

test('every figure of a batch’s roll opens exactly those that its search was the first to find', async () => {
  const batch = await pasted('Search\tin\nnace 16.23\tCzechia\nnace 16.23 31.00\tCzechia\n');
  const plan = await desk.plan({ kind: 'batch', name: 'Opens', target: targetOf(batch) });
  const { id, roll } = await desk.ran(plan.key);
  expect(roll!.steps).toHaveLength(2);
  for (const { step, delta } of roll!.steps) {
    const reason = encodeURIComponent(step.replace('joined ', ''));
    const { tape } = (await desk.api.get(`/api/runs/${id}/tape?what=joined&reason=${reason}`)).body as {
      tape: object;
    };
    expect(((await desk.api.post('/api/tally').send({ tape })).body as { tally: number }).tally).toBe(delta);
  }
});
