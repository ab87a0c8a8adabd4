import { expect, test } from '@jest/globals';
import type { Line } from '../tape/nodes.ts';
import { survivorGroups, type JudgedRecord } from './survivors.ts';

const industry: Line = { id: 'i', field: 'industry', test: { scheme: 'nace-2.1', any: ['16'] } };
const headcount: Line = { id: 'h', field: 'headcount', test: { from: 10 } };
const quantity = (basis: string) => ({ low: 20, high: 20, point: 20, basis }) as never;
const code = (one: string, main: boolean) => [{ code: one, main, scheme: 'nace-2.1' }] as never;
const judged = (fits: boolean, cells: JudgedRecord['cells']): JudgedRecord => ({ fits, cells });

test('the way through a line that misses most comes first, with what is left without it', () => {
  const records = [
    ...Array.from({ length: 4 }, (_, i) => judged(i > 2, { headcount: quantity('estimate') })),
    ...Array.from({ length: 6 }, (_, i) => judged(i > 0, { headcount: quantity('reported') })),
    ...Array.from({ length: 3 }, (_, i) => judged(i > 0, { headcount: null })),
  ];
  expect(survivorGroups([headcount], 'companies', records)).toEqual([
    { line: 'h', label: 'Headcount', how: 'on an estimate', judged: 4, misses: 3, without: 1 - 2 / 9 },
    { line: 'h', label: 'Headcount', how: 'unknown, kept', judged: 3, misses: 1, without: 1 - 4 / 10 },
  ]);
});

test('codes are told by the one that was hit, and whether it is the main one', () => {
  const records = [
    ...Array.from({ length: 3 }, () => judged(false, { industry: code('16.23', false) })),
    ...Array.from({ length: 4 }, () => judged(true, { industry: code('16.2', true) })),
  ];
  expect(survivorGroups([industry], 'companies', records).map(({ how, misses }) => [how, misses])).toEqual([
    ['16.23, beside its main code', 3],
  ]);
});

test('few, all, and those among which nobody misses say nothing; nor do parked lines', () => {
  const estimates = (count: number, fits: boolean) =>
    Array.from({ length: count }, () => judged(fits, { headcount: quantity('estimate') }));
  const others = Array.from({ length: 5 }, () => judged(true, { headcount: quantity('reported') }));
  expect(survivorGroups([headcount], 'companies', [...estimates(2, false), ...others])).toEqual([]);
  expect(survivorGroups([headcount], 'companies', estimates(5, false))).toEqual([]);
  expect(survivorGroups([headcount], 'companies', [...estimates(4, true), ...others])).toEqual([]);
  expect(
    survivorGroups([{ ...headcount, parked: true }], 'companies', [...estimates(4, false), ...others]),
  ).toEqual([]);
});
