import { parentPort, workerData } from 'node:worker_threads';
import { readTape } from './read-tape.ts';

/** The thread that looks for a tape in a file of somebody else's. */
const { path } = workerData as { path: string };

parentPort!.postMessage(
  await readTape(path).then(
    (tape) => ({ tape }),
    () => ({ tape: null }),
  ),
);
