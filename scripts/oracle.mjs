import { ensureBuild, ensurePackages, run } from './setup.mjs';

/** `npm run oracle -- --tapes 10000 --companies 100000`: the tally held to SQLite and DuckDB on random tapes. */
ensurePackages();
ensureBuild();
process.exit(run('node', ['--max-old-space-size=8192', 'dist/bench/oracle.js', ...process.argv.slice(2)]));
