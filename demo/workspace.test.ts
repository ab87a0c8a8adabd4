import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { startDemo } from './demo-server.ts';
import { tape, TestServer } from '../server/testing/test-server.ts';

/** Lists, saved tapes and groups of countries, and what tapes make of them. */

const server = new TestServer();
beforeAll(async () => {
  await startDemo(server, 3000);
}, 60_000);
afterAll(() => server.stop());

const joineries = tape([
  { id: 'a', field: 'industry', test: { scheme: 'nace-2.1', any: ['16.23', '43.32'] } },
]);
const bodyOf = async (request: Promise<{ body: unknown }>): Promise<unknown> => (await request).body;
const tally = async (lines: object[]) =>
  (await server.api.post('/api/tally').send({ tape: tape(lines) })).body as { tally: number; reads: string };

describe('a list', () => {
  test('takes the companies of a tape once each, and lines see it at once', async () => {
    const body = await bodyOf(server.api.post('/api/lists').send({ name: 'Joineries' }));
    expect(body).toMatchObject({ list: { key: 'joineries', name: 'Joineries', members: 0 } });
    const count = (await tally([...joineries.lines])).tally;
    const add = () => server.api.post('/api/lists/joineries/members').send({ tape: joineries });
    expect((await add()).body).toMatchObject({ added: count, of: count });
    expect((await add()).body).toMatchObject({ added: 0, of: count });
    const on = { id: 'l', field: 'list', test: { any: ['joineries'] } };
    expect((await tally([on])).tally).toBe(count);
    expect((await tally([...joineries.lines, { ...on, not: true }])).tally).toBe(0);
    await server.api.delete('/api/lists/joineries');
    const gone = await server.api.post('/api/tally').send({ tape: tape([on]) });
    expect(gone.status).toBe(400);
    expect(gone.body).toMatchObject({ error: { code: 'unknown-list', value: 'joineries' } });
  });
  test('is refused under a name that is taken', async () => {
    await server.api.post('/api/lists').send({ name: 'Twice' });
    const again = await server.api.post('/api/lists').send({ name: 'Twice' });
    expect(again.body).toMatchObject({ error: { code: 'name-taken', field: 'name', value: 'Twice' } });
  });
});

describe('saved tapes', () => {
  test('the demo’s read as sentences, are counted now, and one of them opens the program', async () => {
    const { tapes } = (await server.api.get('/api/tapes')).body as {
      tapes: { name: string; now: number | null; reads: string; kind: string }[];
    };
    expect(tapes.map(({ kind }) => kind).sort()).toEqual(['part', 'tape', 'tape', 'tape', 'tape']);
    for (const saved of tapes) {
      expect(saved.reads).toMatch(/^Companies with .*\.$/);
      expect(saved.now).not.toBeNull();
    }
    const { tape: opening } = (await server.api.get('/api/opening')).body as { tape: { name: string } };
    expect(opening.name).toMatch(/^Targets/);
  });
  test('keep what they left then, and say so when they name what is gone', async () => {
    await server.api.post('/api/lists').send({ name: 'Short lived' });
    const lines = [{ id: 'l', field: 'list', test: { any: ['short-lived'] }, not: true }];
    const saved = await server.api
      .post('/api/tapes')
      .send({ tape: tape(lines), kind: 'tape', name: 'Others' });
    expect(saved.status).toBe(201);
    const { id } = (saved.body as { tape: { id: string } }).tape;
    expect(saved.body).toMatchObject({ tape: { then: 3000, now: 3000, trouble: null } });
    await server.api.delete('/api/lists/short-lived');
    const body = await bodyOf(server.api.get(`/api/tapes/${id}`));
    expect(body).toMatchObject({
      tape: { now: null, trouble: 'There is no list "short-lived" of companies in this workspace.' },
    });
    expect((await server.api.delete(`/api/tapes/${id}`)).status).toBe(204);
    expect((await server.api.get(`/api/tapes/${id}`)).status).toBe(404);
  });
});

test('a group of countries of one’s own counts like its countries', async () => {
  await server.api.put('/api/country-groups/our-north').send({ label: 'Our north', countries: ['DK', 'SE'] });
  const by = (countries: string[]) => tally([{ id: 'a', field: 'place', test: { countries } }]);
  expect((await by(['our-north'])).tally).toBe((await by(['DK', 'SE'])).tally);
  expect((await by(['our-north'])).reads).toBe('Companies with place in Our north.');
  const taken = await server.api.put('/api/country-groups/nordic').send({ label: 'Mine', countries: ['DK'] });
  expect(taken.body).toMatchObject({ error: { field: 'key', value: 'nordic' } });
});

test('alternatives are what the tape leaves with each test in place of a line’s own', async () => {
  const lines = [
    ...joineries.lines,
    { id: 'h', field: 'headcount', test: { from: 5, to: 20 }, unknown: 'keep' },
  ];
  const tests = [{ from: 2, to: 20 }, { from: 10, to: 20 }, { to: 50 }];
  const body = await bodyOf(server.api.post('/api/alternatives').send({ tape: tape(lines), at: 'h', tests }));
  const counts: number[] = [];
  for (const test of tests) counts.push((await tally([lines[0]!, { ...lines[1]!, test }])).tally);
  expect(body).toEqual({ counts });
  const missing = await server.api.post('/api/alternatives').send({ tape: tape(lines), at: 'x', tests });
  expect(missing.body).toMatchObject({ error: { code: 'unknown-line', value: 'x' } });
});

test('a code answers with its note, its kin, and what it is often filed together with', async () => {
  const body = await bodyOf(server.api.get('/api/codes/naics-2022/332812'));
  expect(body).toMatchObject({
    title: expect.stringContaining('Coating'),
    note: { text: expect.stringContaining('coating'), from: 'naics-2017 332812' },
  });
  const { kin } = (await server.api.get('/api/codes/nace-2.1/25.51')).body as {
    kin: { scheme: string; sure: boolean }[];
  };
  expect(kin.some(({ scheme, sure }) => scheme === 'isic-4' && sure)).toBe(true);
  expect(kin.some(({ scheme, sure }) => scheme === 'naics-2022' && sure)).toBe(false);
  expect((await server.api.get('/api/codes/nace-2.1/99.99')).status).toBe(404);
});

test('the plane places every company with two single figures once', async () => {
  const body = await bodyOf(server.api.post('/api/plane').send({ tape: joineries, currency: 'CZK' }));
  const { counts, placed, total } = body as { counts: number[]; placed: number; total: number };
  expect(counts.reduce((sum, count) => sum + count, 0)).toBe(placed);
  expect(total).toBe((await tally([...joineries.lines])).tally);
});
