import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { SETTINGS } from '../../core/settings.ts';
import { isoOf } from '../../core/dates.ts';
import { countBits, hasBit } from '../../core/tally/bits.ts';
import { VERDICTS } from '../../core/tape/nodes.ts';
import { openHandover, openLists, openRuns, openWorkspace, type Db } from '../db/open.ts';
import { writeContacts } from '../tables/contacts.ts';
import { addList, changeList } from '../tables/lists/list-rows.ts';
import { addMembers, takeOff } from '../tables/lists/members.ts';
import { judge } from '../tables/lists/verdicts.ts';
import { writeSettings } from '../tables/workspace.ts';
import { FactsReader } from './workspace-facts.ts';

/** What counting threads know of the workspace, and when they read it anew. */

let dir: string;
let workspace: Db;
let lists: Db;
let handover: Db;
let runs: Db;
let now: Date;
let reader: FactsReader;
let lookedUp: string[];
beforeEach(() => {
  dir = mkdtempSync(join(tmpdir(), 'facts-'));
  workspace = openWorkspace(dir);
  now = new Date(2026, 10, 28, 23, 59, 30);
  lookedUp = [];
  const recordOf = (key: string) => {
    lookedUp.push(key);
    return /^k\d+$/.test(key) ? Number(key.slice(1)) : undefined;
  };
  const records = {
    subject: 'companies',
    table: 'company',
    ids: new Uint32Array(100),
    recordOf: new Int32Array(0),
    byKey: recordOf,
    byKeys: (keys: readonly string[]) => Int32Array.from(keys, (key) => recordOf(key) ?? -1),
  };
  lists = openLists(dir);
  handover = openHandover(dir);
  reader = new FactsReader(
    workspace,
    lists,
    handover,
    (runs = openRuns(dir)),
    new Map([['companies', records]]),
    () => now,
  );
});
afterEach(() => {
  workspace.close();
  lists.close();
  handover.close();
  runs.close();
  rmSync(dir, { recursive: true });
});

test('nothing is read again while nothing changes, and the day that ends is a change', () => {
  expect(isoOf(reader.changed()!.asOf)).toBe('2026-11-28');
  expect(reader.changed()).toBeNull();
  now = new Date(2026, 10, 29, 0, 0, 1);
  expect(isoOf(reader.changed()!.asOf)).toBe('2026-11-29');
  expect(reader.changed()).toBeNull();
});

test('settings are taken over: a day that is set does not end', () => {
  reader.changed();
  writeSettings(workspace, { ...SETTINGS, asOf: '2026-09-30', currency: 'PLN' });
  const facts = reader.changed()!;
  expect([isoOf(facts.asOf), facts.currency]).toEqual(['2026-09-30', 'PLN']);
  now = new Date(2026, 10, 30);
  expect(reader.changed()).toBeNull();
});

const BY_HAND = { kind: 'hand', what: 'by hand', tape: null, asOf: null, person: '' } as const;
const put = (list: string, keys: string[]) => addMembers(lists, list, BY_HAND, { keys });
const read = (list: string) => {
  const { records, verdicts } = reader.changed()!.members.get(list)!;
  return Array.from(records, (r, i) => [r, VERDICTS[verdicts[i]!]]);
};

test('a change of one list looks up those members alone that it touched', () => {
  const one = addList(lists, { name: 'One' }).key;
  const two = addList(lists, { name: 'Two' }).key;
  put(one, ['k1', 'k2', 'gone']);
  put(two, ['k3']);
  const first = reader.changed()!;
  expect([...first.members.get(one)!.records]).toEqual([1, 2]);
  lookedUp = [];
  takeOff(lists, two, { keys: ['k3'] }, 'by hand', '');
  const second = reader.changed()!;
  expect(lookedUp).toEqual(['k3']);
  expect(second.members.get(two)!.records).toHaveLength(0);
  expect(second.members.get(one)).toBe(first.members.get(one));
  lookedUp = [];
  put(one, ['k2', 'k4']);
  judge(lists, one, { keys: ['k2'] }, 'out', 'too small', 'Hana');
  expect(read(one)).toEqual([
    [1, 'not-judged'],
    [2, 'out'],
    [4, 'not-judged'],
  ]);
  expect(lookedUp.sort()).toEqual(['k2', 'k4']);
});

test('a reader that was away too long reads the whole list, and comes to the same', () => {
  const { key } = addList(lists, { name: 'One' });
  put(key, ['k1', 'k2']);
  reader.changed();
  for (let i = 0; i < 300; i++) judge(lists, key, { keys: ['k1'] }, i % 2 ? 'in' : 'out', null, '');
  expect(read(key)).toEqual([
    [1, 'in'],
    [2, 'not-judged'],
  ]);
});

test('a new name is taken over without reading members, and so is the address book without lists', () => {
  const { key } = addList(lists, { name: 'One' });
  put(key, ['k1']);
  reader.changed();
  lookedUp = [];
  changeList(lists, key, { name: 'Another' });
  expect(reader.changed()!.lists).toEqual([
    { key, label: 'Another', subject: 'companies', suppression: null },
  ]);
  expect(lookedUp).toEqual([]);
  const contact = { name: 'A', mail: null, phone: null, title: null, organisation: null, company: 'k7' };
  writeContacts(workspace, 'book.vcf', [contact]);
  const known = reader.changed()!.known!;
  expect([countBits(known), hasBit(known, 7)]).toEqual([1, true]);
  expect(lookedUp).toEqual(['k7']);
});
