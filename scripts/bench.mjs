import { parseArgs } from 'node:util';
import { ensureBuild, ensureChromium, ensurePackages, ensureSqliteShell, run } from './setup.mjs';

/**
 * `npm run bench -- --companies 1000000 --tapes 200 --sqlite-every 1 --only compare,serving,browser,files`:
 * makes the demo universes that are missing, then measures. `--ten-million` measures that size too.
 */
const { values } = parseArgs({
  options: {
    companies: { type: 'string', default: '100000,1000000' },
    'ten-million': { type: 'boolean', default: false },
    tapes: { type: 'string', default: '200' },
    'sqlite-every': { type: 'string', default: '1' },
    only: { type: 'string', default: 'compare,serving,browser,files' },
  },
});
ensurePackages();
ensureBuild();
ensureChromium();
ensureSqliteShell();
const sizes = [...values.companies.split(','), ...(values['ten-million'] ? ['10000000'] : [])];
for (const size of sizes) {
  const dir = `data-demo/${size}`;
  console.log(`\n# ${Number(size).toLocaleString('en-GB')} companies\n`);
  if (run('node', ['dist/demo/make.js', dir, size]) !== 0) process.exit(1);
  const options = ['tapes', 'sqlite-every', 'only'].flatMap((name) => [`--${name}`, values[name]]);
  const status = run('node', ['--max-old-space-size=8192', 'dist/bench/main.js', '--data', dir, ...options]);
  if (status !== 0) process.exit(status);
}
