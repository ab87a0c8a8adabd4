import { spawn } from 'node:child_process';
import { rmSync } from 'node:fs';

/**
 * The servers of the interface tests, made and started at once: `node scripts/e2e-servers.mjs FOLDER:COMPANIES:PORT ...`.
 * Each gets fresh data of so many companies; 0 leaves its workspace empty. One that fails ends them all.
 */
const children = new Set();
const stop = (code) => {
  for (const child of children) child.kill();
  process.exit(code);
};
process.on('SIGTERM', () => stop(0));
process.on('SIGINT', () => stop(0));

const node = (...args) =>
  new Promise((resolve) => {
    const child = spawn('node', args, { stdio: 'inherit' });
    children.add(child);
    child.on('exit', (code) => {
      children.delete(child);
      resolve(code ?? 1);
    });
  });

async function serve(dir, companies, port) {
  rmSync(dir, { recursive: true, force: true });
  if (companies !== '0' && (await node('dist/demo/make.js', dir, companies)) !== 0) return;
  await node('dist/server/main.js', '--data', dir, '--port', port);
}

await Promise.race(process.argv.slice(2).map((server) => serve(...server.split(':'))));
console.error('A server of the interface tests has ended; see above.');
stop(1);
