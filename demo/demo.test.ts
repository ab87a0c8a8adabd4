import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openUniverse, type Db } from '../server/db/open.ts';
import { loadDemo } from './load-demo.ts';

const COMPANIES = 3300;
const dirs: string[] = [];
let one: Db;
beforeAll(async () => void (one = await demo()));
afterAll(() => {
  one.close();
  dirs.forEach((dir) => rmSync(dir, { recursive: true }));
});

async function demo(): Promise<Db> {
  const dir = mkdtempSync(join(tmpdir(), 'just-tally-demo-'));
  dirs.push(dir);
  const db = openUniverse(dir);
  await loadDemo(db, COMPANIES, () => {});
  return db;
}

test('one seed makes one universe, with the gaps of life', async () => {
  const other = await demo();
  const print = (db: Db) => {
    const hash = createHash('sha256');
    for (const table of ['company', 'record', 'company_code', 'company_technology', 'company_source'])
      for (const row of db.prepare(`SELECT * FROM ${table} ORDER BY 1, 2`).raw().iterate())
        hash.update(JSON.stringify(row));
    return hash.digest('hex');
  };
  expect(print(one)).toBe(print(other));

  const share = (condition: string) =>
    one.prepare<[], number>(`SELECT avg(${condition}) FROM company`).pluck().get()!;
  expect(one.prepare('SELECT count(*) FROM company').pluck().get()).toBe(COMPANIES);
  const near = (condition: string, wanted: number, by: number) => {
    const found = share(condition);
    expect({ condition, found, right: Math.abs(found - wanted) <= by }).toEqual({
      condition,
      found,
      right: true,
    });
  };
  near(`revenue_basis IS NULL OR revenue_basis = 'estimate'`, 0.42, 0.06);
  near('headcount_basis IS NULL', 0.12, 0.04);
  near('web IS NULL', 0.25, 0.05);
  near(`status IN ('dormant', 'closed')`, 0.065, 0.03);
  near(`registration IS NULL`, 0.03, 0.005);
  near(`(SELECT count(*) FROM company_source s WHERE s.company_id = company.id) > 1`, 0.66, 0.04);
  expect(share(`headcount_basis = 'band'`)).toBeGreaterThan(0.05);
  expect(share(`revenue_why = 'withheld'`)).toBeGreaterThan(0.01);
  other.close();
});

test('nothing in it can be met outside: addresses end in .example, numbers cannot be rung', () => {
  const texts = (column: string) =>
    one.prepare<[], string>(`SELECT ${column} FROM company WHERE ${column} IS NOT NULL`).pluck().all();
  const others = (column: string, pattern: RegExp) => {
    const all = texts(column).map((text) => text.replaceAll(' ', ''));
    expect(all.length).toBeGreaterThan(COMPANIES / 2);
    return all.filter((text) => !pattern.test(text));
  };
  expect(others('web', /\.example$/)).toEqual([]);
  expect(others('mail', /^[a-z]+@[\w.-]+\.example$/)).toEqual([]);
  const silent = /^\+(\d{1,4}000\d{6}|441632960\d{3}|1\d{3}55501\d{2}|3319900\d{4}|493023125\d{3})$/;
  expect(others('phone', silent)).toEqual([]);
});
