import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { PlanAnswer, PlanView, RunView } from '../contract/runs.ts';
import { TestServer } from './testing/test-server.ts';
import { UNTOLD, type Answered, type Wrong } from './testing/answered.ts';

/** Plans as a clock starts them that is put where the test wants it. */

const server = new TestServer();
let now = Date.parse('2026-03-28T12:00Z');
let tape: string;
const clock = () => now;

beforeAll(async () => {
  await server.start(1, {}, clock);
  const made = await server.api.post('/api/tapes').send({
    ...{ kind: 'tape', name: 'Everybody' },
    tape: { format: 'just-tally.tape', version: 1, subject: 'companies', lines: [] },
  });
  tape = (made.body as { tape: { id: string } }).tape.id;
});
afterAll(() => server.stop());

const planned = async (name: string, schedule: object): Promise<PlanView> => {
  const { body } = (await server.api
    .post('/api/plans')
    .send({ kind: 'tape', name, target: { tape }, schedule, tell: UNTOLD })) as Answered<unknown>;
  return (body as PlanAnswer).plan;
};
const runsOf = async (key: string): Promise<RunView[]> =>
  ((await server.api.get(`/api/plans/${key}`)).body as PlanAnswer).runs;
/** Puts the clock to a moment, as the program would come to see it, and waits for what it starts. */
const comes = async (moment: string) => {
  now = Date.parse(moment);
  server.runs.wake();
  await server.runs.idle();
};
const times = async (key: string) => (await runsOf(key)).map(({ dueAt }) => dueAt.slice(0, 16)).reverse();

test('runs at its hour on the days on which clocks are changed, and once on each', async () => {
  const daily = { how: 'repeats', words: 'every day at 2:30', zone: 'Europe/Berlin' };
  const { key } = await planned('In the night', daily);
  for (const moment of ['2026-03-29T00:59Z', '2026-03-29T01:00Z', '2026-03-29T01:30Z', '2026-03-30T00:30Z'])
    await comes(moment);
  expect(await times(key)).toEqual(['2026-03-29T01:00', '2026-03-30T00:30']);
  await comes('2026-10-25T00:29Z');
  const before = (await times(key)).length;
  for (const moment of ['2026-10-25T00:30Z', '2026-10-25T01:30Z', '2026-10-25T02:00Z', '2026-10-26T01:30Z'])
    await comes(moment);
  expect((await times(key)).slice(before)).toEqual(['2026-10-25T00:30', '2026-10-26T01:30']);
});

test('what was missed while the program was off runs once at the start, or not, as asked', async () => {
  now = Date.parse('2026-11-02T00:00Z');
  const every = { how: 'repeats', words: 'every day at 7', zone: 'UTC' };
  const [runs, skips] = [
    await planned('Runs late', { ...every, missed: 'run' }),
    await planned('Skips', { ...every, missed: 'skip' }),
  ];
  const once = await planned('Only once', {
    how: 'once',
    at: '2026-11-03T09:00',
    zone: 'UTC',
    missed: 'run',
  });
  await server.pause();
  now = Date.parse('2026-11-06T12:00Z');
  await server.start(1, {}, clock);
  await server.runs.idle();
  expect((await runsOf(runs.key)).map(({ state, dueAt }) => [state, dueAt.slice(0, 10)])).toEqual([
    ['done', '2026-11-02'],
  ]);
  expect(await runsOf(skips.key)).toMatchObject([
    { state: 'cancelled', message: expect.stringMatching(/left out, as asked/) },
  ]);
  expect((await runsOf(once.key)).map(({ state }) => state)).toEqual(['done']);
  await comes('2026-11-07T07:00Z');
  expect((await runsOf(skips.key))[0]).toMatchObject({ state: 'done', cause: 'clock' });
  expect(await runsOf(once.key)).toHaveLength(1);
});

test('a plan under way is started by neither clock nor hand', async () => {
  const { key } = await planned('Slow', { how: 'repeats', words: 'every hour', zone: 'UTC' });
  const first = await server.api.post(`/api/plans/${key}/run`);
  expect(first.status).toBe(202);
  const second = await server.api.post(`/api/plans/${key}/run`);
  if (second.status !== 202)
    expect((second.body as Wrong).error).toMatchObject({ code: 'under-way', field: 'key' });
  await server.runs.idle();
  const count = (await runsOf(key)).length;
  expect(count).toBe(second.status === 202 ? 2 : 1);
});

test('what was running when the program ended has failed, and says so', async () => {
  const { key } = await planned('Cut short', { how: 'hand' });
  server.runs.db
    .prepare(
      "INSERT INTO run (id, plan, nth, cause, state, due_at, started_at) VALUES ('cut', ?, 1, 'hand', 'running', 0, 0)",
    )
    .run(key);
  await server.pause();
  await server.start(1, {}, clock);
  expect((await runsOf(key))[0]).toMatchObject({
    state: 'failed',
    message: 'The program was stopped while this ran.',
  });
});

test('two hundred due in one minute all run, each once, while others are answered', async () => {
  const keys: string[] = [];
  for (let i = 0; i < 200; i++)
    keys.push((await planned(`Due ${i}`, { how: 'once', at: '2026-12-01T07:00', zone: 'UTC' })).key);
  now = Date.parse('2026-12-01T07:00Z');
  server.runs.wake();
  const { status } = await server.api
    .post('/api/tally')
    .send({ tape: { format: 'just-tally.tape', version: 1, subject: 'companies', lines: [] } });
  expect(status).toBe(200);
  await server.runs.idle();
  for (const key of keys) expect((await runsOf(key)).map(({ state }) => state)).toEqual(['done']);
});
