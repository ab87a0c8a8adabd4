import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { PLAIN_MAPPING } from '../testing/plain-mapping.ts';
import { CellError } from '../values/cell.ts';
import { Census } from './census.ts';
import { ColumnReader } from './column-reader.ts';
import type { Mapping } from './mapping.ts';

/** Cells read one by one, and the count of how they were read. */

const COLUMNS = ['name', 'headcount', null];
const reader = (mapping: Partial<Mapping> = {}) => {
  const census = new Census(COLUMNS);
  const labels = new Map([
    ['name', 'Company'],
    ['headcount', 'Headcount'],
  ]);
  const columns = new ColumnReader(
    ['Firma', '', 'Note'],
    { ...PLAIN_MAPPING, columns: COLUMNS, unreadable: 'empty', ...mapping },
    labels,
    census,
  );
  const name = columns.column('name', (cell) => {
    if (cell === 'bad') throw new CellError('a good name');
    return cell;
  });
  const headcount = columns.column('headcount', (cell) => {
    if (!/^\d+$/.test(cell)) throw new CellError('a whole number');
    return Number(cell);
  });
  let row = 0;
  const read = (...cells: string[]) => {
    columns.begin(cells);
    census.begin(row++);
    return [name(), headcount()];
  };
  return { read, columns, census };
};

describe('a cell', () => {
  test('is read, empty, or left empty with the reason where it is not understood', () => {
    const { read, columns } = reader();
    expect(read('Alder', '12')).toEqual(['Alder', 12]);
    expect([columns.left, columns.problems]).toEqual([[], []]);
    expect(read('Alder', ' k.A. ')).toEqual(['Alder', null]);
    expect(columns.left).toEqual([]);
    expect(read('Alder', 'many')).toEqual(['Alder', null]);
    // A column without a heading is named by what it is read as.
    expect(columns.left).toEqual([{ column: 'Headcount', value: 'many', rule: 'a whole number' }]);
    expect(columns.problems).toEqual([]);
    expect(read()).toEqual([null, null]);
  });
  test('of a name refuses its row, and so does every other where that is chosen', () => {
    const lenient = reader();
    lenient.read('bad', 'many');
    expect(lenient.columns.problems).toEqual([{ column: 'Firma', value: 'bad', rule: 'a good name' }]);
    const strict = reader({ unreadable: 'refuse' });
    strict.read('Alder', 'many');
    expect(strict.columns.problems).toMatchObject([{ value: 'many' }]);
    expect(strict.columns.left).toEqual([]);
  });
  test('is answered before it is read, also where it would be empty', () => {
    const { read, columns } = reader({
      answers: [null, { many: '250', 'n/a': '0', some: '', x: null, none: 'nothing' }, null],
    });
    expect(['many', 'n/a', 'some'].map((cell) => read('Alder', cell)[1])).toEqual([250, 0, null]);
    expect([columns.left, columns.problems]).toEqual([[], []]);
    read('Alder', 'x');
    expect(columns.problems).toMatchObject([{ value: 'x', rule: 'another value; this one is refused' }]);
    // An answer is read as any cell; words of the language are no answers.
    read('Alder', 'none');
    expect(columns.left).toMatchObject([{ value: 'none' }]);
    for (const word of ['constructor', 'toString', '__proto__'])
      expect(read('Alder', word)).toEqual(['Alder', null]);
  });
  test('too long, or with zero bytes, is not understood', () => {
    const { read, columns } = reader();
    read('Alder', '1'.repeat(40_000));
    expect(columns.left).toMatchObject([{ rule: 'at most 32767 characters' }]);
    expect(columns.left[0]!.value).toHaveLength(200);
    read('Al\0der', '1');
    expect(columns.problems).toMatchObject([{ rule: 'text without zero bytes' }]);
  });
  test('that was read and cannot be used is left after all', () => {
    const { read, columns, census } = reader();
    read('Alder', '12');
    columns.leaveUnused('headcount', 'one of two');
    columns.leaveUnused('town', 'is no column here');
    expect(columns.left).toEqual([{ column: 'Headcount', value: '12', rule: 'one of two' }]);
    expect(census.readings[1]).toMatchObject({ understood: 0, notUnderstood: 1 });
    expect(census.understoodRows).toEqual([['Alder', '', '']]);
  });
});

describe('a census', () => {
  test('counts what was understood, empty by its words, and not understood by its values, the most frequent first', () => {
    const { read, census } = reader();
    for (const cell of ['1', '2', '', '-', '-', 'n/a', 'many', 'few', 'many']) read('Alder', cell);
    expect(census.readings[1]).toEqual({
      understood: 2,
      empty: 4,
      emptyWords: [
        { word: '-', count: 2 },
        { word: 'n/a', count: 1 },
      ],
      notUnderstood: 3,
      values: [
        { value: 'many', count: 2, rule: 'a whole number' },
        { value: 'few', count: 1, rule: 'a whole number' },
      ],
      more: 0,
    });
    expect(census.readings[2]).toMatchObject({ understood: 0, empty: 0, notUnderstood: 0 });
  });
  test('lists two hundred different values and says how many more there are', () => {
    const { read, census } = reader();
    for (let i = 0; i < 250; i++) read('Alder', `v${i}`);
    const { values, more, notUnderstood } = census.readings[1]!;
    expect([values.length, more, notUnderstood]).toEqual([200, 50, 250]);
  });
  test('keeps the first rows as they were understood', () => {
    const { read, census } = reader();
    for (let i = 0; i < 20; i++) read(`Alder ${i}`, i % 2 ? 'x' : String(i));
    expect(census.understoodRows).toHaveLength(census.shown);
    expect(census.understoodRows.slice(0, 3)).toEqual([
      ['Alder 0', '0', ''],
      ['Alder 1', '', ''],
      ['Alder 2', '2', ''],
    ]);
  });
  test('says values in words: bands, estimates, money, lists, dates', () => {
    const census = new Census([
      'headcount',
      'revenue',
      'offers',
      'checked',
      'dwelling',
      'technologies',
      'channel',
    ]);
    census.begin(0);
    const band = { basis: 'band', low: 10, high: Infinity, point: null };
    const estimate = { basis: 'estimate', low: 90, high: 160, point: 120 };
    for (const [at, value] of [
      band,
      { quantity: estimate, currency: 'EUR' },
      [],
      20_726,
      false,
      [{ label: 'Rutavel', first: null, last: null }],
      [
        ['dealers', 62.5],
        ['direct', 37.5],
      ],
    ].entries())
      census.understood(at, value);
    expect(census.understoodRows).toEqual([
      ['10+', '≈120 (90-160) EUR', 'none', '2026-09-30', 'no', 'Rutavel', 'dealers 62.5; direct 37.5'],
    ]);
  });
  test('counts every cell of every row once', () => {
    const cell = fc.constantFrom('', '-', '1', '22', 'many', 'n/a');
    fc.assert(
      fc.property(fc.array(cell, { maxLength: 60 }), (cells) => {
        const { read, census } = reader();
        for (const one of cells) read('Alder', one);
        const { understood, empty, notUnderstood, values, emptyWords } = census.readings[1]!;
        expect(understood + empty + notUnderstood).toBe(cells.length);
        expect(values.reduce((sum, { count }) => sum + count, 0)).toBe(notUnderstood);
        expect(emptyWords.reduce((sum, { count }) => sum + count, 0)).toBe(
          cells.filter((one) => one === '-' || one === 'n/a').length,
        );
      }),
    );
  });
});
