import { cpSync, existsSync, mkdtempSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { openUniverse } from '../server/db/open.ts';
import type { TestServer } from '../server/testing/test-server.ts';
import { loadDemo } from './load-demo.ts';
import { fillWorkspace } from './workspace.ts';

/** Starts a test's server over a demo of so many companies, with its workspace. */
export async function startDemo(server: TestServer, companies: number): Promise<void> {
  cpSync(await madeOnce(companies), server.dir, { recursive: true });
  await server.start(20);
}

/** The folder of a demo, made by the first test of a run that asks for one as large. */
async function madeOnce(companies: number): Promise<string> {
  const folder = join(process.env.MADE_DEMOS!, `${companies}`);
  if (existsSync(folder)) return folder;
  const making = mkdtempSync(`${folder}-`);
  const universe = openUniverse(making);
  await loadDemo(universe, companies, () => {});
  await fillWorkspace(making, universe);
  universe.close();
  try {
    renameSync(making, folder);
  } catch {
    // Another test has made the same meanwhile.
    rmSync(making, { recursive: true });
  }
  return folder;
}
