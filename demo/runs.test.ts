import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type { ChangesAnswer, PlanAnswer, RunsAnswer, RunView } from '../contract/runs.ts';
import type { WordedTally } from '../contract/responses.ts';
import { openRuns, openUniverse } from '../server/db/open.ts';
import { membersOf } from '../server/tables/runs/runs.ts';
import { RunsDesk } from './runs-desk.ts';
import { UNTOLD, type Answered, type Wrong } from '../server/testing/answered.ts';
import { until } from '../server/testing/until.ts';

/** Saved tapes that run as the demo's months go by: who joins, who leaves, who moved, and why. */

const desk = new RunsDesk();
let targets: string;
let key: string;
const runs: RunView[] = [];

beforeAll(async () => {
  await desk.start(6000);
  const line = (id: string, field: string, test: object, more: object = {}) => ({ id, field, test, ...more });
  const lines = [
    line('l1', 'status', { any: ['active'] }),
    line('l2', 'place', { countries: ['central-europe', 'nordic', 'baltic'] }),
    line('l3', 'headcount', { from: 20, to: 249 }),
    line('l4', 'list', { any: ['our-customers'] }, { not: true }),
  ];
  targets = await desk.saved('Middling ones', lines);
  key = (await desk.plan({ kind: 'tape', name: 'Targets, monthly', target: { tape: targets } })).key;
  runs.push(await desk.ran(key));
  await desk.nextMonth();
  runs.push(await desk.ran(key));
});
afterAll(() => desk.stop());

const changes = async (id: string, query = '') =>
  (await desk.api.get(`/api/runs/${id}/changes?limit=500${query}`)).body as ChangesAnswer;
const tally = async (tape: unknown) =>
  ((await desk.api.post('/api/tally').send({ tape })).body as WordedTally).tally;

test('the first run has nothing to compare with, the second what the month made of it', () => {
  const [first, second] = runs as [RunView, RunView];
  expect(first).toMatchObject({ state: 'done', cause: 'hand', joined: 0, left: 0, comparedTo: null });
  expect(first.roll!.foot).toBe(first.count);
  expect(second).toMatchObject({ state: 'done', comparedTo: first.id, before: first.count });
  expect(Math.min(second.joined!, second.left!, second.moved!)).toBeGreaterThan(0);
  expect(second.count).toBe(first.count! + second.joined! - second.left!);
  expect(second.roll!.foot).toBe(second.count);
  const sum = (what: string) =>
    second
      .roll!.steps.filter(({ step }) => step.startsWith(what))
      .reduce((total, { delta }) => total + delta, 0);
  expect([sum('joined'), sum('left')]).toEqual([second.joined, 0 - second.left!]);
});

test('what is counted is what the tape counts, and its members are kept', async () => {
  const { tape } = ((await desk.api.get(`/api/tapes/${targets}`)).body as { tape: unknown }).tape as {
    tape: object;
  };
  expect(await tally(tape)).toBe(runs[1]!.count);
  const db = openRuns(desk.server.dir, { readonly: true });
  const [first, second] = runs.map(({ id }) => new Set(membersOf(db, id)));
  db.close();
  expect([...second!].filter((id) => !first!.has(id))).toHaveLength(runs[1]!.joined!);
  expect([...first!].filter((id) => !second!.has(id))).toHaveLength(runs[1]!.left!);
});

test('every change says why, with what was and is; each figure of the roll opens as many', async () => {
  const { changes: rows, total } = await changes(runs[1]!.id);
  expect(total).toBe(rows.length);
  const left = rows.filter(({ what }) => what === 'left');
  expect(left).toHaveLength(runs[1]!.left!);
  const byHeadcount = left.find(({ why, was }) => why.includes('Headcount') && was !== null);
  expect(byHeadcount!.now).not.toBe(byHeadcount!.was);
  expect(rows.filter(({ what, why }) => what !== 'moved' && why === '')).toEqual([]);
  for (const { step, delta } of runs[1]!.roll!.steps.slice(1)) {
    const [what, ...reason] = step.split(' ');
    const found = await changes(runs[1]!.id, `&what=${what}&reason=${encodeURIComponent(reason.join(' '))}`);
    expect(found.total).toBe(Math.abs(delta));
    const { tape } = (
      await desk.api.get(
        `/api/runs/${runs[1]!.id}/tape?what=${what}&reason=${encodeURIComponent(reason.join(' '))}`,
      )
    ).body as { tape: object };
    if (found.changes.every(({ there }) => there)) expect(await tally(tape)).toBe(Math.abs(delta));
  }
});

test('what changed goes out as CSV, old and new value side by side', async () => {
  const { status, text } = await desk.api.get(`/api/runs/${runs[1]!.id}/changes/file`);
  const lines = text.replace('\ufeff', '').trim().split('\n');
  expect([status, lines[0]]).toEqual([200, 'What,Name,Place,Key,Why,Was,Is']);
  const { changes: rows } = await changes(runs[1]!.id);
  expect(lines).toHaveLength(rows.length + 1);
  expect(lines[1]).toContain(rows[0]!.key);
});

test('a line on who joined, and on what changed, finds those very ones', async () => {
  const line = (field: string, any: string[], seen?: string) => ({
    ...{ format: 'just-tally.tape', version: 1, subject: 'companies' },
    lines: [{ id: 'l1', field, test: { any, ...(seen ? { seen } : {}) } }],
  });
  expect(await tally(line('joined', [key]))).toBe(runs[1]!.joined);
  expect(await tally(line('joined', [key], '2026-10-01'))).toBe(runs[1]!.joined);
  expect(await tally(line('joined', [key], '2026-11-15'))).toBe(0);
  const db = openUniverse(desk.server.dir, { readonly: true });
  const moved = db
    .prepare(
      "SELECT count(DISTINCT record) FROM history h JOIN company c ON c.id = h.record WHERE subject = 'companies' AND field = 'headcount'",
    )
    .pluck()
    .get();
  db.close();
  expect(moved).toBeGreaterThan(50);
  expect(await tally(line('changed', ['headcount'], '1 month'))).toBe(moved);
  const typed = await desk.api
    .post('/api/typed')
    .send({ text: 'changed headcount or place since 2026-10-01', subject: 'companies' });
  expect(typed.body).toMatchObject({
    lines: [{ field: 'changed', test: { any: ['headcount', 'place'], seen: '2026-10-01' } }],
  });
});

test('those who joined become a list in one act, each with why', async () => {
  const { body, status } = (await desk.api
    .post(`/api/runs/${runs[1]!.id}/list`)
    .send({ what: 'joined', name: 'New this month' })) as Answered<unknown>;
  expect(status).toBe(201);
  expect((body as { list: unknown }).list).toMatchObject({
    name: 'New this month',
    members: runs[1]!.joined,
  });
});

test('any two runs are compared, in whichever order they are named', async () => {
  runs.push(await desk.ran(key));
  expect(runs[2]).toMatchObject({ joined: 0, left: 0 });
  const compared = async (first: number, second: number) =>
    (await desk.api.post('/api/runs/compare').send({ first: runs[first]!.id, second: runs[second]!.id }))
      .body as ChangesAnswer;
  const forth = await compared(0, 2);
  expect(forth.run).toMatchObject({ joined: runs[1]!.joined, left: runs[1]!.left, before: runs[0]!.count });
  expect(forth.changes).toEqual((await changes(runs[1]!.id)).changes.slice(0, forth.changes.length));
  expect((await compared(2, 0)).run).toEqual(forth.run);
  const same = await desk.api.post('/api/runs/compare').send({ first: runs[0]!.id, second: runs[0]!.id });
  expect(same).toMatchObject({ status: 400, body: { error: { code: 'not-comparable' } } });
});

test('a changed tape is said to be why', async () => {
  const before = ((await desk.api.get(`/api/tapes/${targets}`)).body as { tape: unknown }).tape as {
    tape: { lines: { id: string }[] };
    name: string;
    savedAt: string;
  };
  const lines = before.tape.lines.filter(({ id }) => id !== 'l3');
  await desk.api
    .put(`/api/tapes/${targets}`)
    .set('if-match', `"${before.savedAt}"`)
    .send({ kind: 'tape', name: before.name, tape: { ...before.tape, lines } });
  const run = await desk.ran(key);
  expect(run.left).toBe(0);
  expect(run.joined).toBeGreaterThan(0);
  expect(run.roll!.steps.map(({ step }) => step)).toEqual(['before', 'joined tape']);
});

test('plans are listed with when they run next, changed, removed and had back', async () => {
  const wish = {
    ...{ kind: 'tape', name: 'Rivals, Mondays', target: { tape: await desk.savedTape('Rivals') } },
    ...{ schedule: { how: 'repeats', words: 'Mondays at 7', zone: 'Europe/Prague' }, tell: UNTOLD },
  };
  const plan = await desk.plan(wish);
  expect(plan).toMatchObject({ when: 'every Monday at 7', schedule: { cron: '0 7 * * 1', missed: 'run' } });
  expect(plan.next).toHaveLength(5);
  const after = await desk.plan({ ...wish, name: 'After it', schedule: { how: 'after', plan: plan.key } });
  expect(after.when).toBe('after Rivals, Mondays');
  const ring = await desk.api
    .put(`/api/plans/${plan.key}`)
    .send({ ...wish, schedule: { how: 'after', plan: after.key } });
  expect((ring.body as Wrong).error).toMatchObject({
    code: 'ring',
    message: expect.stringContaining('Rivals, Mondays → After it → Rivals, Mondays'),
  });
  expect(((await desk.api.delete(`/api/plans/${plan.key}`)).body as Wrong).error.code).toBe('has-followers');
  await desk.api.delete(`/api/plans/${after.key}`).expect(204);
  await desk.api.get(`/api/plans/${after.key}`).expect(404);
  expect((await desk.api.post(`/api/plans/${after.key}/restore`)).status).toBe(200);
  const { plans, past, month } = (await desk.api.get('/api/runs')).body as RunsAnswer;
  expect(plans.map(({ name }) => name)).toEqual(['After it', 'Rivals, Mondays', 'Targets, monthly']);
  expect(new Set(past.map(({ kind }) => kind))).toEqual(new Set(['tape', 'refresh']));
  expect(month).toEqual({ next: '2026-11' });
});

test('what runs after another runs when that has, and not before', async () => {
  const rivals = (await desk.api.get('/api/plans/rivals-mondays')).body as PlanAnswer;
  await desk.ran(rivals.plan.key);
  const { runs: own } = await until(
    async () => (await desk.api.get('/api/plans/after-it')).body as PlanAnswer,
    ({ runs }) => runs[0]?.state === 'done',
  );
  expect(own.map(({ cause }) => cause)).toEqual(['after']);
});

test.each([
  [{ kind: 'tape', target: { tape: 'none' } }, 'target.tape'],
  [{ kind: 'gatherer', target: {} }, 'target.gatherer'],
  [{ kind: 'export', target: { export: 'none' } }, 'target.export'],
  [{ kind: 'refresh', target: { source: 'register-extract', path: 'here.csv' } }, 'target.path'],
  [{ kind: 'batch', target: { batch: 'none' } }, 'target.batch'],
  [{ schedule: { how: 'repeats', words: 'now and then' } }, 'words'],
  [{ schedule: { how: 'repeats', cron: '* * * *' } }, 'cron'],
  [{ schedule: { how: 'repeats', words: 'daily', zone: 'Middle/Earth' } }, 'schedule.zone'],
  [{ schedule: { how: 'once', at: '2026-02-31T07:00' } }, 'schedule.at'],
  [{ schedule: { how: 'after', plan: 'none' } }, 'schedule.plan'],
  [{ tell: { ...UNTOLD, ways: ['pigeon'] } }, 'tell.ways'],
])('a plan that cannot be is refused by the field that is wrong: %j', async (wrong, field) => {
  const wish = {
    kind: 'tape',
    name: 'X',
    target: { tape: targets },
    schedule: { how: 'hand' },
    tell: UNTOLD,
    ...wrong,
  };
  const { status, body } = (await desk.api.post('/api/plans').send(wish)) as Answered<unknown>;
  expect([status, (body as Wrong).error.field]).toEqual([400, field]);
});

test('a run that fails says why, and nothing is lost of those before', async () => {
  const id = await desk.saved('Short-lived', []);
  const plan = await desk.plan({ kind: 'tape', name: 'Short-lived', target: { tape: id } });
  expect((await desk.ran(plan.key)).state).toBe('done');
  await desk.api.delete(`/api/tapes/${id}`);
  expect(await desk.ran(plan.key)).toMatchObject({
    state: 'failed',
    message: expect.stringContaining('not there any more'),
  });
  const { plan: now, runs: own } = (await desk.api.get(`/api/plans/${plan.key}`)).body as PlanAnswer;
  expect(now.trouble).toMatch(/names nothing/);
  expect(own.map(({ state }) => state)).toEqual(['failed', 'done']);
});
