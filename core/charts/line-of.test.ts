import { describe, expect, test } from '@jest/globals';
import { fieldOf } from '../fields/registry.ts';
import type { Axis } from './chart.ts';
import { AND_BEFORE, type Buckets } from './buckets.ts';
import { testOfGroup } from './line-of.ts';

const of = (id: string, key: string | null, axis: Partial<Axis> = {}, edges: number[] | null = null) =>
  testOfGroup(fieldOf('companies', id)!, { field: id, ...axis }, { edges } as Buckets, key, 'EUR');

describe('the line that keeps the records of a bar', () => {
  test('asks a category for its value, a flag for yes or no, a code as the main one, a place at its level', () => {
    expect(of('status', 'active')).toEqual({ any: ['active'] });
    expect([of('dwelling', 'yes'), of('dwelling', 'no')]).toEqual([{ is: true }, { is: false }]);
    expect(of('industry', '25.5')).toEqual({ scheme: 'nace-2.1', any: ['25.5'], rank: 'main' });
    expect(of('place', 'CZ', { level: 'country' })).toEqual({ countries: ['CZ'] });
    expect(of('place', 'CZ-64', { level: 'region' })).toEqual({ regions: ['CZ-64'] });
    expect(of('place', 'Brno, CZ-64', { level: 'town' })).toEqual({ towns: ['Brno, CZ-64'] });
  });
  test('asks a figure for the range of its bar: the first open below, the last above, both ends in', () => {
    const edges = [0, 10, 50];
    expect(edges.map((edge) => of('headcount', String(edge), {}, edges))).toEqual([
      { to: 9 },
      { from: 10, to: 49 },
      { from: 50 },
    ]);
    const money = of('revenue', '1000000', {}, [0, 1e6, 1e7]) as {
      from: number;
      to: number;
      currency: string;
    };
    expect(money).toMatchObject({ from: 1e6, currency: 'EUR' });
    expect(money.to).toBeLessThan(1e7);
    expect(money.to).toBeGreaterThan(9_999_998);
  });
  test('names the key of a measure, and what a growth is of and over', () => {
    expect(of('channel', '50', { key: 'dealers' }, [0, 50])).toEqual({ key: 'dealers', from: 50 });
    expect(of('growth', '10', { key: 'headcount 3y' }, [-100, 0, 10])).toEqual({
      of: 'headcount',
      over: '3y',
      from: 10,
    });
  });
  test('asks a day for its year, its month to the last day, or all up to one', () => {
    expect(of('checked', '2025')).toEqual({ year: 2025 });
    expect(of('checked', '2024-02')).toEqual({ from: '2024-02-01', to: '2024-02-29' });
    expect(of('checked', '2025-12')).toEqual({ from: '2025-12-01', to: '2025-12-31' });
    expect(of('checked', `${AND_BEFORE}2019`)).toEqual({ to: '2019-12-31' });
    expect(of('checked', `${AND_BEFORE}2019-04`)).toEqual({ to: '2019-04-30' });
  });
  test('is none of what has no key, and of a field that no line asks', () => {
    expect(of('status', null)).toBeNull();
    expect(of('name', 'Oak Ltd')).toBeNull();
  });
});
