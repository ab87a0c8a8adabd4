import { DuckDBInstance } from '@duckdb/node-api';
import { spawn } from 'node:child_process';
import { existsSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { formatOf, type FormatId } from '../core/exports/formats.ts';
import { openUniverse } from '../server/db/open.ts';
import { writeParquet } from '../server/exports/universe-parquet.ts';
import { loadCodeTrees } from '../server/reference.ts';
import { megabytes, printTable, time, times } from './figures.ts';
import { peerDir } from './peer-dir.ts';
import { ServerProcess } from './server-process.ts';

/** All companies as files, with the columns that the Desk shows, beside what DuckDB and the sqlite3 shell take for the same columns. */

const COLUMNS = ['name', 'industry', 'headcount', 'revenue', 'checked', 'web'];
const FORMATS: readonly FormatId[] = ['csv', 'parquet', 'jsonl', 'xlsx', 'ods', 'sqlite'];

/** The same columns in SQL that both know; what the Desk makes of them, amounts in euro and titles of codes, is left to us. */
const SQL = `SELECT c.name,
  (SELECT min(k.code) FROM company_code k WHERE k.company_id = c.id AND k.rank = 0) AS main,
  (SELECT group_concat(k.code, '; ') FROM company_code k WHERE k.company_id = c.id) AS codes,
  c.headcount_point, c.headcount_low, c.headcount_high, c.headcount_basis,
  c.revenue_point, c.revenue_low, c.revenue_high, c.revenue_year, c.revenue_basis, c.revenue_currency, c.checked_on, c.web
  FROM company c`;

export async function measureExports(dir: string): Promise<void> {
  const rows: string[][] = [['all companies', 'time', 'rows/s', 'beside DuckDB’s CSV', 'memory at most']];
  const db = openUniverse(dir, { readonly: true });
  const count = db.prepare<[], number>('SELECT count(*) FROM company').pluck().get()!;
  const rate = (took: number) => Math.round(count / (took / 1000)).toLocaleString('en-GB');
  const parquet = join(peerDir(dir), 'parquet');
  if (!existsSync(join(parquet, 'company.parquet'))) await writeParquet(db, loadCodeTrees(), parquet);
  db.close();

  const target = join(peerDir(dir), 'peer.csv');
  const duckdb = await byDuckDb(parquet, target);
  rows.push(['DuckDB, CSV', time(duckdb), rate(duckdb), times(1), '']);
  const shell = await byShell(dir, target);
  rows.push(['sqlite3 shell, CSV', time(shell), rate(shell), times(shell / duckdb), '']);

  const server = await ServerProcess.start(dir);
  const tape = { format: 'just-tally.tape', version: 1, subject: 'companies', lines: [] };
  await server.post('/tally', { tape });
  for (const format of FORMATS) {
    const start = performance.now();
    const { job, export: id } = await server.post<{ job: { id: string }; export: string }>('/exports', {
      ...{ tape, name: 'Bench', format, columns: COLUMNS },
    });
    await server.done(job.id);
    const took = performance.now() - start;
    const path = join(dir, 'exports', `${id}.${formatOf(format).ending}`);
    rows.push([
      `${formatOf(format).label}, ${megabytes(statSync(path).size)}`,
      time(took),
      rate(took),
      times(took / duckdb),
      megabytes(server.peak()),
    ]);
    rmSync(path);
  }
  await server.stop();
  printTable(rows);
}

async function byDuckDb(parquet: string, target: string): Promise<number> {
  const instance = await DuckDBInstance.create(':memory:', { threads: '2' });
  const connection = await instance.connect();
  for (const table of ['company', 'company_code'])
    await connection.run(
      `CREATE TABLE ${table} AS SELECT * FROM read_parquet('${join(parquet, `${table}.parquet`)}')`,
    );
  const start = performance.now();
  await connection.run(`COPY (${SQL}) TO '${target}' (HEADER)`);
  const took = performance.now() - start;
  connection.closeSync();
  rmSync(target);
  return took;
}

async function byShell(dir: string, target: string): Promise<number> {
  const start = performance.now();
  const shell = spawn(
    'sqlite3',
    ['-readonly', '-header', '-csv', join(dir, 'universe.sqlite'), `.output ${target}`, SQL],
    {
      stdio: 'inherit',
    },
  );
  const code = await new Promise((resolve) => shell.on('exit', resolve));
  if (code !== 0) throw new Error('sqlite3 failed; is the Debian package sqlite3 installed?');
  rmSync(target);
  return performance.now() - start;
}
