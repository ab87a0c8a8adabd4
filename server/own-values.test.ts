import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { ListView } from '../contract/lists.ts';
import type { PrecedenceAnswer } from '../contract/own-values.ts';
import type {
  ProfileAnswer,
  RowsAnswer,
  SourceView,
  UploadAnswer,
  WordedTally,
} from '../contract/responses.ts';
import type { TriedSites } from './gather/try-sites-worker.ts';
import type { PrecedenceResult } from './load/precedence-worker.ts';
import { companySite } from './gather/stand-in/company-site.ts';
import { StandInFirms } from './gather/stand-in/firms.ts';
import { openUniverse } from './db/open.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** What we ourselves say of companies over what their sources say, through the API. */

const server = new TestServer();
const FIRMS = 160;
const KEY = 'CZ-00001000';

const REGISTER = Array.from(
  { length: FIRMS },
  (_, i) =>
    `Firm ${i} s.r.o.,${i + 1000},CZ,Brno,${i % 8 === 7 ? '' : `firm-${i}.example`},40,+420 000 000 ${100 + i}`,
);
const DIRECTORY = ['Firm 0,1000,CZ,Praha,firm-0.example,90,+420 111 111 111,2026-06-01'];

const begin = async (method: 'post' | 'put', path: string, body: object) => {
  const begun = await server.api[method](`/api${path}`).send(body);
  expect([begun.status, begun.body]).toEqual([202, expect.anything()]);
  const { job } = await server.ended((begun.body as { job: { id: string } }).job.id);
  expect([job.message, job.state]).toEqual([null, 'done']);
  return job.result!;
};
const correct = (corrections: object[], key = KEY) =>
  begin('post', `/companies/${key}/corrections`, { corrections });
const profile = async () => (await server.api.get(`/api/companies/${KEY}`)).body as ProfileAnswer;
const count = async (...lines: object[]) =>
  ((await server.api.post('/api/tally').send({ tape: tape(lines) })).body as WordedTally).tally;
const load = async (name: string, header: string, rows: string[]) => {
  const file = await server.upload(`${name}.csv`, Buffer.from([header, ...rows].join('\n')));
  expect((await server.load(file.body as UploadAnswer, { name })).job.state).toBe('done');
};

beforeAll(async () => {
  await server.start(3);
  await load('Register', 'name,registration number,country,town,web,employees,phone', REGISTER);
  await load('Directory', 'name,registration number,country,town,web,employees,phone,checked on', DIRECTORY);
});
afterAll(() => server.stop());

describe('a value corrected by hand', () => {
  test('wins over the sources, is counted, and says why and when', async () => {
    expect(await count({ id: 'a', field: 'headcount', test: { from: 55, to: 55 } })).toBe(0);
    await correct([
      { field: 'headcount', value: '55', reason: 'told on the phone' },
      { field: 'phone', value: '' },
    ]);
    expect(await count({ id: 'a', field: 'headcount', test: { from: 55, to: 55 } })).toBe(1);
    expect(await count({ id: 'a', field: 'corrected', test: { any: ['headcount'] } })).toBe(1);
    const { row, from, corrections } = await profile();
    expect(row.cells.headcount).toMatchObject({ amount: 55 });
    expect(row.cells.phone).toBeNull();
    expect([from.headcount, from.phone]).toEqual([-1, -1]);
    expect(corrections.map(({ field, value, reason }) => [field, value, reason])).toEqual(
      expect.arrayContaining([
        ['headcount', '55', 'told on the phone'],
        ['phone', '', ''],
      ]),
    );
  });
  test('outlives its company, which goes and comes again', async () => {
    const { sources } = (await server.api.get('/api/sources')).body as { sources: SourceView[] };
    for (const { key } of sources) {
      const begun = await server.api.delete(`/api/sources/${key}`);
      await server.ended((begun.body as { job: { id: string } }).job.id);
    }
    expect(await count()).toBe(0);
    await load('Register', 'name,registration number,country,town,web,employees,phone', REGISTER);
    expect(await count({ id: 'a', field: 'headcount', test: { from: 55, to: 55 } })).toBe(1);
    await load(
      'Directory',
      'name,registration number,country,town,web,employees,phone,checked on',
      DIRECTORY,
    );
    expect((await profile()).row.cells.headcount).toMatchObject({ amount: 55 });
  });
  test('is taken back', async () => {
    await correct([
      { field: 'headcount', value: null },
      { field: 'phone', value: null },
    ]);
    const { row, corrections } = await profile();
    expect([row.cells.headcount, corrections]).toEqual([expect.objectContaining({ amount: 90 }), []]);
    expect(await count({ id: 'a', field: 'corrected', test: { any: ['headcount'] } })).toBe(0);
  });
  test.each([
    [{ field: 'headcount', value: 'a dozen or so' }, 'headcount', /a dozen or so/],
    [{ field: 'web', value: 'no address' }, 'web', /web address/],
    [{ field: 'name', value: ' ' }, 'name', /name/],
    [{ field: 'main-code', value: '99.999' }, 'main-code', /99\.999/],
    [{ field: 'status', value: 'sleeping' }, 'status', /active, dormant or closed/],
  ])('that cannot be understood is refused with what it must be: %j', async (one, field, message) => {
    const answer = await server.api.post(`/api/companies/${KEY}/corrections`).send({ corrections: [one] });
    const { error } = answer.body as { error: { field: string; message: string } };
    expect([answer.status, error.field]).toEqual([400, `corrections.${field}`]);
    expect(error.message).toMatch(message);
    expect((await profile()).corrections).toEqual([]);
  });
  test('of what is no company or no value is refused', async () => {
    const post = (key: string, corrections: unknown) =>
      server.api.post(`/api/companies/${key}/corrections`).send({ corrections });
    expect((await post('CZ-0', [{ field: 'phone', value: '1' }])).status).toBe(404);
    expect((await post(KEY, [{ field: 'lat', value: '1' }])).status).toBe(400);
    expect((await post(KEY, [])).status).toBe(400);
    expect((await post(KEY, [{ field: 'phone', value: 7 }])).status).toBe(400);
  });
});

test('what two sources say differently is a line', async () => {
  expect(await count({ id: 'a', field: 'disputed', test: { any: ['headcount'] } })).toBe(1);
  expect(await count({ id: 'a', field: 'disputed', test: { any: ['place'] } })).toBe(1);
  expect(await count({ id: 'a', field: 'disputed', test: { any: ['web'] } })).toBe(0);
});

describe('which source wins', () => {
  const precedence = async () => (await server.api.get('/api/precedence')).body as PrecedenceAnswer;
  test('is counted before it is changed', async () => {
    const before = await profile();
    expect([before.row.cells.place, before.row.cells.phone]).toEqual([
      expect.objectContaining({ town: 'Praha' }),
      '+420 111 111 111',
    ]);
    const { sources, groups } = await precedence();
    const register = sources.find(({ name }) => name === 'Register')!.key;
    expect(groups.map(({ group, by }) => [group, by])).toContainEqual(['contact', 'newest']);
    const wish = { groups: [{ group: 'contact', by: 'order', sources: [register] }] };
    const counted = (await begin('put', '/precedence', wish)) as PrecedenceResult;
    expect(counted).toMatchObject({ several: 1, companies: 1, values: [{ part: 'Phone', count: 1 }] });
    expect((await profile()).row.cells.phone).toBe('+420 111 111 111');
    await begin('put', '/precedence', { ...wish, apply: true });
    expect((await profile()).row.cells.phone).toBe('+420 000 000 100');
    expect((await precedence()).groups.find(({ group }) => group === 'contact')).toMatchObject({
      by: 'order',
      sources: [register],
    });
    await begin('put', '/precedence', { groups: [], apply: true });
    expect((await profile()).row.cells.phone).toBe('+420 111 111 111');
  });
  test('of what is no source, or where nothing is more exact, is refused', async () => {
    const put = (rule: object) => server.api.put('/api/precedence').send({ groups: [rule] });
    expect((await put({ group: 'contact', by: 'order', sources: ['nobody'] })).status).toBe(400);
    expect((await put({ group: 'contact', by: 'exact' })).status).toBe(400);
    expect((await put({ group: 'weather', by: 'newest' })).status).toBe(400);
  });
});

describe('websites', () => {
  test('of a list are tried, and each says how it answered and on which day', async () => {
    const { list } = (await server.api.post('/api/lists').send({ name: 'All', subject: 'companies' }))
      .body as {
      list: ListView;
    };
    await server.api.post(`/api/lists/${list.key}/members`).send({ tape: tape([]) });
    const tried = (await begin('post', '/websites/try', { list: list.key })) as TriedSites;
    const db = openUniverse(server.dir, { readonly: true });
    const firms = new StandInFirms(db, 20_260_930);
    // What the stand-in's hosts answer, asked without the network.
    const expected = { works: 0, moved: 0, parked: 0, dead: 0 };
    for (let i = 0; i < FIRMS; i++) {
      if (i % 8 === 7) continue;
      const host = `firm-${i}.example`;
      const answer = companySite(firms.at(host)!, host, '', '/')!;
      if (answer.status === 503) expected.dead++;
      else if (answer.status === 301) expected.moved++;
      else if (answer.body.includes('for sale')) expected.parked++;
      else expected.works++;
    }
    db.close();
    expect(Math.min(...Object.values(expected))).toBeGreaterThan(0);
    expect(tried).toMatchObject({ companies: FIRMS, without: FIRMS / 8, notAllowed: 0, ...expected });
    for (const [state, companies] of Object.entries(expected))
      expect(await count({ id: 'a', field: 'site-state', test: { any: [state] } })).toBe(companies);
    const { rows } = (
      await server.api.post('/api/rows').send({
        tape: tape([{ id: 'a', field: 'site-state', test: { any: ['moved'] } }]),
        columns: ['domain', 'site-moved-to', 'site-checked', 'site-answers'],
        limit: 1,
      })
    ).body as RowsAnswer;
    const { domain, ...cells } = rows[0]!.cells;
    expect(cells).toMatchObject({
      'site-moved-to': (domain as string).replace('.example', '-new.example'),
      'site-checked': new Date().toISOString().slice(0, 10),
    });
  });
  test('that may not be read are left, and said to be', async () => {
    await load('Elsewhere', 'name,registration number,country,web', ['Far,9000,CZ,far.invalid']);
    const tried = (await begin('post', '/websites/try', { companies: ['CZ-00009000'] })) as TriedSites;
    expect(tried).toMatchObject({ companies: 1, notAllowed: 1, works: 0, dead: 0 });
  });
  test('of no list, or of nobody, are refused', async () => {
    const post = (wish: object) => server.api.post('/api/websites/try').send(wish);
    expect((await post({ list: 'nobody' })).status).toBe(400);
    expect((await post({})).status).toBe(400);
    expect((await post({ companies: [] })).status).toBe(400);
  });
});
