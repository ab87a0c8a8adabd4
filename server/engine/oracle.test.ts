import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { hasBit } from '../../core/tally/bits.ts';
import { Tally } from '../../core/tally/tally.ts';
import { anyLines, anyRecord, anyTape, SOURCES } from '../../core/testing/arbitraries.ts';
import { isLive, type Line, type Tape } from '../../core/tape/nodes.ts';
import { compileLine, compileTape, compileTest } from '../../core/tape/sql/compile.ts';
import { parseTyped } from '../../core/tape/typed/parse.ts';
import { spellLines } from '../../core/tape/typed/spell.ts';
import { validateTape } from '../../core/tape/validate.ts';
import type { Db } from '../db/open.ts';
import { AS_OF, RandomUniverse } from '../testing/random-universe.ts';
import { buildUniverse } from './build-universe.ts';
import { recordsById } from './stored-universe.ts';
import { universeLookup, type ReferenceData } from './universe-lookup.ts';
import { searchable } from './words.ts';

/** The tally held to what SQLite answers to the SQL compiled from the same tape. */

let random: RandomUniverse;
let db: Db;
let reference: ReferenceData;

beforeAll(() => {
  random = new RandomUniverse();
  ({ db, reference } = random);
});
afterAll(() => random.close());

const count = (sql: { text: string; values: (string | number)[] }) =>
  db
    .prepare<(string | number)[], number>(`SELECT count(*) FROM (${sql.text})`)
    .pluck()
    .get(...sql.values)!;

describe('a tally of a random tape over a random universe', () => {
  test('has the figures that SQLite gives for the compiled tape', () => {
    let tapes = 0;
    fc.assert(
      fc.property(
        fc.array(fc.tuple(anyRecord, fc.subarray([...SOURCES], { minLength: 1 })), { maxLength: 70 }),
        fc.array(anyTape, { minLength: 25, maxLength: 25 }),
        (records, drawn) => {
          random.fill(records);
          const stored = buildUniverse(db, reference.trees);
          const { ids } = stored;
          const lookup = universeLookup(db, reference, AS_OF, stored);
          const tally = new Tally(searchable(stored, db, recordsById(ids)), 'companies', lookup);
          for (const raw of drawn) {
            tapes++;
            const tape = validateTape(raw, lookup);
            const answer = tally.tally(tape);
            const withLines = (lines: Line[]): Tape => ({ ...tape, lines });
            const whole = compileTape(tape, lookup);
            const wanted = db
              .prepare<(string | number)[], number>(whole.text)
              .pluck()
              .all(...whole.values);
            const kept = tally.kept(tape);
            expect([...ids].filter((_, r) => hasBit(kept, r))).toEqual(wanted);
            expect(answer.tally).toBe(wanted.length);
            tape.lines.forEach((line, i) => {
              const figures = answer.lines[i]!;
              expect(figures.subtotal).toBe(
                count(compileTape(withLines(tape.lines.slice(0, i + 1)), lookup)),
              );
              if (!isLive(line)) return;
              const others = tape.lines.filter((other) => other !== line);
              const own = compileLine(line, 'companies', lookup);
              expect(figures.alone).toBe(
                count({ text: `SELECT c.id FROM company c WHERE ${own.text}`, values: own.values }),
              );
              expect(figures.without).toBe(count(compileTape(withLines(others), lookup)));
              const context = others.filter(isLive).map((other) => compileLine(other, 'companies', lookup));
              const undecided = compileTest(line, 'companies', lookup);
              expect(figures.unknown).toBe(
                count({
                  text: `SELECT c.id FROM company c WHERE ${[...context.map((one) => one.text), `(${undecided.text}) IS NULL`].join(' AND ')}`,
                  values: [...context.flatMap((one) => one.values), ...undecided.values],
                }),
              );
            });
          }
        },
      ),
      { numRuns: 24, seed: 20260930 },
    );
    expect(tapes).toBeGreaterThanOrEqual(600);
  });
});

test('typed lines are a lossless spelling of the tape', () => {
  const lookup = universeLookup(db, reference, AS_OF, buildUniverse(db, reference.trees));
  const nameless = (lines: readonly Line[]) =>
    JSON.parse(JSON.stringify(lines, (key, value: unknown) => (key === 'id' ? undefined : value))) as unknown;
  fc.assert(
    fc.property(anyLines, (raw) => {
      const lines = validateTape(
        { format: 'just-tally.tape', version: 1, subject: 'companies', lines: raw },
        lookup,
      ).lines;
      const typed = spellLines(lines, 'companies', lookup);
      let n = 0;
      expect(nameless(parseTyped(typed, 'companies', lookup, () => `t${++n}`))).toEqual(nameless(lines));
    }),
    { numRuns: 1500, seed: 20260930 },
  );
});
