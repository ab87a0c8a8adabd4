import { openUniverse } from '../server/db/open.ts';
import type { TestServer } from '../server/testing/test-server.ts';
import { loadDemo } from './load-demo.ts';
import { fillWorkspace } from './workspace.ts';

/** Starts a test's server over a demo of so many companies, with its workspace. */
export async function startDemo(server: TestServer, companies: number): Promise<void> {
  const universe = openUniverse(server.dir);
  await loadDemo(universe, companies, () => {});
  await fillWorkspace(server.dir, universe);
  universe.close();
  await server.start(20);
}
