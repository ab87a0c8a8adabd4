import Database from 'better-sqlite3';
import { fork, type ChildProcess } from 'node:child_process';
import { copyFileSync, existsSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Tape } from '../core/tape/nodes.ts';
import { openUniverse } from '../server/db/open.ts';
import { writeParquet } from '../server/exports/universe-parquet.ts';
import { loadCodeTrees } from '../server/reference.ts';
import { geometricMean, median, megabytes, printTable, time, times } from './figures.ts';
import { peerDir } from './peer-dir.ts';
import { ASKS, type Ask, type AskMessage, type AskReply, type Contender } from './asks.ts';
import { seededHasTapes, seededTapes } from './tapes.ts';

/** The tally, DuckDB and SQLite asked the same of the same tapes in turn, so that a noisy machine is noisy for all. */

const CONTENDERS: readonly Contender[] = ['tally', 'duckdb', 'sqlite'];
const NAMES: Record<Contender, string> = {
  tally: 'Just Tally',
  duckdb: 'DuckDB, 2 threads, in memory',
  sqlite: 'SQLite, indexed',
};

/** A contender's process. */
class ContenderProcess {
  readonly name: Contender;
  private readonly child: ChildProcess;
  private next: ((message: unknown) => void) | null = null;
  peak = 0;

  constructor(name: Contender, dir: string) {
    this.name = name;
    this.child = fork(fileURLToPath(new URL('./peer-process.js', import.meta.url)), [name, dir], {
      execArgv: ['--max-old-space-size=8192'],
    });
    this.child.on('message', (message) => this.next?.(message));
    this.child.on('exit', (code) => {
      if (code) throw new Error(`The process of ${name} ended with ${code}.`);
    });
  }

  ready(): Promise<unknown> {
    return new Promise((resolve) => (this.next = resolve));
  }

  async ask(message: AskMessage): Promise<AskReply> {
    const reply = this.ready();
    this.child.send(message);
    const answer = (await reply) as AskReply;
    this.peak = answer.peak;
    return answer;
  }

  stop(): void {
    this.child.removeAllListeners('exit');
    this.child.kill();
  }
}

/** Makes what DuckDB needs beside a universe, once: its Parquet files. */
async function prepareParquet(dir: string): Promise<void> {
  const parquet = join(peerDir(dir), 'parquet');
  if (existsSync(join(parquet, 'code_branch.parquet'))) return;
  console.log('Writing Parquet files for DuckDB …');
  const db = openUniverse(dir, { readonly: true });
  await writeParquet(db, loadCodeTrees(), parquet);
  db.close();
}

/** Makes what SQLite needs, once: a copy of the universe with an index on every column. */
function prepareIndexed(dir: string): void {
  const path = join(peerDir(dir), 'indexed.sqlite');
  if (existsSync(path)) return;
  console.log('Indexing every column of a copy for SQLite …');
  const partial = `${path}.part`;
  // Of a try that was broken off, the log would be taken for that of the new copy.
  for (const rest of ['', '-wal', '-shm', '-journal']) rmSync(partial + rest, { force: true });
  const universe = openUniverse(dir);
  universe.pragma('wal_checkpoint(TRUNCATE)');
  universe.close();
  copyFileSync(join(dir, 'universe.sqlite'), partial);
  const db = new Database(partial);
  db.pragma('journal_mode = OFF');
  db.pragma('cache_size = -1048576');
  db.exec('DROP TABLE record');
  const columns = db
    .prepare<[], string>(
      `SELECT name FROM pragma_table_info('company') WHERE pk = 0 AND name NOT IN ('key', 'description')`,
    )
    .pluck()
    .all();
  // Named so that no index has the name of a table.
  for (const column of columns) db.exec(`CREATE INDEX bench_by_${column} ON company (${column})`);
  db.exec('CREATE INDEX bench_code ON company_code (scheme, code, rank, company_id)');
  db.exec('CREATE INDEX bench_technology ON company_technology (technology, company_id)');
  db.exec('CREATE INDEX bench_source ON company_source (source, company_id)');
  db.exec('ANALYZE');
  db.close();
  renameSync(partial, path);
}

interface Timing {
  tape: number;
  ask: Ask;
  took: Record<string, number>;
}

/** Compares over seeded tapes; SQLite, the slowest, on every `sqliteEvery`th of them. Throws where answers differ. */
export async function compare(dir: string, tapes: number, sqliteEvery: number): Promise<void> {
  await prepareParquet(dir);
  prepareIndexed(dir);
  const processes = CONTENDERS.map((name) => new ContenderProcess(name, dir));
  await Promise.all(processes.map((one) => one.ready()));
  const timings: Timing[] = [];
  try {
    const drawn = seededTapes(tapes + 1);
    // The first tape warms all up and does not count.
    for (const [at, tape] of drawn.entries()) {
      const asked = processes.filter(
        (one) => one.name !== 'sqlite' || (at - 1) % sqliteEvery === 0 || at === 0,
      );
      const found = await askAll(asked, tape, at, ASKS);
      if (at > 0) timings.push(...found);
      if (process.stdout.isTTY) process.stdout.write(`\r${at} of ${tapes} tapes`);
    }
  } finally {
    for (const one of processes) one.stop();
  }
  console.log(`\nAll ${timings.length} answers agree. Medians; ratios are of the same tape.\n`);
  report(timings);
  printTable([
    ['peak memory', ...CONTENDERS.map((name) => NAMES[name])],
    ['', ...processes.map((one) => megabytes(one.peak))],
  ]);
}

/** The tally and DuckDB over tapes with has-lines: all figures of each. Throws where answers differ. */
export async function compareHas(dir: string, tapes: number): Promise<void> {
  await prepareParquet(dir);
  const processes = (['tally', 'duckdb'] as const).map((name) => new ContenderProcess(name, dir));
  await Promise.all(processes.map((one) => one.ready()));
  const timings: Timing[] = [];
  try {
    for (const [at, tape] of seededHasTapes(tapes + 1).entries()) {
      const found = await askAll(processes, tape, at, ['figures']);
      if (at > 0) timings.push(...found);
    }
  } finally {
    for (const one of processes) one.stop();
  }
  const took = (name: string) => timings.map((timing) => timing.took[name]!);
  const ratios = timings.map((timing) => timing.took.duckdb! / timing.took.tally!);
  console.log(`All ${timings.length} answers agree.\n`);
  printTable([
    ['tapes with has-lines', 'Just Tally', 'DuckDB', 'ratio, geometric mean', 'worst'],
    [
      'tally with all line figures',
      time(median(took('tally'))),
      time(median(took('duckdb'))),
      times(geometricMean(ratios)),
      times(Math.min(...ratios)),
    ],
  ]);
  console.log(`peak memory: ${processes.map((one) => megabytes(one.peak)).join(' and ')}`);
}

async function askAll(
  processes: readonly ContenderProcess[],
  tape: Tape,
  at: number,
  asks: readonly Ask[],
): Promise<Timing[]> {
  const found: Timing[] = [];
  let offset = 0;
  for (const ask of asks) {
    const took: Record<string, number> = {};
    let wanted: string | null = null;
    for (const one of processes) {
      const reply = await one.ask({ ask, tape, offset: ask === 'middle rows' ? offset : 0 });
      took[one.name] = reply.took;
      const answer = JSON.stringify(reply.answer);
      if (ask === 'figures') offset = Math.floor((reply.answer as number[])[0]! / 2);
      if (wanted !== null && answer !== wanted)
        throw new Error(
          `Tape ${at}, ${ask}: ${one.name} answers ${answer.slice(0, 600)}, not ${wanted.slice(0, 600)}; ${JSON.stringify(tape)}`,
        );
      wanted = answer;
    }
    found.push({ tape: at, ask, took });
  }
  return found;
}

const LABELS: Record<Ask, string> = {
  figures: 'tally with all line figures',
  codes: 'counts of the code tree',
  technologies: 'counts of technologies',
  'first rows': 'first rows in a sort',
  'middle rows': 'rows in the middle',
};

function report(timings: readonly Timing[]): void {
  const rows = [['', 'Just Tally', 'DuckDB', 'SQLite', 'DuckDB ratio', 'worst', 'SQLite ratio', 'worst']];
  for (const ask of ASKS) {
    const of = timings.filter((timing) => timing.ask === ask);
    const took = (name: string) => of.flatMap((timing) => timing.took[name] ?? []);
    const ratios = (name: string) =>
      of.flatMap((timing) => (timing.took[name] === undefined ? [] : timing.took[name] / timing.took.tally!));
    const [duck, sqlite] = [ratios('duckdb'), ratios('sqlite')];
    rows.push([
      LABELS[ask],
      time(median(took('tally'))),
      time(median(took('duckdb'))),
      time(median(took('sqlite'))),
      times(geometricMean(duck)),
      times(Math.min(...duck)),
      times(geometricMean(sqlite)),
      times(Math.min(...sqlite)),
    ]);
  }
  printTable(rows);
}
