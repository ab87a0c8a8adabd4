import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { listRoll, originFigures, rolled, type OriginFigures } from './roll.ts';

/** The roll of a list: what each origin brought adds up to its members. */

const origin = (id: number, named: number, fresh: number, more: Partial<OriginFigures> = {}) => ({
  ...{
    id,
    kind: 'tape' as const,
    what: 'Joineries near Brno',
    person: 'Jana',
    day: '2026-09-30',
    named,
    fresh,
  },
  ...more,
});

test('steps have running totals, and the foot is the last of them', () => {
  const step = (step: string, delta: number) => ({ step, label: step, note: '', delta });
  expect(rolled([step('a', 5), step('b', -2)])).toEqual({
    foot: 3,
    steps: [
      expect.objectContaining({ step: 'a', total: 5 }),
      expect.objectContaining({ step: 'b', total: 3 }),
    ],
  });
  expect(rolled([])).toEqual({ foot: 0, steps: [] });
});

test('an origin says what it named, what of it was there already, and acts what they took', () => {
  const { steps, foot } = listRoll(
    [origin(1, 40, 40), origin(2, 30, 12, { kind: 'file', what: 'Fair.csv', person: '' })],
    [{ id: 1, how: 'by hand', person: 'Petr', day: '2026-10-02', count: 2 }],
  );
  expect(steps.map(({ label, note, delta, total }) => [label, note, delta, total])).toEqual([
    ['Tape Joineries near Brno', '2026-09-30, Jana', 40, 40],
    ['File Fair.csv', '2026-09-30', 30, 70],
    ['of these already there', 'they keep all origins', -18, 52],
    ['Taken off by hand', '2026-10-02, Petr', -2, 50],
  ]);
  expect(foot).toBe(50);
  expect(new Set(steps.map(({ step }) => step)).size).toBe(steps.length);
});

test('whatever the members have, each is fresh in its first origin, and the roll comes to how many there are', () => {
  const member = fc.uniqueArray(fc.integer({ min: 1, max: 5 }), { minLength: 1, maxLength: 4 });
  fc.assert(
    fc.property(fc.array(member, { maxLength: 30 }), (members) => {
      const sets = new Map<string, number>();
      for (const origins of members) {
        const text = [...origins].sort((a, b) => a - b).join(' ');
        sets.set(text, (sets.get(text) ?? 0) + 1);
      }
      const figures = originFigures([...sets].map(([origins, count]) => ({ origins, count })));
      for (const [id, { named, fresh }] of figures) {
        expect(named).toBe(members.filter((origins) => origins.includes(id)).length);
        expect(fresh).toBe(members.filter((origins) => Math.min(...origins) === id).length);
      }
      const { foot } = listRoll(
        [...figures].map(([id, { named, fresh }]) => origin(id, named, fresh)),
        [],
      );
      expect(foot).toBe(members.length);
    }),
  );
});
