import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { allLists } from '../tables/lists/list-rows.ts';
import { rollOf } from '../tables/lists/roll.ts';
import { membershipsOf } from '../tables/lists/verdicts.ts';
import { carryLists } from './carry-lists.ts';
import { openLists, openWorkspace, type Db } from './open.ts';

/** Lists that an earlier program kept in the workspace itself. */

let dir: string;
let workspace: Db;
let lists: Db;
beforeEach(() => {
  dir = mkdtempSync(join(tmpdir(), 'carry-'));
  workspace = openWorkspace(dir);
  lists = openLists(dir);
  const list = workspace.prepare('INSERT INTO list (key, name, made_at) VALUES (?, ?, ?)');
  list.run('customers', 'Our customers', '2026-09-01T09:00:00.000Z');
  list.run('empty', 'Nobody yet', '2026-09-02T09:00:00.000Z');
  const member = workspace.prepare(
    `INSERT INTO list_member (list, company, verdict, origin, added_at) VALUES ('customers', ?, 'in', ?, ?)`,
  );
  member.run('CZ-1', 'the order book', '2026-09-03T09:00:00.000Z');
  member.run('CZ-2', 'the order book', '2026-09-03T09:00:00.000Z');
  member.run('CZ-3', 'picked by hand from Headcount 20 or more', '2026-09-04T09:00:00.000Z');
});
afterEach(() => {
  workspace.close();
  lists.close();
  rmSync(dir, { recursive: true });
});

test('are carried over with their members and origins, not judged by anybody', () => {
  carryLists(workspace, lists);
  expect(
    allLists(lists).map(({ key, name, subject, members, notJudged }) => [
      key,
      name,
      subject,
      members,
      notJudged,
    ]),
  ).toEqual([
    ['empty', 'Nobody yet', 'companies', 0, 0],
    ['customers', 'Our customers', 'companies', 3, 3],
  ]);
  const { steps } = rollOf(lists, 'customers').roll;
  expect(steps.map(({ label, delta, total }) => [label, delta, total])).toEqual([
    ['Tape the order book', 2, 2],
    ['Tape picked by hand from Headcount 20 or more', 1, 3],
  ]);
  const [said] = membershipsOf(lists, 'companies', 'CZ-3');
  expect(said).toMatchObject({ verdict: 'not-judged', origins: [{ at: '2026-09-04T09:00:00.000Z' }] });
});

test('are carried over once: again it does nothing, also where the program was killed before the old ones went', () => {
  const old = workspace.prepare<[], { company: string; origin: string }>('SELECT * FROM list_member').all();
  expect(old).toHaveLength(3);
  carryLists(workspace, lists);
  carryLists(workspace, lists);
  workspace.exec(
    `CREATE TABLE list (key TEXT, name TEXT, made_at TEXT); INSERT INTO list VALUES ('customers', 'Our customers', '2026-09-01T09:00:00.000Z');
     CREATE TABLE list_member (list TEXT, company TEXT, verdict TEXT, origin TEXT, added_at TEXT);
     INSERT INTO list_member VALUES ('customers', 'CZ-1', 'in', 'the order book', '2026-09-03T09:00:00.000Z')`,
  );
  carryLists(workspace, lists);
  expect(allLists(lists).find(({ key }) => key === 'customers')!.members).toBe(3);
  expect(workspace.prepare(`SELECT 1 FROM sqlite_master WHERE name = 'list_member'`).get()).toBeUndefined();
});
