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
