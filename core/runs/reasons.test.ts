import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Line } from '../tape/nodes.ts';
import { moves, reasonLine, together, whyJoined, whyLeft, type Happened, type Known } from './reasons.ts';
import { countedReasons, runRoll } from './roll.ts';

const line = (id: string, field: string, test: object, more: object = {}) =>
  ({ id, field, test, ...more }) as Line;
const LINES = [
  reasonLine(line('l1', 'industry', { scheme: 'nace-2.1', any: ['25.51'] }), 'Industry 25.51'),
  reasonLine(line('l2', 'headcount', { from: 20, to: 249 }), 'Headcount 20 to 249'),
  reasonLine(line('l3', 'list', { any: ['our-customers'] }, { not: true }), 'not on list Our customers'),
  reasonLine(line('l4', 'checked', { past: '24 months' }), 'Last checked in the past 24 months'),
];
const happened = (field: string, was: string | null, now: string | null, ...numbers: number[]): Happened => ({
  ...{ field, was, now, wasNumber: numbers[0] ?? null, nowNumber: numbers[1] ?? null },
});
const known = (more: Partial<Known> = {}): Known => ({
  ...{ happened: [], came: null, lists: new Map(), failing: [] },
  ...more,
});
const SAME = { tapeChanged: false, asOfChanged: false };

test('lines say what they rest on, whatever is within them', () => {
  const block = reasonLine(
    {
      id: 'b',
      either: [
        line('x', 'technology', { any: ['a'] }),
        { id: 'h', has: 'deals', lines: [line('d', 'date', { past: '18 months' })] },
      ],
    } as unknown as Line,
    'either',
  );
  expect([[...block.fields], block.looksThrough, block.counts]).toEqual([['technology'], true, false]);
  expect(LINES.map(({ counts }) => counts)).toEqual([false, false, false, true]);
  expect(LINES[2]!.lists).toEqual(['our-customers']);
});

describe('joined', () => {
  test('by coming into the universe, before all else', () => {
    const found = whyJoined(
      LINES,
      known({ came: 'Register extract was refreshed', happened: [happened('headcount', '19', '22')] }),
      SAME,
    );
    expect(found).toMatchObject({ reason: 'new', why: 'new: Register extract was refreshed' });
  });
  test('by a value that a line asks for', () => {
    expect(whyJoined(LINES, known({ happened: [happened('headcount', '19', '22', 19, 22)] }), SAME)).toEqual({
      ...{ reason: 'line l2', why: 'Headcount 20 to 249', was: '19', now: '22' },
    });
  });
  test('by being taken off a list', () => {
    expect(whyJoined(LINES, known({ lists: new Map([['our-customers', 'taken off']]) }), SAME)).toEqual({
      ...{ reason: 'line l3', why: 'not on list Our customers', was: 'on it', now: 'not on it' },
    });
  });
  test('by another tape, by time, and by what nobody noted', () => {
    expect(whyJoined(LINES, known(), { tapeChanged: true, asOfChanged: true }).reason).toBe('tape');
    expect(whyJoined(LINES, known(), { tapeChanged: false, asOfChanged: true }).reason).toBe('time');
    expect(whyJoined(LINES.slice(0, 2), known(), SAME).reason).toBe('other');
  });
});

describe('left', () => {
  test('by the line that drops it now, with what it was before and is after', () => {
    const found = whyLeft(
      LINES,
      known({
        failing: [1],
        happened: [happened('codes', '25.51', '25.51, 25.53'), happened('headcount', '248', '251')],
      }),
      SAME,
    );
    expect(found).toEqual({ reason: 'line l2', why: 'Headcount 20 to 249', was: '248', now: '251' });
  });
  test('by a line without any value that changed', () => {
    expect(whyLeft(LINES, known({ failing: [1] }), SAME)).toMatchObject({ reason: 'line l2', was: null });
    expect(whyLeft(LINES, known({ failing: [3] }), { tapeChanged: false, asOfChanged: true }).reason).toBe(
      'time',
    );
  });
  test('between two older runs, by what changed alone', () => {
    expect(whyLeft(LINES, known({ happened: [happened('headcount', '248', '251')] }), SAME).reason).toBe(
      'line l2',
    );
  });
});

test('moved is what changed class, place, code, owner, status or name', () => {
  const found = moves([
    happened('headcount', '49', '51', 49, 51),
    happened('revenue', 'a', 'b', 6e6, 7e6),
    happened('town', 'Hamina', 'Kotka'),
    happened('street', 'a', 'b'),
    happened('phone', '1', '2'),
  ]);
  expect(found.map(({ why, was, now }) => [why, was, now])).toEqual([
    ['headcount, another class', '49', '51'],
    ['address', 'Hamina', 'Kotka'],
  ]);
});

test('several changes of one value are one, and none where it is as it was', () => {
  const seen = together([
    happened('headcount', '10', '12', 10, 12),
    happened('town', 'A', 'B'),
    happened('headcount', '12', '15', 12, 15),
    happened('town', 'B', 'A'),
  ]);
  expect(seen).toEqual([happened('headcount', '10', '15', 10, 15)]);
});

test('the steps of a run’s roll come to what there is now', () => {
  const figures = fc.array(
    fc.record({ reason: fc.constantFrom('new', 'line l1', 'line l2', 'time'), why: fc.constant('x') }),
    { maxLength: 30 },
  );
  fc.assert(
    fc.property(figures, figures, fc.nat(50), (joined, left, stayed) => {
      const roll = runRoll(
        { count: stayed + left.length, when: 'then' },
        countedReasons(joined),
        countedReasons(left),
        stayed + joined.length,
      );
      expect(roll.foot).toBe(stayed + joined.length);
      const steps = roll.steps.map(({ step }) => step);
      expect(new Set(steps).size).toBe(steps.length);
    }),
  );
  expect(runRoll(null, [], [], 7)).toMatchObject({ foot: 7, steps: [{ step: 'first', total: 7 }] });
});
