import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { openUniverse } from './db/open.ts';
import { writeParquet } from './exports/universe-parquet.ts';
import { loadCodeTrees } from './reference.ts';

/** Writes the universe of a workspace as Parquet files: `--data DIR --to DIR`. */
const { values } = parseArgs({
  options: { data: { type: 'string', default: 'workspace' }, to: { type: 'string' } },
});
if (!existsSync(join(values.data, 'universe.sqlite'))) {
  console.error(`--data ${values.data}: there is no universe.sqlite in this folder.`);
  process.exit(1);
}
const to = values.to ?? join(values.data, 'parquet');
const db = openUniverse(values.data, { readonly: true });
db.exec('BEGIN');
let last = 0;
await writeParquet(db, loadCodeTrees(), to, (done, total) => {
  if (Date.now() - last < 500 && done < total) return;
  last = Date.now();
  const line = `Writing Parquet: ${Math.floor((100 * done) / total)} %`;
  process.stdout.write(process.stdout.isTTY ? `\r${line}` : done === total ? line : '');
});
db.close();
console.log(`\nThe universe is in ${to}, one file a table.`);
