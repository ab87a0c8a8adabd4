import { spawn } from 'node:child_process';
import { parseArgs } from 'node:util';
import { ensureBuild, ensurePackages, run, serve } from './setup.mjs';

/** `npm run demo -- --port 4600 --companies 48000 --data DIR --month 2026-11 --no-open`: everything from a fresh checkout to the address. */
const { values } = parseArgs({
  options: {
    port: { type: 'string', default: '4600' },
    companies: { type: 'string', default: '48000' },
    data: { type: 'string' },
    month: { type: 'string' },
    'no-open': { type: 'boolean', default: false },
  },
});
const companies = Number(values.companies);
if (!Number.isInteger(companies) || companies < 100 || companies > 10_000_000) {
  console.error(`--companies ${values.companies}: a whole number from 100 to 10000000 is expected.`);
  process.exit(1);
}
const data = values.data ?? `data-demo/${companies}`;
ensurePackages();
ensureBuild();
const months = values.month === undefined ? [] : [values.month];
if (run('node', ['dist/demo/make.js', data, String(companies), ...months]) !== 0) process.exit(1);
serve(['dist/server/main.js', '--data', data, '--port', values.port], (said) => {
  const address = /http:\/\/\S+/.exec(said)?.[0];
  if (
    address &&
    !values['no-open'] &&
    process.stdout.isTTY &&
    (process.env.DISPLAY || process.platform === 'darwin')
  )
    spawn(process.platform === 'darwin' ? 'open' : 'xdg-open', [address], {
      stdio: 'ignore',
      detached: true,
    }).on('error', () => {});
});
