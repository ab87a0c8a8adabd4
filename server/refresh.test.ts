import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import Database from 'better-sqlite3';
import fc from 'fast-check';
import { join } from 'node:path';
import type { MatchListAnswer } from '../contract/matches.ts';
import type {
  RowsAnswer,
  SourceChangesAnswer,
  SourceView,
  UploadAnswer,
  WordedTally,
} from '../contract/responses.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** A newer version of a source, put in the place of the older. */

const server = new TestServer();
beforeAll(() => server.start(3));
afterAll(() => server.stop());

const HEAD = 'Company,Registration number,Country,Town,Employees,Website';
const OLD = [
  HEAD,
  'Alder Works,11111111,CZ,Brno,20,alder.example',
  'Birch Works,22222222,CZ,Brno,30,birch.example',
  'Cedar Works,33333333,CZ,Brno,40,',
];
const NEW = [
  'Country,Company,Registration number,Town,Employees,Website,Remark',
  'CZ,Alder Works,11111111,Brno,20,alder.example,as before',
  'CZ,Birch Works,22222222,Praha,45,birch.example,moved',
  'CZ,Dogwood Works,44444444,Brno,5,,',
];

const load = async (lines: string[], more: object) => {
  const file = (await server.upload('firms.csv', Buffer.from(lines.join('\n')))).body as UploadAnswer;
  const { job } = await server.load(file, more);
  expect([job.message, job.state]).toEqual([null, 'done']);
  return job.result!;
};
const sources = async () =>
  ((await server.api.get('/api/sources')).body as { sources: SourceView[] }).sources;
const remove = async (key: string) => {
  const { job } = (await server.api.delete(`/api/sources/${key}`)).body as { job: { id: string } };
  expect((await server.ended(job.id)).job.state).toBe('done');
};
const count = async (lines: object[] = []) =>
  ((await server.api.post('/api/tally').send({ tape: tape(lines) })).body as WordedTally).tally;
const companies = () => {
  const db = new Database(join(server.dir, 'universe.sqlite'), { readonly: true });
  const rows = db.prepare<[], Record<string, unknown>>('SELECT * FROM company ORDER BY key').all();
  const held = db
    .prepare('SELECT c.key, r.cells FROM record r JOIN company c ON c.id = r.company_id ORDER BY 1, 2')
    .raw()
    .all();
  db.close();
  // Since when a company is there is another once it was away.
  return { rows: rows.map(({ id: _, came_on: __, came_with: ___, ...row }) => row), held };
};

test('a file that comes again is known, until its source was made of another', async () => {
  const again = async (lines: string[]) =>
    ((await server.upload('again.csv', Buffer.from(lines.join('\n')))).body as UploadAnswer).sameAs;
  expect(await again(OLD)).toBeNull();
  await load(OLD, { name: 'Known' });
  expect(await again(OLD)).toBe('known');
  expect(await again([...OLD, 'Elm Works,55555555,CZ,Brno,50,'])).toBeNull();
  await load(NEW, { name: 'Known', refreshes: 'known' });
  expect([await again(OLD), await again(NEW)]).toEqual([null, 'known']);
  await remove('known');
  expect(await again(NEW)).toBeNull();
});

describe('a refresh', () => {
  test('says what is new, changed and gone, and keeps the key of the source', async () => {
    await load(OLD, { name: 'Firms' });
    const { refreshed } = await load(NEW, { name: 'Firms', asOf: '2026-10-31', refreshes: 'firms' });
    expect(refreshed).toMatchObject({ before: 3, added: 1, gone: 1, now: 3, changed: 1, keptAs: null });
    expect(await sources()).toMatchObject([
      { key: 'firms', asOf: '2026-10-31', rowsRead: 3, companies: 3, refreshed },
    ]);
    expect(await count([{ id: 's', field: 'source', test: { any: ['firms'] } }])).toBe(3);
    const of = async (what: string) =>
      ((await server.api.get(`/api/sources/firms/changes?what=${what}`)).body as SourceChangesAnswer).changes;
    expect(await of('changed')).toEqual([
      {
        ...{ key: 'CZ-22222222', name: 'Birch Works', there: true },
        changes: { town: { was: 'Brno', is: 'Praha' }, headcount: { was: '30', is: '45' } },
      },
    ]);
    expect(await of('new')).toMatchObject([{ key: 'CZ-44444444', there: true }]);
    expect(await of('gone')).toMatchObject([{ key: 'CZ-33333333', name: 'Cedar Works', there: false }]);
    expect((await server.api.get('/api/sources/firms/changes?what=moved')).status).toBe(400);
  });

  test('what changed becomes a list, with what it was and is', async () => {
    const made = await server.api
      .post('/api/sources/firms/list')
      .send({ what: 'changed', name: 'Changed in October' });
    const { list, added } = made.body as MatchListAnswer;
    expect([made.status, added]).toEqual([201, 1]);
    const shown = await server.api.post('/api/rows').send({
      tape: tape([{ id: 'l', field: 'list', test: { any: [list.key] } }]),
      columns: ['name', 'member:carried:l'],
    });
    expect((shown.body as RowsAnswer).rows[0]!.cells['member:carried:l']).toBe(
      'town: Brno → Praha; headcount: 30 → 45',
    );
  });

  test('keeps what is gone as a source of its own where that is asked', async () => {
    const { refreshed } = await load(OLD, { name: 'Firms', refreshes: 'firms', gone: 'kept' });
    expect(refreshed).toMatchObject({
      before: 3,
      added: 1,
      gone: 1,
      now: 3,
      changed: 1,
      keptAs: 'firms-gone',
    });
    expect(await count()).toBe(4);
    expect((await sources()).map(({ key, companies: own }) => [key, own]).sort()).toEqual([
      ['firms', 3],
      ['firms-gone', 1],
    ]);
    await remove('firms-gone');
    expect(await count()).toBe(3);
  });

  test('is refused by name where there is nothing to be newer than', async () => {
    const file = (await server.upload('firms.csv', Buffer.from(OLD.join('\n')))).body as UploadAnswer;
    const { upload, encoding, delimiter, hasHeader, mapping } = file;
    const answer = await server.api.post('/api/sources').send({
      ...{ upload, name: 'Firms', asOf: '2026-09-30', read: { encoding, delimiter, hasHeader }, mapping },
      refreshes: 'no-such',
    });
    expect([answer.status, answer.body]).toMatchObject([
      404,
      { error: { code: 'unknown-source', value: 'no-such' } },
    ]);
  });
});

test('A, then B, A anew and B removed is the newest A alone', async () => {
  for (const { key } of await sources()) await remove(key);
  const firm = fc.record({
    number: fc.integer({ min: 0, max: 8 }),
    town: fc.constantFrom('Brno', 'Praha', 'Zlín'),
    staff: fc.constantFrom('', '5', '50'),
  });
  const file = fc.uniqueArray(firm, { minLength: 1, maxLength: 6, selector: ({ number }) => number });
  const lines = (firms: { number: number; town: string; staff: string }[]) => [
    HEAD,
    ...firms.map(({ number, town, staff }) => `Firm ${number},1000000${number},CZ,${town},${staff},`),
  ];
  await fc.assert(
    fc.asyncProperty(file, file, file, async (first, other, newest) => {
      await load(lines(first), { name: 'A' });
      await load(lines(other), { name: 'B' });
      await load(lines(newest), { name: 'A', refreshes: 'a' });
      await remove('b');
      const refreshed = companies();
      await remove('a');
      await load(lines(newest), { name: 'A' });
      const alone = companies();
      await remove('a');
      expect(refreshed).toEqual(alone);
      expect(companies().rows).toEqual([]);
    }),
    { numRuns: 3 },
  );
}, 240_000);
