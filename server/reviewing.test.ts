import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { ListView } from '../contract/lists.ts';
import type { RowsAnswer, UploadAnswer } from '../contract/responses.ts';
import { emptyTape, type Line, type Tape } from '../core/tape/nodes.ts';
import { tape, TestServer } from './testing/test-server.ts';

/** What is reckoned of the members of a list, for going through it, through the API. */

const server = new TestServer();
const FIRMS = 24;
/** Even ones are Czech and large, odd ones Polish and small; of a third the headcount is a band, and of some not known. */
const firm = (i: number) => {
  const size = i % 2 === 0 ? 100 + i : 5 + i;
  const headcount = i % 3 === 1 ? (i % 2 === 0 ? '50-249' : '10-49') : i === 20 ? '' : String(size);
  const checked = `20${26 - (i % 4)}-09-30`;
  return `Firm ${i},${100 + i},${i % 2 === 0 ? 'CZ' : 'PL'},${headcount},${checked}`;
};

let list: ListView;
let key: string;
const onList = (...more: Line[]): Tape => ({
  ...emptyTape(),
  lines: [{ id: 'l1', field: 'list', test: { any: [key] } }, ...more],
});
const rows = async (own: Tape, columns: string[], sort: object[] = [], limit = 50) => {
  const asked = { tape: own, columns: ['name', ...columns], sort, offset: 0, limit };
  const answer = await server.api.post('/api/rows').send(asked);
  expect(answer.status).toBe(200);
  return (answer.body as RowsAnswer).rows;
};
const keys = new Map<string, string>();
const judge = (names: number[], verdict: string) =>
  server.api
    .post(`/api/lists/${key}/verdicts`)
    .send({ members: names.map((n) => keys.get(`Firm ${n}`)!), verdict });

beforeAll(async () => {
  await server.start(2);
  const text = `name,registration number,country,employees,last checked\n${Array.from({ length: FIRMS }, (_, i) => firm(i)).join('\n')}`;
  const file = (await server.upload('firms.csv', Buffer.from(text))).body as UploadAnswer;
  expect((await server.load(file)).job.state).toBe('done');
  await server.api.patch('/api/settings').send({ asOf: '2026-09-30' });
  list = ((await server.api.post('/api/lists').send({ name: 'Rivals' })).body as { list: ListView }).list;
  key = list.key;
  const made = {
    ...tape([{ id: 'h', field: 'headcount', test: { from: 20 }, unknown: 'keep' }]),
    name: 'Sized',
  };
  await server.api.post(`/api/lists/${key}/members`).send({ tape: made });
  for (const row of await rows(onList(), [])) keys.set(row.cells.name as string, row.key);
});
afterAll(() => server.stop());

describe('likeness to those judged', () => {
  test('is not known before somebody is in and somebody out', async () => {
    await judge([0, 2], 'in');
    const found = await rows(onList(), ['review:likeness:l1']);
    expect(new Set(found.map(({ cells }) => cells['review:likeness:l1']))).toEqual(new Set([null]));
  });
  test('puts the not judged that are like those in first', async () => {
    await judge([19, 21], 'out');
    const notJudged: Line = { id: 'l2', field: 'list', test: { any: [key], verdict: ['not-judged'] } };
    const found = await rows(
      onList(notJudged),
      ['review:likeness:l1'],
      [{ by: 'review:likeness:l1', descending: true }],
    );
    const likeness = found.map(({ cells }) => cells['review:likeness:l1'] as number);
    expect(likeness).toEqual([...likeness].sort((a, b) => b - a));
    const even = ({ cells }: RowsAnswer['rows'][number]) => Number((cells.name as string).slice(5)) % 2 === 0;
    const first = found.findIndex((row) => !even(row));
    expect(found.slice(first).some(even)).toBe(false);
    expect([likeness[0]! > 50, likeness.at(-1)! < 50]).toEqual([true, true]);
  });
  test('changes with a verdict, and comes back when it is taken back', async () => {
    const shown = async () =>
      (await rows(onList(), ['review:likeness:l1'])).map(({ cells }) => cells['review:likeness:l1']);
    const before = await shown();
    const { batch } = (await judge([4, 8], 'out')).body as { batch: number };
    expect(await shown()).not.toEqual(before);
    await server.api.delete(`/api/lists/${key}/verdicts/${batch}`);
    expect(await shown()).toEqual(before);
  });
});

describe('what there is to doubt', () => {
  const doubted = async (own = onList()) =>
    new Map(
      (await rows(own, ['review:doubt:l1', 'review:doubts:l1'])).map(({ cells }) => [
        cells.name as string,
        { doubt: cells['review:doubt:l1'] as number, why: cells['review:doubts:l1'] as string },
      ]),
    );
  test('names the line of the tape that put it there, where that is unsure of it', async () => {
    const found = await doubted();
    // A band of 10 to 49 does not say whether it is 20; a headcount that is not known neither.
    expect(found.get('Firm 1')!.why).toMatch(/^unsure: Headcount 20 or more/);
    expect(found.get('Firm 20')!.why).toMatch(/^unsure: Headcount 20 or more/);
    expect(found.get('Firm 2')!.why).not.toMatch(/unsure/);
    expect(found.get('Firm 1')!.doubt).toBeGreaterThan(found.get('Firm 2')!.doubt);
  });
  test('takes in the lines beside the list on the tape at hand', async () => {
    const found = await doubted(
      onList({ id: 'h2', field: 'headcount', test: { from: 60 }, unknown: 'keep' }),
    );
    expect(found.get('Firm 4')!.why).toMatch(/unsure: Headcount 60 or more/);
    expect(found.has('Firm 21')).toBe(false);
  });
  test('says how long ago it was checked, and counts those of its kind that are out', async () => {
    const found = await doubted();
    expect(found.get('Firm 2')!.why).toMatch(/checked 24 months ago/);
    expect(found.get('Firm 4')!.why).not.toMatch(/checked/);
    await judge([1, 7], 'out');
    expect((await doubted()).get('Firm 13')!.why).toMatch(/4 of 4 judged of its kind are out/);
  });
  test('hears of a spot check of the list', async () => {
    const drawn = (await server.api.post('/api/checks').send({ tape: onList(), size: 20, seed: 3 })).body as {
      check: { id: string };
      members: { key: string; verdict: string | null }[];
    };
    const before = (await doubted()).get('Firm 6')!.why;
    for (const name of [4, 8, 10, 12])
      expect(
        (
          await server.api
            .post(`/api/checks/${drawn.check.id}/verdicts`)
            .send({ key: keys.get(`Firm ${name}`), verdict: 'out' })
        ).status,
      ).toBeLessThan(500);
    expect(before).not.toMatch(/judged of its kind/);
    expect((await doubted()).get('Firm 6')!.why).toMatch(/judged of its kind are out/);
  });
  test('orders the list, but not by its words', async () => {
    const sort = [{ by: 'review:doubt:l1', descending: true }];
    const found = await rows(onList(), ['review:doubt:l1'], sort);
    const doubt = found.map(({ cells }) => cells['review:doubt:l1'] as number);
    expect(doubt).toEqual([...doubt].sort((a, b) => b - a));
    const refused = await server.api
      .post('/api/rows')
      .send({ tape: onList(), columns: ['name'], sort: [{ by: 'review:doubts:l1' }], offset: 0, limit: 5 });
    expect(refused.body).toMatchObject({ error: { code: 'unknown-sort', value: 'review:doubts:l1' } });
  });
  test('goes into a file as it stands on the sheet', async () => {
    const asked = {
      name: 'Out',
      format: 'csv',
      tape: onList(),
      columns: ['name', 'review:doubt:l1', 'review:likeness:l1'],
    };
    const begun = (await server.api.post('/api/exports').send(asked)).body as {
      export: string;
      job: { id: string };
    };
    await server.ended(begun.job.id);
    const text = (await server.api.get(`/api/exports/${begun.export}/file`)).text.trim().split('\r\n');
    const shown = await rows(onList(), ['review:doubt:l1', 'review:likeness:l1'], [{ by: 'name' }]);
    expect(text[0]).toMatch(/Doubt,Like those in$/);
    expect(text.slice(1).sort()).toEqual(
      shown
        .map(
          ({ cells }) =>
            `${cells.name as string},${cells['review:doubt:l1'] as number},${cells['review:likeness:l1'] as number}`,
        )
        .sort(),
    );
  });
});

test('a list that is not there, and a line that keeps members off, have no such columns', async () => {
  const off = tape([{ id: 'l1', field: 'list', test: { any: [key] }, not: true }]);
  for (const [own, column] of [
    [off, 'review:doubt:l1'],
    [tape([]), 'review:doubt:l1'],
    [onList(), 'review:constructor:l1'],
  ] as const) {
    const answer = await server.api
      .post('/api/rows')
      .send({ tape: own, columns: [column], sort: [], offset: 0, limit: 5 });
    expect(answer.body).toMatchObject({ error: { code: 'unknown-column', value: column } });
  }
});
