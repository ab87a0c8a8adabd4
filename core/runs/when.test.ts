import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Problem } from '../tape/problem.ts';
import {
  checkedCron,
  cronOf,
  isMissed,
  isZone,
  nextTimes,
  onceAt,
  rhythmOf,
  ringOf,
  scheduleWords,
  wordsOf,
  type Rhythm,
  type Schedule,
} from './when.ts';

const cron = (words: string) => cronOf(rhythmOf(words));

test.each([
  ['every Monday at 7', '0 7 * * 1'],
  ['Mondays at 7', '0 7 * * 1'],
  ['every monday, wednesday and friday at 18:30', '30 18 * * 1,3,5'],
  ['every day at noon', '0 12 * * *'],
  ['daily at 6 am', '0 6 * * *'],
  ['every weekday at 8pm', '0 20 * * 1,2,3,4,5'],
  ['every week', '0 7 * * 1'],
  ['every 15 minutes', '*/15 * * * *'],
  ['every hour', '0 * * * *'],
  ['every 2 hours', '0 */2 * * *'],
  ['the first of each month at 6', '0 6 1 * *'],
  ['first working day of the month', '0 7 1W * *'],
  ['last working day of each month at 17', '0 17 LW * *'],
  ['every last Sunday of a month at 23', '0 23 * * 0#L'],
  ['second Tuesday of the month at 9.15', '15 9 * * 2#2'],
  ['the 15th of each month at 6', '0 6 15 * *'],
  ['last day of the quarter at midnight', '0 0 L 1,4,7,10 *'],
])('%s', (words, pattern) => {
  expect(cron(words)).toBe(pattern);
  expect(checkedCron(pattern, 'Europe/Prague')).toBe(pattern);
});

test.each([
  '',
  'sometimes',
  'every Monday at 25',
  'every blue moon',
  'every 7 minutes',
  'fifth Monday of the month',
  'at 7',
])('“%s” is refused with what would do', (words) => {
  expect(() => rhythmOf(words)).toThrow(Problem);
  try {
    rhythmOf(words);
  } catch (error) {
    expect((error as Problem).rule).toMatch(/every/);
  }
});

const at = fc.record({ hour: fc.integer({ min: 0, max: 23 }), minute: fc.integer({ min: 0, max: 59 }) });
const anyRhythm: fc.Arbitrary<Rhythm> = fc.oneof(
  fc.constantFrom<Rhythm>(
    { every: 'minutes', count: 15 },
    { every: 'hours', count: 1 },
    { every: 'hours', count: 6 },
  ),
  fc.record({
    every: fc.constant('week' as const),
    days: fc
      .uniqueArray(fc.integer({ min: 0, max: 6 }), { minLength: 1 })
      .map((days) => days.sort((a, b) => a - b)),
    at,
  }),
  fc.record({
    every: fc.constantFrom('month' as const, 'quarter' as const),
    on: fc.oneof(
      fc.record({ day: fc.oneof(fc.integer({ min: 1, max: 31 }), fc.constant('last' as const)) }),
      fc.record({ working: fc.constantFrom('first' as const, 'last' as const) }),
      fc.record({
        weekday: fc.integer({ min: 0, max: 6 }),
        nth: fc.constantFrom(1 as const, 2 as const, 3 as const, 4 as const, 'last' as const),
      }),
    ),
    at,
  }),
);

test('words of a rhythm say that rhythm', () => {
  fc.assert(fc.property(anyRhythm, (rhythm) => expect(rhythmOf(wordsOf(rhythm))).toEqual(rhythm)));
});

const repeats = (words: string, zone = 'Europe/Berlin'): Schedule => ({
  ...{ how: 'repeats', words, cron: cron(words), zone, missed: 'run' },
});
const times = (schedule: Schedule, from: string, count = 3) =>
  nextTimes(schedule, Date.parse(from), count).map((time) => new Date(time).toISOString().slice(0, 16));

test('a time of day stays that time over both changes of the clock', () => {
  // Summer time begins on 29 March 2026 and ends on 25 October 2026.
  expect(times(repeats('every day at 7'), '2026-03-27T12:00Z')).toEqual([
    ...['2026-03-28T06:00', '2026-03-29T05:00', '2026-03-30T05:00'],
  ]);
  expect(times(repeats('every day at 7'), '2026-10-23T12:00Z')).toEqual([
    ...['2026-10-24T05:00', '2026-10-25T06:00', '2026-10-26T06:00'],
  ]);
  expect(times(repeats('every day at 7', 'Asia/Tokyo'), '2026-03-27T23:00Z', 2)).toEqual([
    ...['2026-03-28T22:00', '2026-03-29T22:00'],
  ]);
});

test('a time that a change of the clock leaves out runs as the clock goes on, and one that comes twice runs once', () => {
  expect(times(repeats('every day at 2:30'), '2026-03-28T03:00Z', 2)).toEqual([
    ...['2026-03-29T01:00', '2026-03-30T00:30'],
  ]);
  expect(times(repeats('every day at 2:30'), '2026-10-24T03:00Z', 2)).toEqual([
    ...['2026-10-25T00:30', '2026-10-26T01:30'],
  ]);
});

test('working days of a month step over its weekend', () => {
  expect(times(repeats('first working day of the month'), '2026-07-15T00:00Z', 3)).toEqual([
    ...['2026-08-03T05:00', '2026-09-01T05:00', '2026-10-01T05:00'],
  ]);
});

test('times of a schedule come one after the other, none before its start', () => {
  fc.assert(
    fc.property(anyRhythm, fc.integer({ min: 0, max: 2e12 }), (rhythm, from) => {
      const found = nextTimes({ ...repeats('every day'), cron: cronOf(rhythm) } as Schedule, from, 5);
      expect(found).toHaveLength(5);
      for (let i = 0; i < 5; i++) expect(found[i]!).toBeGreaterThan(i ? found[i - 1]! : from);
    }),
    { numRuns: 60 },
  );
});

test('what runs once runs at that hour of its zone, and then no more', () => {
  const once: Schedule = { how: 'once', at: '2026-12-01T07:00', zone: 'Europe/Prague', missed: 'run' };
  expect(times(once, '2026-11-29T00:00Z')).toEqual(['2026-12-01T06:00']);
  expect(times(once, '2026-12-01T06:00Z')).toEqual([]);
  expect(onceAt({ at: 'tomorrow', zone: 'UTC' })).toBeNull();
  expect(onceAt({ at: '2026-13-45T07:00', zone: 'UTC' })).toBeNull();
  expect(onceAt({ at: '2026-02-31T07:00', zone: 'UTC' })).toBeNull();
  expect(times({ how: 'hand' }, '2026-11-29T00:00Z')).toEqual([]);
});

test('patterns that were typed are checked', () => {
  expect(checkedCron(' 0  7 * * 1 ', 'UTC')).toBe('0 7 * * 1');
  for (const wrong of ['0 0 7 * * 1', 'x 7 * * 1', '0 7 31 2 *', ''])
    expect(() => checkedCron(wrong, 'UTC')).toThrow(Problem);
  expect([isZone('Europe/Vienna'), isZone('Middle/Earth')]).toEqual([true, false]);
});

test('what is late by more than a minute was missed', () => {
  expect([isMissed(0, 60_000), isMissed(0, 60_001)]).toEqual([false, true]);
});

test('a plan that would come to run after itself is found, whatever is between', () => {
  const runsAfter = new Map([
    ['b', 'a'],
    ['c', 'b'],
  ]);
  expect(ringOf('a', 'c', runsAfter)).toEqual(['a', 'c', 'b', 'a']);
  expect(ringOf('a', 'a', runsAfter)).toEqual(['a', 'a']);
  expect(ringOf('d', 'c', runsAfter)).toBeNull();
});

test('schedules are said in words', () => {
  const nameOf = (plan: string) => `“${plan}”`;
  const said = [
    scheduleWords({ how: 'hand' }, nameOf),
    scheduleWords(repeats('every Monday at 7'), nameOf),
    scheduleWords({ how: 'once', at: '2026-12-01T07:00', zone: 'UTC', missed: 'run' }, nameOf),
    scheduleWords({ how: 'after', plan: 'x', outcome: 'done' }, nameOf),
  ];
  expect(said).toEqual(['by hand', 'every Monday at 7', 'once, on 2026-12-01 at 07:00', 'after “x”']);
});
