import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Quantity } from '../../../core/records/record.ts';
import { overUniverses } from '../../testing/over-universes.ts';
import { RandomUniverse } from '../../testing/random-universe.ts';

/** Likeness over random companies: what holds whatever they are, and the counts of lines that ask for it. */

let random: RandomUniverse;
beforeAll(() => {
  random = new RandomUniverse();
});
afterAll(() => random.close());

const peers = (like: string, from: number, weights?: object) => ({
  id: 'p',
  field: 'peers',
  test: { like: [like], from, ...(weights ? { weights } : {}) },
});
const whole = (lines: object[]) => ({ format: 'just-tally.tape', version: 1, subject: 'companies', lines });
const keyOf = () =>
  random.db.prepare<[], string>('SELECT key FROM company ORDER BY id LIMIT 1').pluck().get()!;

describe('a line of peers', () => {
  test('keeps as many as its SQL, in any company of lines', () => {
    overUniverses(random, 8, (engine, tape) => {
      const lines = [...tape.lines, { ...peers(keyOf(), 0.4), unknown: 'keep' as const }];
      const asked = { ...tape, lines };
      const { text, values } = engine.sql(asked, 'sqlite');
      const kept = random.db
        .prepare<(string | number)[], number>(text)
        .pluck()
        .all(...values);
      expect(engine.tally(asked).tally).toBe(kept.length);
    });
  });

  test('never keeps whom it is alike, keeps fewer the more it asks, and what is sure is never above what is possible', () => {
    overUniverses(random, 8, (engine, tape) => {
      if (tape.lines.length) return;
      const key = keyOf();
      let before = Infinity;
      for (const from of [0, 0.25, 0.5, 0.75, 1]) {
        const { tally } = engine.tally(whole([peers(key, from)]));
        expect(tally).toBeLessThanOrEqual(before);
        before = tally;
      }
      const { rows } = engine.rows(
        whole([peers(key, 0)]),
        ['score:p', 'why:p'],
        [{ by: 'score:p', descending: true }],
        0,
        100,
      );
      expect(rows.map((row) => row.key)).not.toContain(key);
      const low = rows.map(({ cells }) =>
        typeof cells['score:p'] === 'number'
          ? cells['score:p']
          : (cells['score:p'] as unknown as Quantity).low,
      );
      expect(low).toEqual([...low].sort((a, b) => b - a));
      for (const { cells } of rows)
        if (typeof cells['score:p'] !== 'number') {
          const { low: sure, high } = cells['score:p'] as unknown as Quantity;
          expect(sure).toBeLessThanOrEqual(high);
          expect(high).toBeLessThanOrEqual(1);
        }
    });
  });

  test('weighed by size alone puts the nearest headcounts first', () => {
    let compared = 0;
    overUniverses(random, 30, (engine, tape) => {
      if (tape.lines.length) return;
      const own = random.db
        .prepare<[], { key: string; n: number }>(
          "SELECT key, headcount_low AS n FROM company WHERE headcount_basis = 'reported' AND revenue_basis IS NULL ORDER BY id LIMIT 1",
        )
        .get();
      if (!own) return;
      const { key } = own;
      const only = { codes: 0, words: 0, technologies: 0, size: 1, place: 0, channels: 0 };
      const { rows } = engine.rows(whole([peers(key, 0.5, only)]), ['headcount', 'score:p'], [], 0, 100);
      for (const row of rows) {
        const headcount = row.cells.headcount as unknown as Quantity & { amount: number | null };
        if (headcount.amount !== null && ++compared)
          expect(Math.abs(Math.log((headcount.amount + 1) / (own.n + 1)))).toBeLessThanOrEqual(
            0.5 * Math.log(10) + 1e-6,
          );
      }
    });
    expect(compared).toBeGreaterThan(5);
  });
});
