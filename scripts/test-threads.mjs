import { buildServer } from './build-server.mjs';

/** Before the unit tests: builds the threads that they start, once for all; translating each on its start would take most of the time. */
export default async function buildThreads() {
  const folder = 'node_modules/.cache/just-tally-threads';
  await buildServer(folder);
  process.env.BUILT_THREADS = folder;
}
