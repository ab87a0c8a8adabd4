import { describe, expect, test } from '@jest/globals';
import { alsoLine, putLines } from './also.ts';
import { emptyTape, type FieldLine, type Line, type Tape } from './nodes.ts';

const line = (id: string, field: string, test: object, more: object = {}): FieldLine => ({
  id,
  field,
  test,
  ...more,
});
const tape = (...lines: Line[]): Tape => ({ ...emptyTape(), lines });
const codes = (id: string, ...any: string[]) => line(id, 'industry', { scheme: 'nace-2.1', any });

describe('further choices of a line', () => {
  test('join the values of the last line on the same field', () => {
    const before = tape(codes('a', '16.23'), line('b', 'status', { any: ['active'] }));
    expect(alsoLine(before, codes('c', '43.32', '16.23'))!.lines).toEqual([
      codes('a', '16.23', '43.32'),
      line('b', 'status', { any: ['active'] }),
    ]);
    expect(alsoLine(before, line('c', 'status', { any: ['dormant'] }))!.lines[1]).toEqual(
      line('b', 'status', { any: ['active', 'dormant'] }),
    );
  });

  test('of places join by kind, and of another kind of test become an either-block', () => {
    const before = tape(line('a', 'place', { countries: ['CZ'] }));
    expect(alsoLine(before, line('c', 'place', { regions: ['PL-02'] }))!.lines).toEqual([
      line('a', 'place', { countries: ['CZ'], regions: ['PL-02'] }),
    ]);
    const near = line('c', 'place', { near: { lat: 1, lon: 2, km: 3 } });
    expect(alsoLine(before, near)!.lines).toMatchObject([{ either: [{ id: 'a' }, { id: 'c' }] }]);
  });

  test('of another scheme, rank, freshness or with exceptions stay apart as branches', () => {
    for (const other of [
      line('c', 'industry', { scheme: 'naics-2022', any: ['321918'] }),
      line('c', 'industry', { scheme: 'nace-2.1', any: ['43'], except: ['43.1'] }),
      line('c', 'industry', { scheme: 'nace-2.1', any: ['43'], rank: 'main' }),
      line('c', 'industry', { scheme: 'nace-2.1', any: ['43'] }, { fresh: '12 months' }),
    ])
      expect(alsoLine(tape(codes('a', '16.23')), other)!.lines).toMatchObject([
        { either: [{ id: 'a' }, other] },
      ]);
  });

  test('need a line that keeps, and come beside the others where there is none', () => {
    const not = tape(line('a', 'status', { any: ['closed'] }, { not: true }));
    const parked = tape(line('a', 'status', { any: ['closed'] }, { parked: true }));
    const more = line('c', 'status', { any: ['active'] });
    for (const before of [tape(), not, parked]) {
      expect(alsoLine(before, more)).toBeNull();
      expect(putLines(before, [more], 'also').lines).toEqual([...before.lines, more]);
    }
    expect(alsoLine(tape(more), { ...more, id: 'd', not: true })).toBeNull();
  });
});

test('lines come beside the others, or join the last by or', () => {
  const one = line('a', 'status', { any: ['active'] });
  const two = line('b', 'headcount', { from: 5 });
  expect(putLines(tape(one), [two], 'and').lines).toEqual([one, two]);
  expect(putLines(tape(one), [two], 'or').lines).toMatchObject([{ either: [{ id: 'a' }, { id: 'b' }] }]);
  expect(putLines(tape(), [two], 'or').lines).toEqual([two]);
});
