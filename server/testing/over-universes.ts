import fc from 'fast-check';
import { anyRecord, SOURCES } from '../../core/testing/any-record.ts';
import { anyRelated } from '../../core/testing/any-related.ts';
import { anyTape, names } from '../../core/testing/any-tape.ts';
import { TapeCompiler } from '../../core/tape/sql/compile.ts';
import type { Tape } from '../../core/tape/nodes.ts';
import { validateTape } from '../../core/tape/validate.ts';
import { buildUniverse } from '../engine/opening/build-universe.ts';
import { Engine } from '../engine/engine.ts';
import type { RandomUniverse } from './random-universe.ts';

const anyRecords = fc.array(fc.tuple(anyRecord, fc.subarray([...SOURCES], { minLength: 1 })), {
  minLength: 1,
  maxLength: 60,
});

/** What a tape keeps, as a condition on companies called c. */
export interface KeptSql {
  sql: string;
  values: readonly (string | number)[];
}

/** Runs `check` over random universes, each with some random tapes and the SQL that selects the tape's companies. */
export function overUniverses(
  random: RandomUniverse,
  runs: number,
  check: (engine: Engine, tape: Tape, kept: KeptSql) => void,
): void {
  fc.assert(
    fc.property(
      anyRecords,
      anyRelated,
      fc.array(anyTape, { minLength: 4, maxLength: 4 }),
      (records, related, tapes) => {
        random.fill(records, related);
        const engine = new Engine(
          random.db,
          random.reference,
          buildUniverse(random.db, random.reference.trees),
          random.facts(),
        );
        for (const raw of [{ ...tapes[0]!, lines: [] }, ...tapes]) {
          if (!names(() => validateTape(raw, engine.lookup))) continue;
          const tape = validateTape(raw, engine.lookup);
          const compiled = new TapeCompiler('sqlite', engine.lookup).kept(tape);
          check(engine, tape, { sql: `c.id IN (${compiled.text})`, values: compiled.values });
        }
      },
    ),
    { numRuns: runs, seed: 20260930 },
  );
}
