import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { CheckAnswer } from '../contract/checks.ts';
import type { ListView } from '../contract/lists.ts';
import type { UploadAnswer, WordedTally } from '../contract/responses.ts';
import type { NearAnswer, PartingAnswer } from '../contract/steering.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** Spot checks, and lines that bring a tape where somebody wants it, through the API. */

const server = new TestServer();
const FIRMS = 400;
beforeAll(async () => {
  await server.start(1);
  const rows = Array.from(
    { length: FIRMS },
    (_, i) => `Firm ${i} Ltd,${100 + i},${i % 3 ? 'GB' : 'IE'},${i},${i % 2 ? 'active' : 'dormant'}`,
  );
  const file = `name,registration number,country,employees,status\n${rows.join('\n')}`;
  const preview = (await server.upload('firms.csv', Buffer.from(file))).body as UploadAnswer;
  expect((await server.load(preview)).job.state).toBe('done');
});
afterAll(() => server.stop());

const from = (least: number) => tape([{ id: 'a', field: 'headcount', test: { from: least } }]);
const draw = async (wish: object) => (await server.api.post('/api/checks').send(wish)).body as CheckAnswer;
const judge = async (id: string, key: string, verdict: string | null) =>
  (await server.api.post(`/api/checks/${id}/verdicts`).send({ key, verdict })).body as CheckAnswer;

describe('a spot check', () => {
  test('draws the same by the same seed, of those that the tape keeps, and goes on from there', async () => {
    const wish = { tape: from(100), size: 30, seed: 7 };
    const [one, other] = [await draw(wish), await draw(wish)];
    const keys = ({ members }: CheckAnswer) => members.map(({ key }) => key);
    expect(keys(one)).toEqual(keys(other));
    expect([one.check.population, new Set(keys(one)).size]).toEqual([300, 30]);
    const more = (await server.api.post(`/api/checks/${one.check.id}/more`).send({ size: 50 }))
      .body as CheckAnswer;
    expect([keys(more).slice(0, 30), keys(more).length]).toEqual([keys(one), 50]);
  });
  test('is shared out by country, and is found again by its tape whatever that is called', async () => {
    const wish = { tape: from(40), size: 40, seed: 3, by: 'place' };
    const { strata, members } = await draw(wish);
    expect(strata.map(({ label, size }) => [label, size])).toEqual([
      ['United Kingdom', 240],
      ['Ireland', 120],
    ]);
    expect(members.filter(({ stratum }) => stratum === 'IE')).toHaveLength(13);
    const found = await server.api
      .post('/api/checks/of')
      .send({ tape: { ...from(40), name: 'Another name' } });
    expect((found.body as { checks: object[] }).checks).toHaveLength(1);
  });
  test('says how many fit once they are judged, and which survivors miss', async () => {
    const lines = [
      { id: 'a', field: 'headcount', test: { from: 10 } },
      { id: 'b', field: 'status', test: { any: ['active', 'dormant'] } },
    ];
    let answer = await draw({ tape: tape(lines), size: 40, seed: 5 });
    expect([answer.accuracy, answer.holding]).toEqual([null, 'not decided']);
    const { rows } = (
      await server.api.post('/api/rows').send({
        tape: tape([]),
        columns: ['status'],
        keys: answer.members.map(({ key }) => key),
        limit: 100,
      })
    ).body as { rows: { key: string; cells: { status: string } }[] };
    const active = new Set(rows.flatMap(({ key, cells }) => (cells.status === 'active' ? [key] : [])));
    for (const { key } of answer.members)
      answer = await judge(answer.check.id, key, active.has(key) ? 'in' : 'out');
    expect(answer.check).toMatchObject({ fit: active.size, misses: 40 - active.size });
    expect(answer.accuracy!.share).toBeCloseTo(active.size / 40, 10);
    expect(answer.groups[0]).toMatchObject({
      line: 'b',
      how: 'dormant',
      misses: 40 - active.size,
      without: 1,
    });
    answer = await judge(answer.check.id, answer.members[0]!.key, null);
    expect(answer.check.fit + answer.check.misses).toBe(39);
  });
  test('becomes verdicts on a list', async () => {
    const { list } = (await server.api.post('/api/lists').send({ name: 'Checked' })).body as {
      list: ListView;
    };
    await server.api.post(`/api/lists/${list.key}/members`).send({ tape: from(0) });
    const { check, members } = await draw({ tape: from(390), size: 10, seed: 1 });
    for (const [i, { key }] of members.entries()) await judge(check.id, key, i < 6 ? 'in' : 'out');
    const done = await server.api.post(`/api/checks/${check.id}/to-list`).send({ list: list.key });
    expect(done.body).toMatchObject({ judged: 10 });
    const now = (await server.api.get(`/api/lists/${list.key}`)).body as { list: ListView };
    expect([now.list.judgedIn, now.list.judgedOut]).toEqual([6, 4]);
  });
  test.each([
    ['one of no size', { size: 0 }, 'size'],
    ['one larger than can be judged', { size: 2000 }, 'size'],
    ['one shared out by what has any number of values', { by: 'name' }, 'by'],
  ])('is refused: %s', async (_, more, field) => {
    const answer = await server.api.post('/api/checks').send({ tape: from(0), size: 10, ...more });
    expect([answer.status, (answer.body as { error: { field: string } }).error.field]).toEqual([400, field]);
  });
  test('that is not there, and one who is not in it, are said to be none', async () => {
    expect((await server.api.get('/api/checks/nobody')).status).toBe(404);
    const { check } = await draw({ tape: from(390), size: 3 });
    const answer = await server.api
      .post(`/api/checks/${check.id}/verdicts`)
      .send({ key: 'nobody', verdict: 'in' });
    expect([answer.status, (answer.body as { error: { code: string } }).error.code]).toEqual([
      400,
      'unknown-key',
    ]);
    expect((await server.api.delete(`/api/checks/${check.id}`)).status).toBe(204);
    expect((await server.api.get(`/api/checks/${check.id}`)).status).toBe(404);
  });
});

describe('about a number', () => {
  const near = async (wish: object) => (await server.api.post('/api/near').send(wish)).body as NearAnswer;
  test('each way leaves exactly what it says, turns one or two lines, and none that must stay', async () => {
    const lines = [
      { id: 'a', field: 'headcount', test: { from: 100, to: 300 }, must: true },
      { id: 'b', field: 'headcount', test: { from: 150 } },
      { id: 'c', field: 'headcount', test: { to: 250 } },
    ];
    const { now, ways } = await near({ tape: tape(lines), target: 60 });
    expect(now).toBe(101);
    expect(ways.length).toBeGreaterThan(2);
    for (const { count, lines: turned } of ways) {
      expect(turned.map(({ line }) => line.id)).not.toContain('a');
      const changed = lines.map((line) => turned.find((one) => one.line.id === line.id)?.line ?? line);
      const tally = (await server.api.post('/api/tally').send({ tape: tape(changed) })).body as WordedTally;
      expect(tally.tally).toBe(count);
    }
    const distances = ways.map(({ count }) => Math.abs(count - 60));
    expect(distances).toEqual([...distances].sort((a, b) => a - b));
    expect(distances[0]).toBeLessThanOrEqual(10);
  });
  test('has no way where nothing can be turned', async () => {
    const lines = [{ id: 'a', field: 'headcount', test: { from: 100 }, must: true }];
    expect(await near({ tape: tape(lines), target: 60 })).toEqual({ now: 300, ways: [] });
  });
});

test('the line that parts those in from those out is found, counted on both sides, with its chance', async () => {
  const { list } = (await server.api.post('/api/lists').send({ name: 'Parted' })).body as { list: ListView };
  await server.api.post(`/api/lists/${list.key}/members`).send({ tape: from(0) });
  const give = (lines: object[], verdict: string) =>
    server.api.post(`/api/lists/${list.key}/verdicts`).send({ picks: { tape: tape(lines) }, verdict });
  const parting = async () => (await server.api.get(`/api/lists/${list.key}/parting`)).body as PartingAnswer;
  expect(await parting()).toEqual({ judgedIn: 0, judgedOut: 0, tried: 0, lines: [] });
  await give([{ id: 'a', field: 'headcount', test: { to: 59 } }], 'out');
  await give([{ id: 'a', field: 'headcount', test: { from: 60, to: 160 } }], 'in');
  const { judgedIn, judgedOut, lines } = await parting();
  expect([judgedIn, judgedOut]).toEqual([101, 60]);
  expect(lines[0]!.line).toMatchObject({ field: 'headcount', unknown: 'keep' });
  expect(lines[0]!.chance).toBeLessThan(1e-9);
  const test1 = lines[0]!.line as unknown as { test: { from: number } };
  const limit = test1.test.from;
  // Nobody of the others is small; those dropped of either side are those below the limit.
  expect(lines[0]).toMatchObject({
    dropsOut: Math.min(60, limit),
    dropsIn: Math.max(0, limit - 60),
    dropsNotJudged: 0,
  });
});
