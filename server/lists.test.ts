import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import type { AddedAnswer, JudgedAnswer, ListRollAnswer, ListView, MemberView } from '../contract/lists.ts';
import type { RowsAnswer, UploadAnswer, WordedTally } from '../contract/responses.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** Lists through the API: those picked by key, by runs and with some let go again, and additions taken back. */

const server = new TestServer();
const FIRMS = 30;
beforeAll(async () => {
  await server.start(1);
  const rows = Array.from(
    { length: FIRMS },
    (_, i) => `Firm ${i} Ltd,${100 + i},GB,${i},${i < 4 ? 'Oak' : ''}`,
  );
  const file = `name,registration number,country,employees,group name\n${rows.join('\n')}`;
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
  const undo = (origins: number[]) => server.api.delete(`/api/lists/${key}/origins/${origins.join()}`);
  test('is taken back alone: those that were there before it stay, with the origins they had', async () => {
    await added({ tape: from(27), sort });
    const { origins, added: more } = await added({ tape: from(25), sort });
    expect(more).toBe(2);
    expect((await undo(origins)).body).toMatchObject({ removed: 2, list: { members: 3 } });
    expect(await onList()).toEqual([27, 28, 29]);
    expect((await undo(origins)).body).toMatchObject({ removed: 0 });
    const roll = (await server.api.get(`/api/lists/${key}`)).body as ListRollAnswer;
    expect(roll.roll.steps.map(({ delta, total }) => [delta, total])).toEqual([[3, 3]]);
  });
  test('has a name of its own, however fast they follow', async () => {
    const all = await Promise.all([0, 1, 2, 3].map((least) => added({ tape: from(25 + least), sort })));
    expect(new Set(all.flatMap(({ origins }) => origins)).size).toBe(4);
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

describe('verdicts', () => {
  const judge = (body: object) => server.api.post(`/api/lists/${key}/verdicts`).send(body);
  const kept = async (test: object) => {
    const lines = [{ id: 'l', field: 'list', test: { any: [key], ...test } }];
    const answer = await server.api.post('/api/tally').send({ tape: tape(lines) });
    return (answer.body as { tally: number }).tally;
  };
  test('on one, on some picked and taken back count at once in every tape', async () => {
    await added({ tape: from(20), sort });
    const [one] = await keysOf([20]);
    await judge({ members: [one], verdict: 'in' });
    expect(await kept({ verdict: ['in'] })).toBe(1);
    const many = await judge({
      picks: { tape: from(25), sort },
      verdict: 'out',
      reason: 'too small',
    });
    const { batch, judged, list } = many.body as JudgedAnswer;
    expect([judged, list.judgedIn, list.judgedOut, list.notJudged]).toEqual([5, 1, 5, 4]);
    expect(await kept({ reason: ['too small'] })).toBe(5);
    expect(await kept({ verdict: ['not-judged'], added: '1 day' })).toBe(4);
    await server.api.delete(`/api/lists/${key}/verdicts/${batch}`);
    expect([await kept({ verdict: ['out'] }), await kept({})]).toEqual([0, 10]);
  });
  test('given later by another window are told of the earlier, and both stay', async () => {
    await added({ tape: from(29), sort });
    const [member] = await keysOf([29]);
    await judge({ members: [member], verdict: 'in', seen: null });
    const later = await judge({ members: [member], verdict: 'out', seen: null });
    expect((later.body as JudgedAnswer).earlier).toMatchObject({ verdict: 'in' });
    const said = await server.api.get(`/api/memberships/companies/${member}`);
    const own = (said.body as { memberships: MemberView[] }).memberships.find(({ list }) => list === key)!;
    expect(own.history.map(({ verdict }) => verdict)).toEqual(['out', 'in']);
    const again = await judge({ members: [member], verdict: 'in', seen: own.judgedAt });
    expect((again.body as JudgedAnswer).earlier).toBeNull();
  });
  test.each([
    ['a verdict that is none', { members: ['a'], verdict: 'maybe' }, 'verdict'],
    ['a quotation mark in a reason', { members: ['a'], verdict: 'out', reason: 'a "b"' }, 'reason'],
    ['members and picks both', { members: ['a'], picks: { tape: tape([]) }, verdict: 'in' }, 'members'],
    ['neither', { verdict: 'in' }, 'members'],
  ])('are refused with %s', async (_, body, field) => {
    const answer = await judge(body);
    expect([answer.status, (answer.body as { error: { field: string } }).error.field]).toEqual([400, field]);
  });
  test('stand in the sheet and order it', async () => {
    await added({ tape: from(27), sort });
    const [a, b] = await keysOf([27, 29]);
    await judge({ members: [a], verdict: 'out', reason: 'closed' });
    await judge({ members: [b], verdict: 'in' });
    const lines = [{ id: 'l', field: 'list', test: { any: [key] } }];
    const answer = await server.api.post('/api/rows').send({
      tape: tape(lines),
      columns: ['name', 'member:verdict:l', 'member:reason:l', 'member:origins:l'],
      sort: [{ by: 'member:verdict:l' }],
    });
    expect((answer.body as RowsAnswer).rows.map(({ cells }) => Object.values(cells))).toEqual([
      ['Firm 29 Ltd', 'in', null, 'Headcount 27 or more'],
      ['Firm 28 Ltd', 'not judged', null, 'Headcount 27 or more'],
      ['Firm 27 Ltd', 'out', 'closed', 'Headcount 27 or more'],
    ]);
  });
});

describe('a suppression list', () => {
  const suppress = (suppression: string | null) => server.api.put(`/api/lists/${key}`).send({ suppression });
  afterEach(() => suppress(null));
  const exported = async (more: object) => {
    const asked = { name: 'Out', format: 'csv', tape: tape([]), sort, columns: ['name'], ...more };
    const begun = (await server.api.post('/api/exports').send(asked)).body as {
      export: string;
      job: { id: string };
    };
    await server.ended(begun.job.id);
    return (await server.api.get(`/api/exports/${begun.export}/file`)).text.trim().split('\r\n').slice(1);
  };
  test('keeps its members, or their groups too, off every export; the tally says how many', async () => {
    const keys = await keysOf([0, 10]);
    await added({ tape: tape([]), sort, keys });
    await suppress('members');
    const tally = async () =>
      ((await server.api.post('/api/tally').send({ tape: tape([]) })).body as WordedTally).suppressed;
    expect([await tally(), (await exported({})).length]).toEqual([2, FIRMS - 2]);
    await suppress('groups');
    expect(await tally()).toBe(5);
    const names = await exported({});
    expect([names.length, names.includes('Firm 3 Ltd'), names.includes('Firm 4 Ltd')]).toEqual([
      FIRMS - 5,
      false,
      true,
    ]);
  });
  test('is taken along only with a reason, and what is put on a list is told of it', async () => {
    await added({ tape: from(28), sort });
    await suppress('members');
    const before = await server.api.post('/api/exports/before').send({ tape: from(25), sort });
    expect(before.body).toMatchObject({ of: 5, goes: 3, off: [{ list: key, count: 2, along: false }] });
    const nameless = await server.api.post('/api/exports').send({
      ...{ name: 'Out', format: 'csv', tape: tape([]), columns: ['name'] },
      along: [{ list: key, reason: '' }],
    });
    expect(nameless.status).toBe(400);
    expect(
      await exported({ tape: from(25), along: [{ list: key, reason: 'a service letter' }] }),
    ).toHaveLength(5);
    const adding = await server.api.post('/api/lists/before').send({ tape: from(25), sort });
    expect(adding.body).toMatchObject({ count: 5, suppressed: 2, there: { [key]: 2 } });
  });
});

describe('a list and a tape', () => {
  test('are held against each other: who joins, who leaves, and by which line', async () => {
    await added({ tape: from(20), sort });
    const other = tape([
      { id: 'a', field: 'headcount', test: { from: 25 } },
      { id: 'b', field: 'headcount', test: { to: 28 } },
      { id: 'c', parked: true, field: 'headcount', test: { to: 1 } },
    ]);
    const against = (await server.api.post(`/api/lists/${key}/against`).send({ tape: other }))
      .body as unknown;
    expect(against).toMatchObject({
      members: 10,
      both: 4,
      joining: 0,
      leaving: 6,
      lines: [
        { id: 'a', dropped: 5 },
        { id: 'b', dropped: 1 },
      ],
    });
  });
});

describe('a list that is not there', () => {
  test.each([
    ['PUT', ''],
    ['DELETE', ''],
    ['POST', '/members'],
    ['DELETE', '/members'],
    ['DELETE', '/origins/1'],
    ['POST', '/verdicts'],
  ] as const)('is said to be none: %s %s', async (method, path) => {
    const call = { PUT: server.api.put, DELETE: server.api.delete, POST: server.api.post }[method];
    const answer = await call
      .call(server.api, `/api/lists/nobody${path}`)
      .send({ name: 'x', tape: tape([]) });
    expect([answer.status, answer.body]).toMatchObject([404, { error: { code: 'unknown-list' } }]);
  });
});
