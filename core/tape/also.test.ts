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

describe('which lines further choices join', () => {
  const near = { lat: 1, lon: 2, km: 3, label: 'Brno' };

  test.each([
    ['the same rank', { rank: 'main' }, { rank: 'main' }, { rank: 'main' }],
    ['a rank where the new one has none', { rank: 'main' }, {}, { rank: 'main' }],
    ['kin of the same reach', { kin: 'sure' }, { kin: 'sure' }, { kin: 'sure' }],
    ['kin where the new one has none', { kin: 'possible' }, {}, { kin: 'possible' }],
  ])('codes of %s', (_, one, other, joined) => {
    const before = tape(line('a', 'industry', { scheme: 'nace-2.1', any: ['16'], ...one }));
    const more = line('c', 'industry', { scheme: 'nace-2.1', any: ['43'], ...other });
    expect(alsoLine(before, more)!.lines).toEqual([
      line('a', 'industry', { scheme: 'nace-2.1', any: ['16', '43'], ...joined }),
    ]);
  });

  test.each([
    [
      'codes with exceptions',
      'industry',
      { scheme: 'nace-2.1', any: ['16'], except: ['16.2'] },
      { scheme: 'nace-2.1', any: ['43'] },
    ],
    [
      'codes of another kin',
      'industry',
      { scheme: 'nace-2.1', any: ['16'], kin: 'sure' },
      { scheme: 'nace-2.1', any: ['43'], kin: 'possible' },
    ],
    [
      'codes without kin, where the new ones have some',
      'industry',
      { scheme: 'nace-2.1', any: ['16'] },
      { scheme: 'nace-2.1', any: ['43'], kin: 'sure' },
    ],
    ['places of another site', 'place', { countries: ['CZ'], site: 'any' }, { countries: ['PL'] }],
    ['a distance beside a country', 'place', { near }, { countries: ['PL'] }],
    ['a country beside a distance', 'place', { countries: ['PL'] }, { near }],
    ['words beside values', 'certificates', { words: 'iso' }, { any: ['ISO 9001'] }],
    ['values beside words', 'certificates', { any: ['ISO 9001'] }, { words: 'iso' }],
    ['values that ask for all', 'technology', { any: ['A'], all: ['B'] }, { any: ['C'] }],
  ])('not %s: they become branches', (_, field, one, other) => {
    const [before, more] = [line('a', field, one), line('c', field, other)];
    expect(alsoLine(tape(before), more)!.lines).toMatchObject([{ either: [before, more] }]);
  });

  test('places of the same site, the head office where none is said', () => {
    const joined = (one: object, other: object) =>
      alsoLine(tape(line('a', 'place', one)), line('c', 'place', other))!.lines;
    expect(joined({ countries: ['CZ'], site: 'any' }, { countries: ['PL'], site: 'any' })).toEqual([
      line('a', 'place', { countries: ['CZ', 'PL'], site: 'any' }),
    ]);
    expect(joined({ towns: ['Brno, CZ-64'], site: 'head' }, { metro: ['Wien, AT'] })).toEqual([
      line('a', 'place', { towns: ['Brno, CZ-64'], site: 'head', metro: ['Wien, AT'] }),
    ]);
  });

  test('an either-block of which all branches are on the field takes one more', () => {
    const block: Line = {
      id: 'e',
      either: [line('a', 'place', { countries: ['CZ'] }), line('b', 'place', { near })],
    };
    const more = line('c', 'place', { countries: ['PL'] });
    expect(alsoLine(tape(block), more)!.lines).toMatchObject([
      { id: 'e', either: [{ id: 'a' }, { id: 'b' }, { id: 'c' }] },
    ]);
    const mixed: Line = { ...block, either: [block.either[0]!, line('b', 'status', { any: ['active'] })] };
    for (const other of [mixed, { ...block, not: true as const }, { ...block, parked: true as const }])
      expect(alsoLine(tape(other), more)).toBeNull();
  });

  test('neither a has-line nor a block has further choices', () => {
    const on = tape(line('a', 'status', { any: ['active'] }));
    expect(alsoLine(on, { id: 'h', has: 'deals', lines: [] })).toBeNull();
    expect(alsoLine(on, { id: 'e', either: [line('b', 'status', { any: ['closed'] })] })).toBeNull();
    expect(
      alsoLine(tape({ id: 'h', has: 'deals', lines: [] }), line('b', 'status', { any: ['closed'] })),
    ).toBeNull();
  });

  test('several come one after the other, each where it goes', () => {
    const before = tape(line('a', 'status', { any: ['active'] }));
    const [more, other] = [line('b', 'status', { any: ['closed'] }), line('c', 'headcount', { from: 5 })];
    expect(putLines(before, [more, other], 'also').lines).toEqual([
      line('a', 'status', { any: ['active', 'closed'] }),
      other,
    ]);
    expect(putLines(before, [more, other], 'and').lines).toHaveLength(3);
  });
});
