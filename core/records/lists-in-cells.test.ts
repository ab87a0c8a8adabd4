import { describe, expect, test } from '@jest/globals';
import { dayOf } from '../dates.ts';
import { CellError } from '../values/cell.ts';
import {
  readDepartments,
  readFlag,
  readHistory,
  readMonths,
  readShares,
  readTechnologies,
  readValues,
} from './lists-in-cells.ts';

const refused = (read: () => unknown) => {
  expect(read).toThrow(CellError);
};

describe('lists in a cell', () => {
  test('of products have the days on which they were seen, where those are known', () => {
    expect(readTechnologies('Rutavel; Kontovar [2024-03-01..2026-02-11] | Planodor [..2026-01-01]')).toEqual([
      { label: 'Rutavel', first: null, last: null },
      { label: 'Kontovar', first: dayOf('2024-03-01'), last: dayOf('2026-02-11') },
      { label: 'Planodor', first: null, last: dayOf('2026-01-01') },
    ]);
    refused(() => readTechnologies('Kontovar [2024-02-30..]'));
  });
  test('of years are ascending, each year once, estimates marked', () => {
    expect(readHistory('2023: ≈130; 2021:120')).toEqual([
      { year: 2021, value: 120, estimate: false },
      { year: 2023, value: 130, estimate: true },
    ]);
    for (const text of ['2021:120; 2021:121', '21:120', '2021']) refused(() => readHistory(text));
  });
  test('of months are on end from the first', () => {
    expect(readMonths('2024-11: 1000 1200  900')).toEqual({ start: '2024-11', values: [1000, 1200, 900] });
    for (const text of ['2024-13: 1', '2024-11:', 'Nov: 1']) refused(() => readMonths(text));
  });
  test('of departments have those of one and three years ago where they are known', () => {
    expect(readDepartments('production 40/38/31; sales: 6; engineering 3//2')).toEqual([
      { key: 'production', now: 40, before1: 38, before3: 31 },
      { key: 'sales', now: 6, before1: null, before3: null },
      { key: 'engineering', now: 3, before1: null, before3: 2 },
    ]);
    refused(() => readDepartments('astrology 3'));
  });
  test('of shares are a figure by word, each word once, with its own decimal mark', () => {
    const word = (text: string) => text.toLowerCase();
    expect(readShares('Dealers 62.5; own shop: 30 % | Direct 7,5', word)).toEqual([
      ['dealers', 62.5],
      ['own shop', 30],
      ['direct', 7.5],
    ]);
    expect(readShares('direct -3.2', word)).toEqual([['direct', -3.2]]);
    expect(readShares('none', word)).toEqual([]);
    for (const text of ['dealers 60; Dealers 40', 'dealers', '60', 'dealers lots'])
      refused(() => readShares(text, word));
  });
  test('none is known to be empty; values are each once; yes and no are of several languages', () => {
    expect([readValues('keine'), readValues('a, b; a|c')]).toEqual([[], ['a', 'b', 'c']]);
    expect(['Ano', 'JA', 'non', 'ne'].map(readFlag)).toEqual([true, true, false, false]);
    refused(() => readFlag('perhaps'));
  });
  test('with a part that no such list has are refused, however long', () => {
    for (const read of [readTechnologies, readHistory, readDepartments, readValues])
      refused(() => read('x'.repeat(5000)));
  });
});
