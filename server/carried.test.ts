import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { CarriedCounts, ListRollAnswer } from '../contract/lists.ts';
import type { MatchAnswer, MatchListAnswer } from '../contract/matches.ts';
import type { RowsAnswer, UploadAnswer, WordedTally } from '../contract/responses.ts';
import type { CarriedTest } from '../core/tape/nodes.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** What a matched file says beside who its rows are: asked by lines, counted, sorted by, and carried on to further lists. */

const server = new TestServer();
let list = '';

const UNIVERSE = [
  'Company,Registration number,Country,Town',
  ...['Veldín', 'Zarmysko', 'Quelbeck', 'Tarnfeld', 'Othermark'].map(
    (name, i) => `${name} Stavby,2500000${i},CZ,Brno`,
  ),
];
const FILE = [
  'Company;Registration number;Country;Hall;Visits;Remark',
  'Veldín Stavby;25000000;CZ;A;1.250,5;Pays late, rings often',
  'Zarmysko Stavby;25000001;CZ;b;3;',
  'Quelbeck Stavby;25000002;CZ;B;n/a;Platí pozdě',
  'Tarnfeld Stavby;25000003;CZ;;12;late in the day',
];

const keys = (of: readonly { key: string }[]) => of.map(({ key }) => key.at(-1)).join('');
const onList = (carried?: CarriedTest, more: object = {}) =>
  tape([{ id: 'l', field: 'list', test: { any: [list], ...(carried ? { carried } : {}) }, ...more }]);
const kept = async (wanted: object, columns: string[] = ['name'], sort: object[] = []) =>
  ((await server.api.post('/api/rows').send({ tape: wanted, columns, sort })).body as RowsAnswer).rows;

beforeAll(async () => {
  await server.start(3);
  const upload = async (name: string, lines: string[]) =>
    (await server.upload(name, Buffer.from(lines.join('\n')))).body as UploadAnswer;
  expect((await server.load(await upload('firms.csv', UNIVERSE))).job.state).toBe('done');
  const file = await upload('fair.csv', FILE);
  const { encoding, delimiter, hasHeader, mapping } = file;
  const begun = await server.api
    .post('/api/matches')
    .send({ upload: file.upload, name: 'Fair', read: { encoding, delimiter, hasHeader }, mapping });
  const { job } = await server.ended((begun.body as { job: { id: string } }).job.id);
  const id = job.result!.match as string;
  expect(((await server.api.get(`/api/matches/${id}`)).body as MatchAnswer).match.foundCompanies).toBe(4);
  const made = await server.api.post(`/api/matches/${id}/list`).send({ name: 'Fair' });
  list = (made.body as MatchListAnswer).list.key;
}, 60_000);
afterAll(() => server.stop());

describe('what the file of a list says of its members', () => {
  test('the list knows its headings and what each is asked by', async () => {
    const { list: now } = (await server.api.get(`/api/lists/${list}`)).body as ListRollAnswer;
    expect(now.carried).toEqual([
      { column: 'Hall', kind: 'category' },
      { column: 'Visits', kind: 'number' },
      { column: 'Remark', kind: 'category' },
    ]);
  });

  test.each([
    [{ column: 'Hall', any: ['B'] }, '12'],
    [{ column: 'Hall', any: ['a', 'b'] }, '012'],
    [{ column: 'Visits', from: 12 }, '03'],
    [{ column: 'Visits', from: 3, to: 12 }, '13'],
    [{ column: 'Remark', words: 'late' }, '03'],
    [{ column: 'Remark', words: 'plati POZDE' }, '2'],
    [{ column: 'Unheard of', from: 0 }, ''],
  ] satisfies [CarriedTest, string][])('a line asks %j of it', async (carried, found) => {
    expect(keys(await kept(onList(carried)))).toBe(found);
  });

  test('of whom it says nothing is unknown, and kept or left out by choice', async () => {
    const asked = onList({ column: 'Visits', from: 12 });
    const { lines, tally } = (await server.api.post('/api/tally').send({ tape: asked })).body as WordedTally;
    expect([tally, lines[0]!.unknown]).toEqual([2, 1]);
    expect(keys(await kept(onList({ column: 'Visits', from: 12 }, { unknown: 'keep' })))).toBe('023');
    expect(keys(await kept(onList({ column: 'Visits', from: 12 }, { not: true })))).toBe('124');
    expect(keys(await kept(onList({ column: 'Visits', from: 12 }, { not: true, unknown: 'drop' })))).toBe(
      '14',
    );
  });

  test('values are counted as choosing them leaves', async () => {
    const counts = async (column: string) =>
      (
        await server.api
          .post('/api/counts')
          .send({ tape: tape([]), field: 'list', column, members: { any: [list] } })
      ).body as CarriedCounts;
    expect(await counts('Hall')).toMatchObject({
      values: [
        { key: 'b', count: 2 },
        { key: 'a', label: 'A', count: 1 },
      ],
      known: 3,
      unknown: 1,
    });
    expect(await counts('Visits')).toMatchObject({ low: 3, high: 1250.5, known: 3, unknown: 1 });
    expect((await counts('Unheard of')).values).toEqual([]);
    const refused = async (more: object) => {
      const wish = { tape: tape([]), field: 'list', column: 'Hall', ...more };
      const answer = await server.api.post('/api/counts').send(wish);
      return [answer.status, (answer.body as { error: { code: string } }).error.code];
    };
    expect(await refused({})).toEqual([400, 'wrong-value']);
    expect(await refused({ members: { any: ['nobody'] } })).toEqual([400, 'unknown-list']);
  });

  test('it is a column, sorted by numbers as numbers', async () => {
    const visits = 'carried:*:Visits';
    const down = await kept(onList(), [visits], [{ by: visits, descending: true }]);
    expect(down.map(({ cells }) => cells[visits])).toEqual(['1.250,5', '12', '3', null]);
    const hall = 'carried:l:Hall';
    const up = await kept(onList(), [hall], [{ by: hall, descending: false }]);
    expect(up.map(({ cells }) => cells[hall])).toEqual(['A', 'b', 'B', null]);
  });

  test('the same is typed, and said in words', async () => {
    const typed = await server.api
      .post('/api/typed')
      .send({ text: 'on list fair carried "Visits" 3-12', subject: 'companies' });
    const [line] = (typed.body as { lines: { id: string }[] }).lines;
    expect(line).toMatchObject({ test: { any: [list], carried: { column: 'Visits', from: 3, to: 12 } } });
    expect(keys(await kept(tape([line!])))).toBe('13');
    // What parts lines, blocks and lists does not part what stands between quotes.
    const apart = '"B; not x | y, z or w"';
    const quoted = await server.api
      .post('/api/typed')
      .send({ text: `on list fair carried "Hall" ${apart} or "A"`, subject: 'companies' });
    expect((quoted.body as { lines: object[] }).lines).toMatchObject([
      { test: { any: [list], carried: { column: 'Hall', any: [apart.replaceAll('"', ''), 'A'] } } },
    ]);
    const wrong = await server.api
      .post('/api/tally')
      .send({ tape: onList({ column: 'Visits', from: 5, to: 3 }) });
    expect([wrong.status, wrong.text]).toEqual([400, expect.stringContaining('The range is reversed')]);
  });

  test('a shortlist takes it along, and so does a list that stays true', async () => {
    const judged = await server.api
      .post(`/api/lists/${list}/verdicts`)
      .send({ members: ['CZ-25000000', 'CZ-25000001'], verdict: 'in' });
    expect(judged.status).toBe(200);
    for (const stays of [false, true]) {
      const made = await server.api
        .post('/api/lists/combine')
        .send({ parts: [{ list, verdict: ['in'] }], way: 'either', name: `Short ${stays}`, stays });
      const { list: short } = made.body as ListRollAnswer;
      expect([short.members, short.carried.map(({ column }) => column)]).toEqual([
        2,
        ['Hall', 'Visits', 'Remark'],
      ]);
      const wanted = tape([
        { id: 'l', field: 'list', test: { any: [short.key], carried: { column: 'Hall', any: ['A'] } } },
      ]);
      expect(keys(await kept(wanted))).toBe('0');
    }
  });

  test('what a file says of a member counts on its own list alone, as the click does', async () => {
    const made = await server.api
      .post('/api/lists/combine')
      .send({ parts: [{ list }], way: 'either', name: 'Judged apart', stays: false });
    const { list: apart } = made.body as ListRollAnswer;
    const members = ['CZ-25000002'];
    await server.api
      .post(`/api/lists/${apart.key}/verdicts`)
      .send({ members, verdict: 'out', reason: 'closed' });
    await server.api.post(`/api/lists/${list}/verdicts`).send({ members, verdict: 'in' });
    const asked = { any: [list, apart.key], verdict: ['out'] };
    const counts = await server.api
      .post('/api/counts')
      .send({ tape: tape([]), field: 'list', column: 'Hall', members: asked });
    const { values } = counts.body as CarriedCounts;
    for (const { key, count } of values) {
      const test = { ...asked, carried: { column: 'Hall', any: [key] } };
      expect(await kept(tape([{ id: 'l', field: 'list', test }]))).toHaveLength(count);
    }
    expect(values.map(({ count }) => count)).toEqual([1]);
  });
});
