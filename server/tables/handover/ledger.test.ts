import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openHandover, type Db } from '../../db/open.ts';
import { allReceivers, handedOf, handoverRevision, receiverFigures, writeHandover } from './ledger.ts';

let dir: string;
let db: Db;
beforeEach(() => {
  dir = mkdtempSync(join(tmpdir(), 'just-tally-ledger-'));
  db = openHandover(dir);
});
afterEach(() => {
  db.close();
  rmSync(dir, { recursive: true });
});

const handed = (name: string, day: number, keys: readonly string[], receiver = 'print-shop') =>
  writeHandover(
    db,
    {
      export: name,
      subject: 'companies',
      receiver,
      day,
      keys,
      columns: ['name'],
      prints: new Uint32Array(keys.length),
    },
    receiver === 'print-shop' ? 'Print shop' : 'Finance',
  );
const firm = (n: number) => `CZ-${String(n).padStart(8, '0')}`;

test('each record is written once for a receiver, with the last day it was had, however many there are', () => {
  const keys = Array.from({ length: 25_001 }, (_, i) => firm(25_000 - i));
  handed('one', 100, keys);
  handed('two', 90, keys.slice(0, 3));
  handed('three', 110, [firm(7)]);
  expect(receiverFigures(db).get('print-shop')).toEqual({ exports: 3, last: 110, records: 25_001 });
  expect(handedOf(db, 'companies', firm(7))).toEqual([
    { receiver: 'print-shop', name: 'Print shop', day: 110 },
  ]);
  // An export of before takes no later day back.
  expect(handedOf(db, 'companies', firm(25_000))[0]!.day).toBe(100);
  expect(handedOf(db, 'companies', firm(0))[0]!.day).toBe(100);
  expect(handedOf(db, 'people', firm(7))).toEqual([]);
});

test('keys with any signs are kept as they are, the latest receiver first', () => {
  const odd = `GB-"O'Hara" ů\u0001`;
  handed('one', 100, [odd]);
  handed('two', 120, [odd], 'finance');
  expect(handedOf(db, 'companies', odd).map(({ name, day }) => [name, day])).toEqual([
    ['Finance', 120],
    ['Print shop', 100],
  ]);
});

test('an export of nobody is in the ledger, and each change is told', () => {
  const before = handoverRevision(db);
  handed('none', 100, []);
  expect(handoverRevision(db)).toBe(before + 1);
  expect(allReceivers(db)).toMatchObject([{ key: 'print-shop', revision: before + 1 }]);
  expect(receiverFigures(db).get('print-shop')).toEqual({ exports: 1, last: 100, records: 0 });
});

test('one that cannot be written whole is not written at all', () => {
  handed('one', 100, [firm(1)]);
  expect(() => handed('one', 130, [firm(1), firm(2)])).toThrow();
  expect(receiverFigures(db).get('print-shop')).toEqual({ exports: 1, last: 100, records: 1 });
  expect(handedOf(db, 'companies', firm(1))[0]!.day).toBe(100);
});
