import { execFileSync } from 'node:child_process';

/** Where the servers of the interface tests listen. */
export interface Ports {
  demo: number;
  large: number;
  empty: number;
}

/** Asks for as many free ports as there are servers and prints them. All are held until all are known, so that they differ. */
const ASK = `
  const { createServer } = require('node:net');
  const servers = [0, 1, 2].map(() => createServer().listen(0, '127.0.0.1'));
  Promise.all(servers.map((server) => new Promise((resolve) => server.on('listening', resolve)))).then(() => {
    console.log(servers.map((server) => server.address().port).join(' '));
    for (const server of servers) server.close();
  });`;

/** Free ports, the same in the runner and in its workers, which inherit its environment. */
export const PORTS: Ports = (() => {
  const given = (process.env.JUST_TALLY_PORTS ??= execFileSync('node', ['-e', ASK], {
    encoding: 'utf8',
  }).trim());
  const [demo, large, empty] = given.split(' ').map(Number) as [number, number, number];
  return { demo, large, empty };
})();

/** The address of a server of the interface tests. */
export function baseOf(server: keyof Ports): string {
  return `http://127.0.0.1:${PORTS[server]}`;
}
