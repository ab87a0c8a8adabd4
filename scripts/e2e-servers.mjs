import { spawn } from 'node:child_process';
import { cpSync, rmSync } from 'node:fs';

/**
 * The servers of the interface tests, made and started at once:
 * `node scripts/e2e-servers.mjs COMPANIES FOLDER:PORT[,FOLDER:PORT ...] ...`.
 * Data of so many companies is made once and copied into each of the folders behind; 0 leaves their workspaces empty.
 * A server that fails ends them all.
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

async function serve(companies, servers) {
  for (const { folder } of servers) rmSync(folder, { recursive: true, force: true });
  if (companies !== '0') {
    const made = servers[0].folder;
    if ((await node('dist/demo/make.js', made, companies)) !== 0) return;
    for (const { folder } of servers.slice(1)) cpSync(made, folder, { recursive: true });
  }
  await Promise.race(
    servers.map(({ folder, port }) => node('dist/server/main.js', '--data', folder, '--port', port)),
  );
}

const args = process.argv.slice(2);
const kinds = args.flatMap((companies, at) => {
  if (at % 2 === 1) return [];
  const servers = args[at + 1].split(',').map((server) => {
    const [folder, port] = server.split(':');
    return { folder, port };
  });
  return [serve(companies, servers)];
});
await Promise.race(kinds);
console.error('A server of the interface tests has ended; see above.');
stop(1);
