import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openLists, openUniverse } from '../db/open.ts';
import { listByKey } from '../tables/lists/list-rows.ts';
import { ListsHost } from './host.ts';

/** The threads that change and count lists, as the server speaks to them. */

let dir: string;
let lists: ListsHost;
beforeEach(() => {
  dir = mkdtempSync(join(tmpdir(), 'lists-host-'));
  openUniverse(dir).close();
  openLists(dir).close();
  lists = new ListsHost(dir);
});
afterEach(async () => {
  await lists.stop();
  rmSync(dir, { recursive: true });
});

const ORIGIN = { kind: 'hand', what: 'by hand', tape: null, asOf: null, person: '' } as const;

test('what is asked at once is done one after the other, each whole, and what waits is done before it ends', async () => {
  const { key } = await lists.change('add', { name: 'One' });
  const adding = ['a', 'b', 'c', 'd'].map((name) =>
    lists.change('addMembers', key, ORIGIN, { keys: [name, 'shared'] }),
  );
  const stopped = lists.stop();
  const added = await Promise.all(adding);
  await stopped;
  expect(added.map((one) => one.added)).toEqual([2, 1, 1, 1]);
  const db = openLists(dir);
  expect(listByKey(db, key)!.members).toBe(5);
  db.close();
});

test('what cannot be done says why, leaves nothing behind, and the next is done', async () => {
  const { key } = await lists.change('add', { name: 'One' });
  await expect(lists.change('add', { name: 'One' })).rejects.toMatchObject({ code: 'name-taken' });
  await expect(
    lists.change(
      'combine',
      { name: 'Two' },
      { way: 'both', parts: [{ list: key }, { list: 'nobody' }] },
      false,
    ),
  ).rejects.toMatchObject({ code: 'unknown-list' });
  // Records found before the universe changed are not taken for others.
  const old = { ids: Uint32Array.from([1]), subject: 'companies', revision: 99 };
  await expect(lists.change('addMembers', key, ORIGIN, old)).rejects.toMatchObject({
    code: 'universe-changed',
  });
  await lists.change('addMembers', key, ORIGIN, { keys: ['a'] });
  const { list, roll } = await lists.count('roll', key);
  expect([list.members, roll.steps.length, roll.foot]).toEqual([1, 1, 1]);
});

test('a people’s list takes records by their ids, whose keys are made of them', async () => {
  const { key } = await lists.change('add', { name: 'People', subject: 'people' });
  const wanted = { ids: Uint32Array.from([3, 12, 3]), subject: 'people', revision: 0 };
  const { there, count } = await lists.count('there', [key], wanted);
  expect([count, there[key]]).toEqual([2, 0]);
  await lists.change('addMembers', key, ORIGIN, wanted);
  const { taken, removed } = await lists.change('takeOff', key, { keys: ['person-12'] }, 'by hand', 'Hana');
  expect(removed).toBe(1);
  expect(await lists.change('putBack', key, taken!)).toBe(1);
  await expect(lists.change('putBack', key, taken!)).rejects.toMatchObject({ code: 'unknown-step' });
});
