import { describe, expect, test } from '@jest/globals';
import type { FieldLine, Line } from './nodes.ts';
import { turnsOf } from './steer.ts';

const turned = (line: Line) => turnsOf(line, 'companies').map(({ to }) => to);

describe('a line may become', () => {
  test('one with another limit at round figures on either side, never with its limits crossed', () => {
    const line: FieldLine = { id: 'a', field: 'headcount', test: { from: 20, to: 40 } };
    const limits = turned(line).map(({ test: one }) => one as { from: number; to: number });
    expect(limits).toContainEqual({ from: 25, to: 40 });
    expect(limits).toContainEqual({ from: 20, to: 60 });
    for (const { from, to } of limits) expect(from).toBeLessThanOrEqual(to);
    for (const { from, to } of limits) expect([from, to].every(Number.isInteger)).toBe(true);
  });
  test('one with estimates, or with its unknowns kept', () => {
    const line: FieldLine = { id: 'a', field: 'headcount', test: { from: 20 } };
    expect(turned(line)).toContainEqual({ ...line, estimates: true });
    expect(turned(line)).toContainEqual({ ...line, unknown: 'keep' });
    expect(turned({ ...line, not: true })).toContainEqual({ ...line, not: true, unknown: 'drop' });
  });
  test('one of another distance, kin, rank or freshness', () => {
    const near = { lat: 49.2, lon: 16.6, km: 40, label: 'Brno' };
    expect(turned({ id: 'a', field: 'place', test: { near } })).toContainEqual({
      id: 'a',
      field: 'place',
      test: { near: { ...near, km: 60 } },
    });
    const codes = turned({
      id: 'a',
      field: 'industry',
      test: { scheme: 'nace-2.1', any: ['16'], kin: 'sure' },
    });
    expect(codes.map(({ test: one }) => one)).toEqual(
      expect.arrayContaining([
        { scheme: 'nace-2.1', any: ['16'] },
        { scheme: 'nace-2.1', any: ['16'], kin: 'possible' },
        { scheme: 'nace-2.1', any: ['16'], kin: 'sure', rank: 'main' },
      ]),
    );
    const fresh = turned({ id: 'a', field: 'status', test: { any: ['active'] }, fresh: '24 months' });
    expect(fresh.map((one) => one.fresh)).toEqual([
      '6 months',
      '12 months',
      '36 months',
      '60 months',
      '24 months',
    ]);
  });
  test('nothing where it is must, parked, a has-line or a block', () => {
    const line: FieldLine = { id: 'a', field: 'headcount', test: { from: 20 } };
    expect(turned({ ...line, must: true })).toEqual([]);
    expect(turned({ ...line, parked: true })).toEqual([]);
    expect(turned({ id: 'b', has: 'deals', lines: [] })).toEqual([]);
    expect(turned({ id: 'c', either: [line, { ...line, id: 'd' }] })).toEqual([]);
  });
});

describe('the limits that are tried', () => {
  const limits = (field: string, test: object, end: 'from' | 'to' = 'from') =>
    turned({ id: 'a', field, test })
      .map(({ test: one }) => (one as Record<string, number>)[end])
      .filter((one) => one !== (test as Record<string, number>)[end]);

  test('are round figures within eight times of the one at hand, whole where heads are counted', () => {
    expect(limits('headcount', { from: 10 })).toEqual([
      ...[2, 2, 3, 3, 4, 5, 6, 8, 12, 15, 20, 25, 30, 40, 50, 60, 80],
    ]);
    expect(limits('revenue', { from: 1_000_000, currency: 'EUR' })).toEqual([
      ...[150_000, 200_000, 250_000, 300_000, 400_000, 500_000, 600_000, 800_000],
      ...[1_200_000, 1_500_000, 2_000_000, 2_500_000, 3_000_000, 4_000_000, 5_000_000, 6_000_000, 8_000_000],
    ]);
  });

  test('are such of growth and of shares too', () => {
    expect(limits('growth', { from: 5, measure: 'headcount', years: 1 })).toEqual(
      expect.arrayContaining([2.5, 8, 40]),
    );
    expect(limits('headcount', { to: 50 }, 'to')).toEqual(expect.arrayContaining([8, 40, 60, 400]));
  });

  test('leave limits at nought and below as they are', () => {
    expect(limits('headcount', { from: 0 })).toEqual([]);
    expect(limits('profit', { from: -5, currency: 'EUR' })).toEqual([]);
  });

  test('may meet, and never cross', () => {
    const found = turned({ id: 'a', field: 'headcount', test: { from: 20, to: 25 } }).map(
      ({ test: one }) => one,
    );
    expect(found).toContainEqual({ from: 25, to: 25 });
    expect(found).not.toContainEqual({ from: 30, to: 25 });
  });
});

describe('what a line may become besides', () => {
  const keys = (line: Line) => turned(line).map((one) => Object.keys(one).sort().join(' '));

  test('only a range with estimates has them left out or in', () => {
    const line: FieldLine = { id: 'a', field: 'headcount', test: {}, estimates: true };
    expect(turned(line)).toContainEqual({ id: 'a', field: 'headcount', test: {} });
    expect(keys({ id: 'a', field: 'founded', test: {} })).toEqual(['field id test unknown']);
    expect(keys({ id: 'a', field: 'status', test: { any: ['active'] } })).toEqual(['field id test unknown']);
  });

  test('a list or picked companies have no unknowns', () => {
    expect(turned({ id: 'a', field: 'list', test: { any: ['l1'] } })).toEqual([]);
    expect(turned({ id: 'a', field: 'company', test: { any: ['CZ-1'] } })).toEqual([]);
  });

  test('a distance in miles stays in miles, and never comes below one', () => {
    const near = { lat: 49.2, lon: 16.6, miles: 2, label: 'Brno' };
    const found = turned({ id: 'a', field: 'place', test: { near } }).map(
      ({ test: one }) => (one as { near: { miles: number } }).near.miles,
    );
    expect(new Set(found.slice(0, -1))).toEqual(new Set([1, 3, 4, 6]));
  });

  test('a place by its name has no other distance', () => {
    expect(keys({ id: 'a', field: 'place', test: { countries: ['CZ'] } })).toEqual(['field id test unknown']);
  });

  test('codes of main rank are asked at any, and kin is each of the others', () => {
    const found = turned({
      id: 'a',
      field: 'industry',
      test: { scheme: 'nace-2.1', any: ['16'], rank: 'main' },
    }).map(({ test: one }) => one);
    expect(found.slice(0, -1)).toEqual([
      { scheme: 'nace-2.1', any: ['16'], rank: 'main', kin: 'sure' },
      { scheme: 'nace-2.1', any: ['16'], rank: 'main', kin: 'possible' },
      { scheme: 'nace-2.1', any: ['16'], rank: 'any' },
    ]);
  });
});
