import { DuckDBInstance, type DuckDBConnection } from '@duckdb/node-api';
import Database from 'better-sqlite3';
import { join } from 'node:path';
import type { CodeTree, Scheme } from '../core/codes/tree.ts';
import { written, type Sql } from '../core/tape/sql/statement.ts';
import type { Dialect } from '../core/tape/sql/compile.ts';
import type { RandomUniverse } from '../server/testing/random-universe.ts';
import { codeBranches } from '../server/exports/universe-parquet.ts';

/** The databases that the tally is held against. */

export type Answer = Record<string, string | number | null>[];

export interface Peer {
  dialect: Dialect;
  name: string;
  ask(statement: Sql): Promise<Answer>;
}

/** SQLite over a universe, with the code trees beside it. */
export class SqlitePeer implements Peer {
  readonly dialect = 'sqlite';
  readonly name = 'SQLite';
  readonly db: Database.Database;

  constructor(db: Database.Database, trees: ReadonlyMap<Scheme, CodeTree>) {
    this.db = db;
    db.exec(
      'CREATE TEMP TABLE code_branch (scheme TEXT, code TEXT, above TEXT, PRIMARY KEY (scheme, code, above)) WITHOUT ROWID',
    );
    const add = db.prepare('INSERT INTO code_branch VALUES (?, ?, ?)');
    db.transaction(() => {
      for (const branch of codeBranches(trees)) add.run(...branch);
    })();
  }

  ask({ text, values }: Sql): Promise<Answer> {
    return Promise.resolve(
      this.db.prepare<unknown[], Answer[number]>(text).all(...(values as (string | number)[])),
    );
  }
}

const TABLES = [
  'company',
  'company_code',
  'company_technology',
  'company_offer',
  'company_certificate',
  'company_measure',
  'company_source',
  'company_market',
  'company_country',
  'company_changed',
  'company_dispute',
  'company_corrected',
  'site',
  'person',
  'event',
  'deal',
  'deal_party',
  'deal_source',
  'brand',
  'brand_party',
  'brand_country',
  'brand_measure',
  'technology',
  'code_branch',
];

/** DuckDB in memory, over tables read from the exported Parquet files. */
export class DuckPeer implements Peer {
  readonly dialect = 'duckdb';
  readonly name = 'DuckDB';
  private readonly connection: DuckDBConnection;

  private constructor(connection: DuckDBConnection) {
    this.connection = connection;
  }

  static async open(threads: number): Promise<DuckPeer> {
    const instance = await DuckDBInstance.create(':memory:', { threads: String(threads) });
    return new DuckPeer(await instance.connect());
  }

  /** For many statements over few rows: planning as written takes a third less time than improving the plan. */
  static async openUnplanned(): Promise<DuckPeer> {
    const peer = await DuckPeer.open(1);
    await peer.connection.run('PRAGMA disable_optimizer');
    return peer;
  }

  async load(dir: string): Promise<void> {
    for (const table of TABLES)
      await this.connection.run(
        `CREATE OR REPLACE TABLE ${table} AS SELECT * FROM read_parquet('${join(dir, `${table}.parquet`)}')`,
      );
  }

  /** What the workspace would have: lists, and companies in the address book. */
  async loadFacts(
    lists: ReturnType<RandomUniverse['listTables']>,
    contacts: readonly string[],
  ): Promise<void> {
    const value = (one: string | number | null) =>
      one === null ? 'NULL' : typeof one === 'number' ? String(one) : `'${one}'`;
    const rows = (values: readonly (string | number | null)[][]) =>
      values.map((row) => `(${row.map(value).join(', ')})`).join(', ');
    for (const { table, columns, rows: own } of lists) {
      const typed = columns.map(
        (name) =>
          `${name} ${/_at$|^taken$|^day$/.test(name) ? 'BIGINT' : name === 'number' ? 'DOUBLE' : 'TEXT'}`,
      );
      await this.run(`CREATE OR REPLACE TABLE ${table} (${typed.join(', ')})`);
      if (own.length) await this.run(`INSERT INTO ${table} VALUES ${rows(own)}`);
    }
    await this.run('CREATE OR REPLACE TABLE contact (company TEXT)');
    if (contacts.length) await this.run(`INSERT INTO contact VALUES ${rows(contacts.map((one) => [one]))}`);
  }

  async run(text: string): Promise<void> {
    await this.connection.run(text);
  }

  async ask(statement: Sql): Promise<Answer> {
    const reader = await this.connection.runAndReadAll(written(statement));
    const names = reader.columnNames();
    return reader
      .getRows()
      .map((row) =>
        Object.fromEntries(
          row.map((value, i) => [
            names[i]!,
            typeof value === 'bigint' ? Number(value) : (value as string | number | null),
          ]),
        ),
      );
  }

  close(): void {
    this.connection.closeSync();
  }
}
