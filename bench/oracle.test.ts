import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { join } from 'node:path';
import { anyRecord, SOURCES } from '../core/testing/any-record.ts';
import { anyRelated } from '../core/testing/any-related.ts';
import { anyRelatedTape, anyTape, names } from '../core/testing/any-tape.ts';
import { validateTape } from '../core/tape/validate.ts';
import { buildUniverse } from '../server/engine/opening/build-universe.ts';
import { universeLookup } from '../server/engine/universe-lookup.ts';
import { recordsOfAll } from '../server/engine/records.ts';
import { openTallies, openUniverses } from '../server/engine/universes.ts';
import { writeParquet } from '../server/exports/universe-parquet.ts';
import { RandomUniverse } from '../server/testing/random-universe.ts';
import { Agreement } from './agreement.ts';
import { DuckPeer, SqlitePeer } from './databases.ts';

/** The tally held to what SQLite and DuckDB answer to the SQL compiled from the same tapes. */

let random: RandomUniverse;
let sqlite: SqlitePeer;
let duckdb: DuckPeer;

beforeAll(async () => {
  random = new RandomUniverse();
  sqlite = new SqlitePeer(random.db, random.reference.trees);
  duckdb = await DuckPeer.openUnplanned();
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
        anyRelated,
        fc.array(fc.oneof({ weight: 4, arbitrary: anyTape }, anyRelatedTape), {
          minLength: 120,
          maxLength: 120,
        }),
        async (records, related, drawn) => {
          random.fill(records, related);
          const facts = random.facts();
          const { db, reference } = random;
          await writeParquet(db, reference.trees, join(random.dir, 'parquet'));
          await duckdb.load(join(random.dir, 'parquet'));
          await duckdb.loadFacts(random.listTables(), random.contacts);
          const stored = buildUniverse(db, reference.trees);
          const lookup = universeLookup(db, reference, stored, facts);
          const byKey = recordsOfAll(stored, db);
          const tallies = openTallies(openUniverses(stored, db, byKey, facts), lookup);
          const agreement = new Agreement(tallies, lookup, byKey, [sqlite, duckdb]);
          for (const raw of drawn.filter((one) => names(() => validateTape(one, lookup)))) {
            const tape = validateTape(raw, lookup);
            // DuckDB plans for ten times as long as SQLite answers: it is asked of two tapes in five.
            const peers = tapes++ % 5 < 2 ? [sqlite, duckdb] : [sqlite];
            expect([tape.lines, await agreement.differences(tape, peers)]).toEqual([tape.lines, []]);
          }
        },
      ),
      { numRuns: 21, seed: 20260930, endOnFailure: true },
    );
    expect(tapes).toBeGreaterThanOrEqual(2000);
  }, 900_000);
});
