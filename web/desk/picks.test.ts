import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { isPicked, NO_PICKS, pickedCount, picksBody, withPicked, withRun, type Picks } from './picks.ts';

const row = (at: number) => ({ key: `k${at}`, at });

test('some by key, or all but some', () => {
  let picks: Picks = withPicked(NO_PICKS, [row(0), row(1)], true);
  picks = withPicked(picks, [row(1)], false);
  expect([isPicked(picks, 'k0', 0), isPicked(picks, 'k1', 1), pickedCount(picks, 10)]).toEqual([
    true,
    false,
    1,
  ]);
  picks = withPicked({ mode: 'all', except: new Set() }, [row(0), row(1)], false);
  expect([isPicked(picks, 'k0', 0), isPicked(picks, 'k2', 2), pickedCount(picks, 10)]).toEqual([
    false,
    true,
    8,
  ]);
  expect(pickedCount(withPicked(picks, [row(0)], true), 10)).toBe(9);
  expect(picksBody(picks)).toEqual({ except: ['k0', 'k1'] });
  expect(picksBody(NO_PICKS)).toEqual({});
});

test('a run of half a million is a run', () => {
  let picks: Picks = withRun(NO_PICKS, [10, 500_009], true);
  expect(pickedCount(picks, 1_000_000)).toBe(500_000);
  picks = withPicked(picks, [row(20)], false);
  picks = withPicked(picks, [row(3)], true);
  expect(pickedCount(picks, 1_000_000)).toBe(500_000);
  expect(picksBody(picks)).toEqual({ keys: ['k3'], ranges: [[10, 500_009]], except: ['k20'] });
  expect(JSON.stringify(picksBody(picks)).length).toBeLessThan(100);
});

test('rows and runs picked and let go in any order are those of a plain set', () => {
  const act = fc.record({
    from: fc.nat(30),
    length: fc.nat(10),
    picked: fc.boolean(),
    run: fc.boolean(),
  });
  fc.assert(
    fc.property(fc.array(act, { maxLength: 12 }), (acts) => {
      let picks: Picks = NO_PICKS;
      const plain = new Set<number>();
      for (const { from, length, picked, run } of acts) {
        const to = Math.min(40, from + length);
        const rows = Array.from({ length: to - from + 1 }, (_, i) => from + i);
        for (const at of rows)
          if (picked) plain.add(at);
          else plain.delete(at);
        picks =
          run && picks.mode === 'some'
            ? withRun(picks, [from, to], picked)
            : withPicked(picks, rows.map(row), picked);
      }
      expect(pickedCount(picks, 41)).toBe(plain.size);
      for (let at = 0; at <= 40; at++) expect(isPicked(picks, `k${at}`, at)).toBe(plain.has(at));
    }),
  );
});
