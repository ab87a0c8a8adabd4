import { fileWriter, ParquetWriter, schemaFromColumnData } from 'hyparquet-writer';
import { mkdirSync, renameSync } from 'node:fs';
import { join } from 'node:path';
import type { CodeTree, Scheme } from '../../core/codes/tree.ts';
import { wordsColumn } from '../../core/tape/sql/words-column.ts';
import type { Db } from '../db/open.ts';

/** Rows of one row group: those in memory at a time. */
const ROWS_A_GROUP = 100_000;

type Value = string | number | null;
type Kind = 'STRING' | 'INT32' | 'DOUBLE';

const KINDS: Record<string, Kind> = { TEXT: 'STRING', INTEGER: 'INT32', REAL: 'DOUBLE' };

/** A table of universe.sqlite that becomes a file of the same name, with columns made beside its own. */
interface Table {
  name: string;
  order: string;
  made: { name: string; of: string; make(text: string | null): string | null }[];
}

const TABLES: readonly Table[] = [
  {
    name: 'company',
    order: 'id',
    made: ['name', 'description'].map((of) => ({ name: `${of}_words`, of, make: wordsColumn })),
  },
  { name: 'company_code', order: 'company_id, scheme, rank', made: [] },
  { name: 'company_technology', order: 'company_id, technology', made: [] },
  { name: 'company_offer', order: 'company_id, offer', made: [] },
  { name: 'company_certificate', order: 'company_id, certificate', made: [] },
  { name: 'company_measure', order: 'company_id, measure, key', made: [] },
  { name: 'company_source', order: 'company_id, source', made: [] },
  { name: 'company_market', order: 'company_id, measure, key', made: [] },
  { name: 'company_country', order: 'company_id, country', made: [] },
  { name: 'company_changed', order: 'company_id, field', made: [] },
  { name: 'company_dispute', order: 'company_id, part', made: [] },
  { name: 'company_corrected', order: 'company_id, field', made: [] },
  { name: 'site', order: 'id', made: [] },
  { name: 'person', order: 'id', made: [] },
  { name: 'event', order: 'id', made: [] },
  { name: 'deal', order: 'id', made: [] },
  { name: 'deal_party', order: 'deal_id, company_id, role', made: [] },
  { name: 'deal_source', order: 'deal_id, source', made: [] },
  { name: 'brand', order: 'id', made: [] },
  { name: 'brand_party', order: 'brand_id, company_id, role', made: [] },
  { name: 'brand_country', order: 'brand_id, country', made: [] },
  { name: 'brand_measure', order: 'brand_id, measure, key', made: [] },
  { name: 'technology', order: 'key', made: [] },
];

/**
 * Writes the universe as Parquet, one file a table, for the SQL of other databases: the tables that
 * lines are tested on, the words of each company as `wordsColumn` makes them, and `code_branch`
 * with every code under itself and each code above it. `db` must show one state throughout.
 */
export async function writeParquet(
  db: Db,
  trees: ReadonlyMap<Scheme, CodeTree>,
  dir: string,
  progress: (done: number, total: number) => void = () => {},
): Promise<void> {
  mkdirSync(dir, { recursive: true });
  const count = (table: string) => db.prepare<[], number>(`SELECT count(*) FROM ${table}`).pluck().get()!;
  const total = TABLES.reduce((sum, { name }) => sum + count(name), 0);
  let done = 0;
  for (const table of TABLES)
    await writeTable(join(dir, `${table.name}.parquet`), ...rowsOf(db, table), () => progress(++done, total));
  await writeTable(
    join(dir, 'code_branch.parquet'),
    ['scheme', 'code', 'above'].map((name) => ({ name, kind: 'STRING' as const })),
    codeBranches(trees),
  );
}

/** Every code under itself, each code above it, and those below it that say the same because they stand alone there. */
export function* codeBranches(
  trees: ReadonlyMap<Scheme, CodeTree>,
): Generator<[scheme: string, code: string, above: string]> {
  for (const [scheme, tree] of trees)
    for (let node = 0; node < tree.size; node++) {
      const code = tree.codes[node]!;
      for (let above = node; above >= 0; above = tree.parents[above]!)
        yield [scheme, code, tree.codes[above]!];
      for (let below = node + 1; below < tree.size && tree.onlyChildOf(below) === below - 1; below++)
        yield [scheme, code, tree.codes[below]!];
    }
}

interface Column {
  name: string;
  kind: Kind;
}

function rowsOf(db: Db, { name, order, made }: Table): [Column[], Iterable<Value[]>] {
  const own = db
    .prepare<[], { name: string; type: string }>(`SELECT name, type FROM pragma_table_info('${name}')`)
    .all()
    .map((column): Column => ({ name: column.name, kind: KINDS[column.type]! }));
  const columns = [...own, ...made.map((column): Column => ({ name: column.name, kind: 'STRING' }))];
  const sources = made.map(({ of }) => own.findIndex((column) => column.name === of));
  function* rows(): Generator<Value[]> {
    const select = `SELECT ${own.map((column) => column.name).join(', ')} FROM ${name} ORDER BY ${order}`;
    for (const row of db.prepare<[], Value[]>(select).raw().iterate()) {
      made.forEach(({ make }, i) => row.push(make(row[sources[i]!] as string | null)));
      yield row;
    }
  }
  return [columns, rows()];
}

async function writeTable(
  path: string,
  columns: readonly Column[],
  rows: Iterable<Value[]>,
  wrote: () => void = () => {},
): Promise<void> {
  const dataOf = (values: Value[][]) =>
    columns.map(({ name, kind }, i) => ({ name, type: kind, data: values[i]!, nullable: true }));
  const empty = () => columns.map((): Value[] => []);
  const partial = `${path}.part`;
  const writer = new ParquetWriter({
    writer: fileWriter(partial),
    schema: schemaFromColumnData({ columnData: dataOf(empty()) }),
  });
  let group = empty();
  const flush = async () => {
    if (group[0]!.length) await writer.write({ columnData: dataOf(group), rowGroupSize: ROWS_A_GROUP });
    group = empty();
  };
  for (const row of rows) {
    for (let i = 0; i < columns.length; i++) group[i]!.push(row[i]!);
    if (group[0]!.length === ROWS_A_GROUP) await flush();
    wrote();
  }
  await flush();
  await writer.finish();
  renameSync(partial, path);
}
