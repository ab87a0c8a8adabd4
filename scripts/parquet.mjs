import { ensureBuild, ensurePackages, run } from './setup.mjs';

/** `npm run parquet -- --data DIR --to DIR`: the universe of a workspace as Parquet files, for the SQL of other databases. */
ensurePackages();
ensureBuild();
process.exit(run('node', ['dist/server/write-parquet.js', ...process.argv.slice(2)]));
