import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildServer } from './build-server.mjs';

/**
 * Before the unit tests: builds the threads that they start, once for all, since translating each on its start would take most of the
 * time, and a folder for the demos that several of them use.
 */
export default async function buildThreads() {
  const folder = 'node_modules/.cache/just-tally-threads';
  await buildServer(folder);
  process.env.BUILT_THREADS = folder;
  process.env.MADE_DEMOS = mkdtempSync(join(tmpdir(), 'just-tally-demos-'));
}
