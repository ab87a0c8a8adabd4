import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { anyRecord as anyCompany } from '../../core/testing/any-record.ts';
import { changedField, changesBetween } from '../../core/records/changes.ts';
import type { CompanyRecord } from '../../core/records/record.ts';
import { openUniverse, type Db } from '../db/open.ts';
import { companyParts, companyWriter } from './company.ts';
import { historyOf } from './history.ts';
import { keepIds, nextId, nextRevision, revisionsBetween } from './revision.ts';

/** What is kept of how companies were. */

let dir: string;
let id: number;
let db: Db;
beforeEach(() => {
  id = 0;
  dir = mkdtempSync(join(tmpdir(), 'just-tally-history-'));
  db = openUniverse(dir);
});
afterEach(() => {
  db.close();
  rmSync(dir, { recursive: true });
});

/** Writes a company as a load does: one under a new number, or the last again. */
const write = (record: CompanyRecord, told: 'new' | 'all' | 'replaced' | null = 'new') => {
  const revision = nextRevision(db, 'a load', 20_000);
  const writer = companyWriter(db, revision, told === 'new' ? 'all' : told);
  if (told === 'new') writer.insert(++id, `k${id}`, companyParts(record), []);
  else writer.update(id, companyParts(record), []);
  return revision;
};

test('what is kept of a change is what two states differ in, whatever they are', () => {
  fc.assert(
    fc.property(anyCompany, anyCompany, (before, after) => {
      const first = write(before);
      const second = write(after, 'all');
      const rows = historyOf(db, 'companies', [id], first, second);
      const told = Object.fromEntries(rows.map(({ field, was, now }) => [field, { was, is: now }]));
      expect(told).toEqual(changesBetween(before, after));
      const changed = db
        .prepare<[number], string>('SELECT field FROM company_changed WHERE company_id = ? ORDER BY field')
        .pluck()
        .all(id);
      expect(changed).toEqual([...new Set(Object.keys(told).map(changedField))].sort());
    }),
    { numRuns: 60 },
  );
});

test('of a further source only what replaces a known value is kept, and nothing where that is asked', () => {
  const bare = fc.sample(anyCompany, { numRuns: 1, seed: 3 })[0]!;
  const first = write({ ...bare, phone: null, mail: 'a@b.example' });
  const second = write({ ...bare, phone: '+420 1', mail: 'c@b.example' }, 'replaced');
  expect(historyOf(db, 'companies', [id], first, second).map(({ field }) => field)).toEqual(['mail']);
  const third = write({ ...bare, phone: '+420 2', mail: 'd@b.example' }, null);
  expect(historyOf(db, 'companies', [id], second, third)).toEqual([]);
});

test('who left is known by name afterwards, and the number is never given again', () => {
  const [one] = fc.sample(anyCompany, { numRuns: 1, seed: 5 });
  const first = write(one!);
  keepIds(db, 'company');
  const revision = nextRevision(db, 'its source was removed', 20_010);
  companyWriter(db, revision).remove([id]);
  expect(historyOf(db, 'companies', [id], first, revision)).toMatchObject([
    { field: 'gone', key: `k${id}`, name: one!.name },
  ]);
  expect(nextId(db, 'company')).toBe(id + 1);
  expect(revisionsBetween(db, first, revision)).toMatchObject([
    { what: 'its source was removed', day: 20_010 },
  ]);
});

test('a company says since when it is there, and with what it came', () => {
  const [one] = fc.sample(anyCompany, { numRuns: 1, seed: 7 });
  const revision = write(one!);
  expect(db.prepare('SELECT came_on, came_with FROM company WHERE id = ?').get(id)).toEqual({
    came_on: 20_000,
    came_with: revision,
  });
});
