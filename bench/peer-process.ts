import Database from 'better-sqlite3';
import { join } from 'node:path';
import { TapeCompiler } from '../core/tape/sql/compile.ts';
import { filled, type Sql } from '../core/tape/sql/statement.ts';
import type { Lookup } from '../core/tape/lookup.ts';
import type { Tape } from '../core/tape/nodes.ts';
import { validateTape } from '../core/tape/validate.ts';
import { openUniverse } from '../server/db/open.ts';
import { Engine } from '../server/engine/engine.ts';
import { NO_FACTS } from '../server/engine/workspace-facts.ts';
import { openColumns } from '../server/engine/opening/open-universe.ts';
import { universeLookup, type ReferenceData } from '../server/engine/universe-lookup.ts';
import { recordsOfAll } from '../server/engine/records.ts';
import { openTallies, openUniverses } from '../server/engine/universes.ts';
import { loadReferenceData } from '../server/reference.ts';
import type { AskMessage, AskReply, Contender } from './asks.ts';
import { DuckPeer, SqlitePeer, type Peer } from './databases.ts';
import { CURRENCIES } from '../core/money/rates.ts';
import { peerDir } from './peer-dir.ts';

/**
 * One contender of the bench in a process of its own, so that its memory can be told from the
 * others': `peer-process CONTENDER DIR`. Answers asks over IPC, one at a time.
 */

/** Makes an ask; the returned number is what `answer` is compared by. */
type Answerer = (message: AskMessage) => Promise<{ took: number; answer: unknown }>;

export const AS_OF = 20_726;
const ROWS = 60;
const COLUMNS = ['name', 'industry', 'headcount', 'revenue', 'checked', 'web'];

async function timed<T>(make: () => T | Promise<T>): Promise<{ took: number; made: T }> {
  const start = performance.now();
  const made = await make();
  return { took: performance.now() - start, made };
}

/** The companies of the top codes and technologies, which are what a picker shows first. */
const some = (counts: Iterable<[string, number]>) =>
  Object.fromEntries([...counts].filter(([, count]) => count > 0).sort(([a], [b]) => (a < b ? -1 : 1)));

/**
 * Figures are counted by a tally that has seen no line yet; the rest, one after the other, by one
 * that goes on, as the second counting thread does.
 */
async function tallyAnswerer(dir: string, reference: ReferenceData): Promise<Answerer> {
  const db = openUniverse(dir, { readonly: true });
  db.exec('BEGIN');
  const { universe } = await openColumns(dir, db, reference.trees);
  const going = new Engine(db, reference, universe, { ...NO_FACTS, asOf: AS_OF });
  const universes = openUniverses(universe, db, recordsOfAll(universe, db));
  const sort = [{ by: 'founded', descending: true }];
  going.rows({ format: 'just-tally.tape', version: 1, subject: 'companies', lines: [] }, [], sort, 0, 1);
  const values = (counts: { key?: string; code?: string; count: number }[]) =>
    some(counts.map(({ key, code, count }) => [(key ?? code)!, count]));
  return async ({ ask, tape, offset }) => {
    switch (ask) {
      case 'figures': {
        const tally = openTallies(universes, going.lookup).get('companies')!;
        const { took, made } = await timed(() => tally.tally(validateTape(tape, going.lookup)));
        return {
          took,
          answer: [
            made.tally,
            ...made.lines.flatMap((line) => [line.subtotal, line.alone, line.without, line.unknown]),
          ],
        };
      }
      case 'codes': {
        const { took, made } = await timed(() =>
          going.counts({ tape, field: 'industry', scheme: 'nace-2.1', rank: 'any' }),
        );
        return { took, answer: values(made.codes as { code: string; count: number }[]) };
      }
      case 'technologies': {
        const { took, made } = await timed(() => going.counts({ tape, field: 'technology' }));
        return { took, answer: values(made.values as { key: string; count: number }[]) };
      }
      case 'first rows':
      case 'middle rows': {
        const { took, made } = await timed(() => going.rows(tape, COLUMNS, sort, offset, ROWS));
        return { took, answer: made.rows.map((row) => row.key) };
      }
    }
  };
}

function sqlAnswerer(peer: Peer, lookup: Lookup): Answerer {
  const compiler = new TapeCompiler(peer.dialect, lookup);
  const window = (tape: Tape, offset: number): Sql =>
    filled(
      `SELECT c.key, c.name, c.country, c.town, c.headcount_low, c.headcount_high, c.headcount_basis, c.revenue_low, c.revenue_high, c.revenue_basis, c.checked_on, c.web FROM company c@ ORDER BY c.founded DESC NULLS LAST, c.id LIMIT ${ROWS} OFFSET ${offset}`,
      compiler.where(tape),
    );
  return async ({ ask, tape: raw, offset }) => {
    const tape = validateTape(raw, lookup);
    const ask_ = (statement: Sql) => timed(() => peer.ask(statement));
    const valued = async (statement: Sql) => {
      const { took, made } = await ask_(statement);
      return { took, answer: some(made.map((row) => [String(row.value), row.companies as number])) };
    };
    switch (ask) {
      case 'figures': {
        const { took, made } = await ask_(compiler.figures(tape));
        return { took, answer: Object.values(made[0]!).slice(1) };
      }
      case 'codes':
        return valued(compiler.counts(tape, { by: 'codes', scheme: 'nace-2.1', mainOnly: false }));
      case 'technologies':
        return valued(
          compiler.counts(tape, {
            by: 'many',
            table: 'company_technology',
            value: 'technology',
            groups: true,
          }),
        );
      case 'first rows':
      case 'middle rows': {
        const { took, made } = await ask_(window(tape, offset));
        return { took, answer: made.map((row) => row.key) };
      }
    }
  };
}

async function answererOf(contender: Contender, dir: string): Promise<Answerer> {
  const reference = loadReferenceData();
  if (contender === 'tally') return tallyAnswerer(dir, reference);
  const db = openUniverse(dir, { readonly: true });
  db.exec('BEGIN');
  const lookup = {
    ...universeLookup(
      db,
      reference,
      { columns: new Map(), related: new Map() },
      { ...NO_FACTS, asOf: AS_OF },
    ),
    currencies: CURRENCIES,
  };
  if (contender === 'sqlite') {
    const indexed = new Database(join(peerDir(dir), 'indexed.sqlite'));
    indexed.pragma('cache_size = -1048576');
    indexed.pragma('mmap_size = 8589934592');
    return sqlAnswerer(new SqlitePeer(indexed, reference.trees), lookup);
  }
  const duckdb = await DuckPeer.open(2);
  await duckdb.load(join(peerDir(dir), 'parquet'));
  return sqlAnswerer(duckdb, lookup);
}

const [contender, dir] = process.argv.slice(2) as [Contender, string];
const answer = await answererOf(contender, dir);
process.on('message', (message: AskMessage) => {
  void answer(message).then(
    (reply) => process.send!({ ...reply, peak: process.resourceUsage().maxRSS * 1024 } satisfies AskReply),
    (error: unknown) => {
      console.error(error);
      process.exit(1);
    },
  );
});
process.send!('ready');
