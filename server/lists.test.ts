import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import type { AddedAnswer, ListView, RowsAnswer, UploadAnswer } from '../contract/responses.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** Lists through the API: those picked by key, by runs and with some let go again, and additions taken back. */

const server = new TestServer();
const FIRMS = 30;
beforeAll(async () => {
  await server.start(1);
  const rows = Array.from({ length: FIRMS }, (_, i) => `Firm ${i} Ltd,${100 + i},GB,${i}`);
  const file = `name,registration number,country,employees\n${rows.join('\n')}`;
  const preview = (await server.upload('firms.csv', Buffer.from(file))).body as UploadAnswer;
  expect((await server.load(preview)).job.state).toBe('done');
});
afterAll(() => server.stop());

let key: string;
let made = 0;
beforeEach(async () => {
  const answer = await server.api.post('/api/lists').send({ name: `List ${++made}` });
  key = (answer.body as { list: ListView }).list.key;
});

const sort = [{ by: 'headcount' }];
const from = (least: number) => tape([{ id: 'a', field: 'headcount', test: { from: least } }]);
const add = (body: object) => server.api.post(`/api/lists/${key}/members`).send(body);
const added = async (body: object) => (await add(body)).body as AddedAnswer;
/** Headcounts of those on the list. */
async function onList(): Promise<number[]> {
  const answer = await server.api.post('/api/rows').send({
    tape: tape([{ id: 'l', field: 'list', test: { any: [key] } }]),
    columns: ['headcount'],
    sort,
    limit: 100,
    offset: 0,
  });
  return (answer.body as RowsAnswer).rows.map(({ cells }) => (cells.headcount as { amount: number }).amount);
}
async function keysOf(headcounts: number[]): Promise<string[]> {
  const answer = await server.api
    .post('/api/rows')
    .send({ tape: tape([]), columns: ['headcount'], sort, limit: 100, offset: 0 });
  const { rows } = answer.body as RowsAnswer;
  return headcounts.map((n) => rows[n]!.key);
}

describe('what goes on a list', () => {
  test('is all of a tape where none is picked', async () => {
    expect(await added({ tape: from(25), sort })).toMatchObject({ added: 5, of: 5, list: { members: 5 } });
    expect(await onList()).toEqual([25, 26, 27, 28, 29]);
  });
  test('is the runs of the order, with those let go again left out', async () => {
    const except = await keysOf([11]);
    await added({
      tape: from(10),
      sort,
      ranges: [
        [0, 2],
        [5, 5],
      ],
      except,
    });
    expect(await onList()).toEqual([10, 12, 15]);
    await added({ tape: from(10), sort: [{ by: 'headcount', descending: true }], ranges: [[0, 0]] });
    expect(await onList()).toEqual([10, 12, 15, 29]);
  });
  test('is those picked by key that the tape still keeps', async () => {
    const keys = await keysOf([3, 20, 28]);
    expect(await added({ tape: from(10), sort, keys })).toMatchObject({ added: 2, of: 2 });
    expect(await onList()).toEqual([20, 28]);
  });
  test('is picked by key and by runs together, each once', async () => {
    const keys = await keysOf([10, 29]);
    expect(await added({ tape: from(10), sort, keys, ranges: [[0, 1]] })).toMatchObject({ of: 3 });
    expect(await onList()).toEqual([10, 11, 29]);
  });
  test('is nobody where the runs lie beyond the tape', async () => {
    expect(await added({ tape: from(28), sort, ranges: [[500, 600]] })).toMatchObject({ added: 0, of: 0 });
  });
  test.each([
    ['runs that go backwards', { ranges: [[3, 1]] }, 'ranges'],
    ['runs of three', { ranges: [[1, 2, 3]] }, 'ranges'],
    ['positions below none', { ranges: [[-1, 1]] }, 'ranges'],
    ['positions between rows', { ranges: [[0.5, 1]] }, 'ranges'],
    ['keys that are no texts', { keys: [7] }, 'keys'],
    ['an order by what has none', { sort: [{ by: 'technology' }] }, 'sort[0].by'],
  ])('is refused with %s, and nothing is put on it', async (_, more, field) => {
    const answer = await add({ tape: from(0), sort, ...more });
    expect([answer.status, (answer.body as { error: { field: string } }).error.field]).toEqual([400, field]);
    expect(await onList()).toEqual([]);
  });
});

describe('an addition', () => {
  test('is taken back alone: those that were there before it stay', async () => {
    await added({ tape: from(27), sort });
    const { at, added: more } = await added({ tape: from(25), sort });
    expect(more).toBe(2);
    const undone = await server.api.delete(`/api/lists/${key}/additions/${encodeURIComponent(at)}`);
    expect(undone.body).toMatchObject({ removed: 2, list: { members: 3 } });
    expect(await onList()).toEqual([27, 28, 29]);
    const again = await server.api.delete(`/api/lists/${key}/additions/${encodeURIComponent(at)}`);
    expect(again.body).toMatchObject({ removed: 0 });
  });
  test('has a name of its own, however fast they follow', async () => {
    const all = await Promise.all([0, 1, 2, 3].map((least) => added({ tape: from(25 + least), sort })));
    expect(new Set(all.map(({ at }) => at)).size).toBe(4);
  });
});

describe('members', () => {
  test('are taken off by the same picks, and only they', async () => {
    await added({ tape: from(20), sort });
    const removed = await server.api
      .delete(`/api/lists/${key}/members`)
      .send({ tape: from(20), sort, ranges: [[0, 4]] });
    expect(removed.body).toMatchObject({ removed: 5, list: { members: 5 } });
    expect(await onList()).toEqual([25, 26, 27, 28, 29]);
  });
});

describe('a list that is not there', () => {
  test.each([
    ['PUT', ''],
    ['DELETE', ''],
    ['POST', '/members'],
    ['DELETE', '/members'],
    ['DELETE', '/additions/now'],
  ] as const)('is said to be none: %s %s', async (method, path) => {
    const call = { PUT: server.api.put, DELETE: server.api.delete, POST: server.api.post }[method];
    const answer = await call
      .call(server.api, `/api/lists/nobody${path}`)
      .send({ name: 'x', tape: tape([]) });
    expect([answer.status, answer.body]).toMatchObject([404, { error: { code: 'unknown-list' } }]);
  });
});
