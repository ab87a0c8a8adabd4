import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { ListView } from '../contract/lists.ts';
import type { RecordAnswer, RowsAnswer, UploadAnswer, WordedTally } from '../contract/responses.ts';
import { columnFields } from '../core/fields/registry.ts';
import type { Line } from '../core/tape/nodes.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** Brands from files: loaded, counted, kept off, handed over and loaded again. */

const FIRMS = `name,registration number,country,web
Lakovna,1001,CZ,lakovna.example
Torvik,1002,CZ,torvik.example
Veldin,1003,PL,veldin.example`;
const BRANDS =
  `Brand;Owner;Resellers;Resellers without consent;Category;Share by channel;Change dealers;Products;Market share;Sold in;Last checked
Quelbek;lakovna.example;torvik.example;;coatings;dealers 62,5; direct 37,5;-2,5;120;4,5;CZ, AT;2026-09-01`
    .split('\n')
    .map((line, i) =>
      i === 0 ? line : line.replace('dealers 62,5; direct 37,5', '"dealers 62,5; direct 37,5"'),
    )
    .concat(
      'Pelvon;Lakovna;;Veldin;furniture;;;80;;none;',
      'Nobody;;;;coatings;;;;;;',
      'Faraway;Nowhere Ltd;;;boats;"marketplaces 100";;;;;',
    )
    .join('\n');

const server = new TestServer();
const read = ({ encoding, delimiter }: UploadAnswer) => ({ encoding, delimiter, hasHeader: true });
async function load(at: TestServer, name: string, text: string, more: object = {}) {
  const file = (await at.upload(`${name}.csv`, Buffer.from(text))).body as UploadAnswer;
  return {
    file,
    job: (await at.load(file, { name, read: { ...read(file), subject: file.subject }, ...more })).job,
  };
}
const brandTape = (lines: Line[] = []) => ({ ...tape([]), subject: 'brands', lines });
const columns = columnFields('brands')
  .map(({ id }) => id)
  .filter((id) => !['source', 'handed-over', 'joined'].includes(id));
const rows = async (at: TestServer, of: object, shown = columns) => {
  const asked = { tape: of, columns: shown, sort: [{ by: 'name' }], offset: 0, limit: 50 };
  return ((await at.api.post('/api/rows').send(asked)).body as RowsAnswer).rows;
};
const tally = async (of: object) =>
  (await server.api.post('/api/tally').send({ tape: of })).body as WordedTally;

beforeAll(async () => {
  await server.start(3);
  expect((await load(server, 'Firms', FIRMS)).job.state).toBe('done');
});
afterAll(() => server.stop());

test('a file of brands is known by its headings and lands with its companies; a row without any is refused', async () => {
  const { file, job } = await load(server, 'Brands', BRANDS, { covers: ['CZ'] });
  expect([file.subject, file.mapping.columns]).toEqual([
    'brands',
    [
      ...['name', 'party-owner', 'party-resold', 'party-unconsented', 'category', 'channel'],
      ...['channel-change-dealers', 'products', 'share', 'sold-in', 'checked'],
    ],
  ]);
  expect(job).toMatchObject({ state: 'done', result: { read: 4, refused: 1, left: 0 } });
  const found = await rows(server, brandTape());
  expect(
    found.map(({ cells }) => [cells.name, cells.owner, cells.resellers, cells.channel, cells['sold-in']]),
  ).toEqual([
    ['Faraway', ['Nowhere Ltd'], [], ['marketplaces 100'], null],
    ['Pelvon', ['Lakovna'], ['Veldin'], null, []],
    ['Quelbek', ['Lakovna'], ['Torvik'], ['dealers 62.5', 'direct 37.5'], ['Austria', 'Czechia']],
  ]);
});

describe('what companies know of them', () => {
  const companies = (...lines: Line[]) => tape([...lines]);
  test('is which they own and resell, with or without consent, and their shares', async () => {
    const has = (as: string): Line => ({ id: 'h', has: 'brands', as, lines: [] });
    const names = async (line: Line) =>
      (await rows(server, companies(line), ['name'])).map(({ cells }) => cells.name);
    expect(await names(has('owner'))).toEqual(['Lakovna']);
    expect(await names(has('reseller'))).toEqual(['Torvik', 'Veldin']);
    expect(await names(has('unconsented'))).toEqual(['Veldin']);
    // Who resells without a word on consent is neither with nor without it.
    expect(await names(has('consented'))).toEqual([]);
    const dealers: Line = { id: 'c', field: 'channel', test: { key: 'dealers', from: 60 } };
    expect((await tally(companies(dealers))).tally).toBe(1);
  });
  test('keeps the brands of an owner on a suppression list off, and not what it resells', async () => {
    const list = (
      (await server.api.post('/api/lists').send({ name: 'Off', suppression: 'members' })).body as {
        list: ListView;
      }
    ).list;
    const keys = (await rows(server, companies(), ['name']))
      .filter(({ cells }) => cells.name !== 'Veldin')
      .map(({ key }) => key);
    await server.api.post(`/api/lists/${list.key}/members`).send({ tape: companies(), keys });
    expect((await tally(brandTape())).suppressed).toBe(2);
    await server.api.delete(`/api/lists/${list.key}`);
  });
  test('is on the page of a brand by role', async () => {
    const [quelbek] = (await rows(server, brandTape(), ['name'])).filter(
      ({ cells }) => cells.name === 'Quelbek',
    );
    const page = (await server.api.get(`/api/records/brands/${quelbek!.key}`)).body as RecordAnswer;
    expect(page.parties.map(({ role, name }) => [role, name])).toEqual([
      ['owner', 'Lakovna'],
      ['resold', 'Torvik'],
    ]);
  });
});

test('what is handed over loads into an empty workspace as the same brands', async () => {
  const asked = { tape: brandTape(), name: 'All', format: 'csv', columns };
  const begun = (await server.api.post('/api/exports').send(asked)).body as {
    job: { id: string };
    export: string;
  };
  await server.ended(begun.job.id);
  const text = (await server.api.get(`/api/exports/${begun.export}/file`)).text;
  const to = new TestServer();
  await to.start(4);
  await load(to, 'Firms', FIRMS);
  const { file, job } = await load(to, 'Again', text);
  expect([file.subject, file.mapping.columns.includes(null)]).toEqual(['brands', false]);
  expect(job).toMatchObject({ state: 'done', result: { read: 3, refused: 0, left: 0 } });
  const plain = async (at: TestServer) => (await rows(at, brandTape())).map(({ cells }) => cells);
  const [before, after] = [await plain(server), await plain(to)];
  await to.stop();
  expect(after).toEqual(before);
});

test('a newer file keeps each brand under its key, and says what changed, came and went', async () => {
  const keyOf = async (name: string) =>
    (await rows(server, brandTape(), ['name'])).find(({ cells }) => cells.name === name)?.key;
  const before = await keyOf('Quelbek');
  const newer = `Brand;Owner;Category;Products
Quelbek;lakovna.example;coatings;150
Newcome;torvik.example;boats;5`;
  const file = (await server.upload('newer.csv', Buffer.from(newer))).body as UploadAnswer;
  const { sources } = (await server.api.get('/api/sources')).body as {
    sources: { key: string; name: string }[];
  };
  const { job } = await server.load(file, {
    name: 'Brands',
    read: { ...read(file), subject: 'brands' },
    refreshes: sources.find(({ name }) => name === 'Brands')!.key,
    gone: 'removed',
  });
  expect(job).toMatchObject({ state: 'done' });
  expect(await keyOf('Quelbek')).toBe(before);
  const found = await rows(server, brandTape(), ['name', 'products']);
  expect(found.map(({ cells }) => [cells.name, cells.products])).toEqual([
    ['Newcome', 5],
    ['Quelbek', 150],
  ]);
});
