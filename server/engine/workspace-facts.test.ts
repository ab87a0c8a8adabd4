import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { SettingsBody } from '../../contract/settings.ts';
import { isoOf } from '../../core/dates.ts';
import { countBits, hasBit } from '../../core/tally/bits.ts';
import { openWorkspace, type Db } from '../db/open.ts';
import { writeContacts } from '../tables/contacts.ts';
import { addList, addMembers, removeMembers, renameList } from '../tables/lists.ts';
import { writeSettings } from '../tables/workspace.ts';
import { FactsReader } from './workspace-facts.ts';

/** What counting threads know of the workspace, and when they read it anew. */

let dir: string;
let workspace: Db;
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
  reader = new FactsReader(workspace, 100, recordOf, () => now);
});
afterEach(() => {
  workspace.close();
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
  writeSettings(workspace, Object.assign(new SettingsBody(), { asOf: '2026-09-30', currency: 'PLN' }));
  const facts = reader.changed()!;
  expect([isoOf(facts.asOf), facts.currency]).toEqual(['2026-09-30', 'PLN']);
  now = new Date(2026, 10, 30);
  expect(reader.changed()).toBeNull();
});

test('a change of one list reads that list alone', () => {
  const one = addList(workspace, 'One').key;
  const two = addList(workspace, 'Two').key;
  addMembers(workspace, one, ['k1', 'k2', 'gone'], 'by hand');
  addMembers(workspace, two, ['k3'], 'by hand');
  const first = reader.changed()!;
  expect(countBits(first.members.get(one)!.in)).toBe(2);
  lookedUp = [];
  removeMembers(workspace, two, ['k3']);
  const second = reader.changed()!;
  expect(lookedUp).toEqual([]);
  expect(countBits(second.members.get(two)!.in)).toBe(0);
  expect(second.members.get(one)).toBe(first.members.get(one));
  addMembers(workspace, two, ['k4'], 'by hand');
  expect(hasBit(reader.changed()!.members.get(two)!.in, 4)).toBe(true);
  expect(lookedUp).toEqual(['k4']);
});

test('a new name is taken over without reading members, and so is the address book without lists', () => {
  const key = addList(workspace, 'One').key;
  addMembers(workspace, key, ['k1'], 'by hand');
  reader.changed();
  lookedUp = [];
  renameList(workspace, key, 'Another');
  expect(reader.changed()!.lists).toEqual([{ key, label: 'Another' }]);
  expect(lookedUp).toEqual([]);
  const contact = { name: 'A', mail: null, phone: null, title: null, organisation: null, company: 'k7' };
  writeContacts(workspace, 'book.vcf', [contact]);
  const known = reader.changed()!.known!;
  expect([countBits(known), hasBit(known, 7)]).toEqual([1, true]);
  expect(lookedUp).toEqual(['k7']);
});
