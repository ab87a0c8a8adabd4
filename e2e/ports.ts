import { execFileSync } from 'node:child_process';

/** How many flows go on at once, one unless JUST_TALLY_LANES says more; each worker has a demo workspace and an empty one of its own. */
export const LANES = Number(process.env.JUST_TALLY_LANES ?? 1);

/** A server of the interface tests: one of each lane, or the large one, which all share. */
export type ServerName = 'demo' | 'empty' | 'large';

/** Asks for as many free ports as there are servers and prints them. All are held until all are known, so that they differ. */
const ASK = `
  const { createServer } = require('node:net');
  const servers = Array.from({ length: ${2 * LANES + 1} }, () => createServer().listen(0, '127.0.0.1'));
  Promise.all(servers.map((server) => new Promise((resolve) => server.on('listening', resolve)))).then(() => {
    console.log(servers.map((server) => server.address().port).join(' '));
    for (const server of servers) server.close();
  });`;

/** Free ports, the same in the runner and in its workers, which inherit its environment. */
const PORTS = (process.env.JUST_TALLY_PORTS ??= execFileSync('node', ['-e', ASK], {
  encoding: 'utf8',
}).trim())
  .split(' ')
  .map(Number);

/** The lane of this worker, from 0; the runner itself is in the first. */
const LANE = Number(process.env.TEST_PARALLEL_INDEX ?? 0);

/** Where `server` of a lane (this worker's, if none is named) listens. */
export function portOf(server: ServerName, lane = LANE): number {
  const at = server === 'large' ? 2 * LANES : 2 * lane + (server === 'demo' ? 0 : 1);
  return PORTS[at] as number;
}

/** The address of a server of the interface tests. */
export function baseOf(server: ServerName): string {
  return `http://127.0.0.1:${portOf(server)}`;
}

/** The data folder of a server, seen from the project's root. */
export function folderOf(server: ServerName, lane = LANE): string {
  return `test-results/data-${server}${server === 'large' ? '' : `-${lane}`}`;
}
