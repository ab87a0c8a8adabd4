import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { join } from 'node:path';
import { Tally } from '../core/tally/tally.ts';
import { anyRecord, SOURCES } from '../core/testing/any-record.ts';
import { anyTape } from '../core/testing/any-tape.ts';
import { validateTape } from '../core/tape/validate.ts';
import { buildUniverse } from '../server/engine/build-universe.ts';
import { recordsById } from '../server/engine/stored-universe.ts';
import { universeLookup } from '../server/engine/universe-lookup.ts';
import { searchable } from '../server/engine/words.ts';
import { writeParquet } from '../server/exports/parquet.ts';
import { AS_OF, RandomUniverse } from '../server/testing/random-universe.ts';
import { Agreement } from './agreement.ts';
import { DuckPeer, SqlitePeer } from './databases.ts';

/** The tally held to what SQLite and DuckDB answer to the SQL compiled from the same tapes. */

let random: RandomUniverse;
let sqlite: SqlitePeer;
let duckdb: DuckPeer;

beforeAll(async () => {
  random = new RandomUniverse();
  sqlite = new SqlitePeer(random.db, random.reference.trees);
  duckdb = await DuckPeer.open(2);
});
afterAll(() => {
  duckdb.close();
  random.close();
});

describe('a tally of a random tape over a random universe', () => {
  test('has the figures, companies and counts by value that SQLite and DuckDB give', async () => {
    let tapes = 0;
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(anyRecord, fc.subarray([...SOURCES], { minLength: 1 })), { maxLength: 70 }),
        fc.array(anyTape, { minLength: 100, maxLength: 100 }),
        async (records, drawn) => {
          random.fill(records);
          const { db, reference } = random;
          await writeParquet(db, reference.trees, join(random.dir, 'parquet'));
          await duckdb.load(join(random.dir, 'parquet'));
          const stored = buildUniverse(db, reference.trees);
          const lookup = universeLookup(db, reference, AS_OF, stored);
          const tally = new Tally(searchable(stored, db, recordsById(stored.ids)), 'companies', lookup);
          const agreement = new Agreement(tally, lookup, stored.ids, [sqlite, duckdb]);
          for (const raw of drawn) {
            tapes++;
            const tape = validateTape(raw, lookup);
            expect([tape.lines, await agreement.differences(tape)]).toEqual([tape.lines, []]);
          }
        },
      ),
      { numRuns: 21, seed: 20260930, endOnFailure: true },
    );
    expect(tapes).toBeGreaterThanOrEqual(2000);
  }, 300_000);
});
