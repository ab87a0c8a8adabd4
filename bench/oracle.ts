import fc from 'fast-check';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { anyRecord, SOURCES } from '../core/testing/any-record.ts';
import { anyRelated, type AnyRelated } from '../core/testing/any-related.ts';
import { anyRelatedTape, anyTape } from '../core/testing/any-tape.ts';
import { validateTape } from '../core/tape/validate.ts';
import { buildUniverse } from '../server/engine/opening/build-universe.ts';
import { universeLookup } from '../server/engine/universe-lookup.ts';
import { recordsOfAll } from '../server/engine/records.ts';
import { openTallies, openUniverses } from '../server/engine/universes.ts';
import { writeParquet } from '../server/exports/universe-parquet.ts';
import { RandomUniverse } from '../server/testing/random-universe.ts';
import { Agreement } from './agreement.ts';
import { DuckPeer, SqlitePeer } from './databases.ts';

/** Many random tapes over one large random universe, held to SQLite and DuckDB: `--tapes N --companies N --seed N`. */
const { values } = parseArgs({
  options: {
    tapes: { type: 'string', default: '10000' },
    companies: { type: 'string', default: '100000' },
    seed: { type: 'string', default: '20260930' },
  },
});
const [tapes, companies, seed] = [values.tapes, values.companies, values.seed].map(Number) as [
  number,
  number,
  number,
];
if (![tapes, companies, seed].every((number) => Number.isInteger(number) && number > 0)) {
  console.error('--tapes, --companies and --seed are whole numbers above 0.');
  process.exit(1);
}

const random = new RandomUniverse();
console.log(`Drawing ${companies} companies …`);
const sourced = fc.tuple(anyRecord, fc.subarray([...SOURCES], { minLength: 1 }));
const drawn = fc.sample(anyRelated, { numRuns: Math.ceil(companies / 40), seed });
random.fill(fc.sample(sourced, { numRuns: companies, seed }), joined(drawn, companies));
const facts = random.facts();
const { db, reference } = random;
await writeParquet(db, reference.trees, join(random.dir, 'parquet'));
const duckdb = await DuckPeer.open(2);
await duckdb.load(join(random.dir, 'parquet'));
await duckdb.loadFacts(random.listTables(), random.contacts);
const stored = buildUniverse(db, reference.trees);
const lookup = universeLookup(db, reference, stored, facts);
const byKey = recordsOfAll(stored, db);
const tallies = openTallies(openUniverses(stored, db, byKey, facts), lookup);
const agreement = new Agreement(tallies, lookup, byKey, [new SqlitePeer(db, reference.trees), duckdb]);

let agreed = 0;
for (const [at, raw] of fc
  .sample(fc.oneof({ weight: 4, arbitrary: anyTape }, anyRelatedTape), { numRuns: tapes, seed })
  .entries()) {
  const tape = validateTape(raw, lookup);
  const differences = await agreement.differences(tape);
  if (differences.length === 0) agreed++;
  else console.log(JSON.stringify(tape.lines), ...differences.map((one) => `\n  ${one.slice(0, 2000)}`));
  if (process.stdout.isTTY) process.stdout.write(`\r${at + 1} of ${tapes} tapes`);
}
console.log(`\n${agreed} of ${tapes} tapes agree with SQLite and DuckDB over ${companies} companies.`);
duckdb.close();
random.close();
process.exit(agreed === tapes ? 0 : 1);

/** Many small lots of related records as one, each lot about companies of its own. */
function joined(lots: readonly AnyRelated[], size: number): AnyRelated {
  const all: AnyRelated = {
    sites: [],
    people: [],
    events: [],
    deals: [],
    brands: [],
    covered: lots[0]!.covered,
  };
  lots.forEach((lot, nth) => {
    const at = (owner: number | null) => (owner === null ? null : (owner + nth * 1009) % size);
    const own = <T extends { owner: number | null }>(one: T): T => ({ ...one, owner: at(one.owner) });
    all.sites.push(...lot.sites.map(own));
    all.people.push(...lot.people.map(own));
    all.events.push(...lot.events.map(own));
    all.deals.push(...lot.deals.map((deal) => ({ ...deal, parties: deal.parties.map(own) })));
    all.brands.push(...lot.brands.map((brand) => ({ ...brand, parties: brand.parties.map(own) })));
  });
  return all;
}
