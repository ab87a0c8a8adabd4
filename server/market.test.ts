import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { BreakdownAnswer, ClustersAnswer, StandingAnswer } from '../contract/market.ts';
import type { ColumnSetView, FoundAnswer, RowsAnswer, UploadAnswer } from '../contract/responses.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** Who is left as the API tells it: papers, finds, notes, column sets, and what is refused. */

const server = new TestServer();
const NAMES = [
  'Žluťásek Okna s.r.o.',
  'Łódź Lakiernia Sp. z o.o.',
  'Kovács Hajó Kft.',
  'Tarn Coatings Ltd',
  'Tarn Coatings West Ltd',
  'Kostrava Povrchy a.s.',
];
const ROWS = NAMES.map(
  (name, i) =>
    `${name},10${i},CZ,Brno,${20 + 10 * i},${1 + i}000000,25.51,www.firm${i}.example,${i > 2 ? 'Tarn Group' : ''}`,
);

beforeAll(async () => {
  await server.start(1);
  const file = `name,registration number,country,town,employees,revenue,nace,web,group name\n${ROWS.join('\n')}`;
  const preview = (await server.upload('firms.csv', Buffer.from(file))).body as UploadAnswer;
  expect((await server.load(preview)).job.state).toBe('done');
});
afterAll(() => server.stop());

const post = async <T>(path: string, body: object) => (await server.api.post(path).send(body)).body as T;

describe('papers', () => {
  /** The text of a paper as a reader of PDF gives it. */
  const read = async (body: object) => {
    const answer = await server.api
      .post('/api/papers')
      .send(body)
      .buffer(true)
      .parse((response, done) => {
        const chunks: Buffer[] = [];
        response.on('data', (chunk: Buffer) => chunks.push(chunk));
        response.on('end', () => done(null, Buffer.concat(chunks)));
      });
    expect([answer.status, answer.type]).toEqual([200, 'application/pdf']);
    const path = join(server.dir, 'paper.pdf');
    writeFileSync(path, answer.body as Buffer);
    const fonts = spawnSync('pdffonts', [path], { encoding: 'utf8' }).stdout;
    for (const font of fonts.trim().split('\n').slice(2)) expect(font).toMatch(/ yes +yes +yes /);
    return spawnSync('pdftotext', ['-layout', path, '-'], { encoding: 'utf8' }).stdout;
  };
  const named = { ...tape([{ id: 'a', field: 'headcount', test: { from: 30 } }]), name: 'Coaters from 30' };

  test('print the sheet with its tape in words, order, sources, and names in every alphabet of theirs', async () => {
    const text = await read({
      kind: 'sheet',
      tape: named,
      columns: ['name', 'headcount', 'revenue'],
      sort: [{ by: 'headcount', descending: true }],
    });
    expect(text).toContain('Coaters from 30');
    expect(text).toContain('5 companies, by headcount downwards');
    expect(text).toContain('Headcount 30 or more');
    expect(text).toContain('Branch list, 2026-09-30');
    expect(text).toMatch(/page 1 of 1/);
    const order = NAMES.slice(1)
      .reverse()
      .map((name) => text.indexOf(name));
    expect(order.every((at, i) => at > 0 && (i === 0 || at > order[i - 1]!))).toBe(true);
    expect(text).toContain('6,000,000');
  });
  test('print a profile, a Breakdown, and a market summary on two pages of Letter', async () => {
    const { rows } = await post<RowsAnswer>('/api/rows', { tape: tape([]), columns: ['name'] });
    const profile = await read({ kind: 'profile', key: rows[0]!.key });
    for (const part of [NAMES[0], 'Codes', '25.51', 'www.firm0.example'.slice(4)])
      expect(profile).toContain(part);
    const breakdown = await read({ kind: 'breakdown', tape: named });
    for (const part of [
      'Where they are',
      'How concentrated, by revenue',
      'HHI',
      'lines on size left out: Headcount 30 or more',
      'What is known',
    ])
      expect(breakdown.replaceAll(/\s+/g, ' ')).toContain(part);
    const summary = await read({ kind: 'summary', tape: named, size: 'Letter' });
    expect(summary).toContain('page 2 of 2');
    expect(summary).toContain('Market summary: 5 companies');
  });
});

test('names are found within the result, in its order', async () => {
  const sort = [{ by: 'headcount', descending: true }];
  expect(await post<FoundAnswer>('/api/find', { tape: tape([]), sort, text: 'tarn coat' })).toEqual({
    total: 2,
    positions: [1, 2],
  });
  expect(await post<FoundAnswer>('/api/find', { tape: tape([]), sort, text: 'tarn coat', from: 1 })).toEqual({
    total: 2,
    positions: [2],
  });
  expect(await post<FoundAnswer>('/api/find', { tape: tape([]), text: 'LODZ' })).toEqual({
    total: 1,
    positions: [1],
  });
});

test('a group counts as one, and each of its companies can be ordered by the whole of it', async () => {
  const found = await post<BreakdownAnswer>('/api/breakdown', { tape: tape([]) });
  expect(found.concentration!.headcount).toMatchObject({
    groups: 1,
    companies: 6,
    found: { units: 4, total: 270, largest: [{ units: 1, share: (100 * 180) / 270 }, { units: 4 }] },
  });
  const { rows } = await post<RowsAnswer>('/api/rows', {
    tape: tape([]),
    columns: ['name', 'group:headcount'],
    sort: [{ by: 'group:headcount', descending: true }],
  });
  expect(rows.map(({ cells }) => cells['group:headcount'])).toEqual([180, 180, 180, 40, 30, 20]);
});

test('a company stands among those of its industry by percentile', async () => {
  const { rows } = await post<RowsAnswer>('/api/rows', { tape: tape([]), columns: ['name'] });
  const answer = await server.api.get(`/api/companies/${rows[3]!.key}/standing`);
  const { among, strips } = answer.body as StandingAnswer;
  expect(among).toEqual({ label: '25.5 Treatment and coating of metals; machining', count: 6 });
  expect(strips.find(({ field }) => field === 'headcount')).toMatchObject({
    value: 50,
    known: 6,
    percentile: 50,
  });
});

test('clusters hold everybody in view once', async () => {
  const view = { west: 10, east: 20, south: 45, north: 55 };
  const found = await post<ClustersAnswer>('/api/clusters', { tape: tape([]), ...view });
  expect([found.located, found.inView, found.singles.length]).toEqual([6, 6, 6]);
  expect((await post<ClustersAnswer>('/api/clusters', { tape: tape([]), ...view, west: 19.9 })).inView).toBe(
    0,
  );
});

test('notes and column sets are kept, and one set is the usual', async () => {
  await server.api.put('/api/notes/companies/CZ-100').send({ text: '  ring in May ' });
  expect((await server.api.get('/api/notes/companies/CZ-100')).body).toMatchObject({ text: 'ring in May' });
  await server.api.put('/api/notes/companies/CZ-100').send({ text: '' });
  expect((await server.api.get('/api/notes/companies/CZ-100')).body).toEqual({ text: '', changedAt: null });
  const add = (name: string) =>
    server.api
      .post('/api/column-sets')
      .send({ subject: 'companies', name, columns: ['name', 'web'], usual: true });
  expect([(await add('Calls')).status, (await add('Visits')).status, (await add('Calls')).status]).toEqual([
    201, 201, 400,
  ]);
  const { sets } = (await server.api.get('/api/column-sets')).body as { sets: ColumnSetView[] };
  expect(sets.map(({ name, usual }) => [name, usual])).toEqual([
    ['Calls', false],
    ['Visits', true],
  ]);
});

test.each([
  [
    'a chart of a field there is not',
    '/api/charts',
    { charts: [{ id: 'a', shape: 'bars', by: { field: 'mood' }, measure: { of: 'count' } }] },
    'charts[0].by.field',
  ],
  [
    'stacked means',
    '/api/charts',
    {
      charts: [
        {
          id: 'a',
          shape: 'stacked',
          by: { field: 'status' },
          split: { field: 'status' },
          measure: { of: 'mean', field: 'headcount' },
        },
      ],
    },
    'charts[0].measure.of',
  ],
  [
    'a sum of names',
    '/api/charts',
    { charts: [{ id: 'a', shape: 'bars', by: { field: 'status' }, measure: { of: 'sum', field: 'name' } }] },
    'charts[0].measure.field',
  ],
  ['a view without width', '/api/clusters', { west: 4, east: 4, south: 1, north: 2 }, 'east'],
  ['paper of another size', '/api/papers', { kind: 'sheet', size: 'A5' }, 'size'],
  ['a set of columns there are not', '/api/column-sets', { name: 'x', columns: ['mood'] }, 'columns'],
  [
    'peers of nobody',
    '/api/tally',
    { tape: tape([{ id: 'p', field: 'peers', test: { like: ['XX-1'], from: 0.5 } }]) },
    'lines[0].test.like[0]',
  ],
  [
    'peers more than alike',
    '/api/tally',
    { tape: tape([{ id: 'p', field: 'peers', test: { list: 'x', from: 2 } }]) },
    'lines[0].test.from',
  ],
])('%s is refused by name', async (_, path, body, field) => {
  const needsTape = path !== '/api/column-sets';
  const answer = await server.api.post(path).send({ ...(needsTape ? { tape: tape([]) } : {}), ...body });
  expect(answer.status).toBe(400);
  expect((answer.body as { error: { field: string } }).error.field).toBe(field);
});
