import { parentPort, workerData } from 'node:worker_threads';
import { Problem } from '../core/tape/problem.ts';
import { startWorker } from './threads.ts';

/** Batches that a feeding thread may be ahead of the one that takes them, which bounds the memory between the two. */
const AHEAD = 8;

/** Megabytes for what lives shortly: a feeding thread makes and hands on very much, and is tidied up after less often. */
const YOUNG = 64;

interface FeedState {
  /** Cell 0: batches taken so far. The feeding thread sleeps on it. */
  taken: Int32Array;
}

type ProblemParts = Pick<Problem, 'code' | 'message' | 'field' | 'value' | 'rule'>;
type FeedMessage<T> = { batch: T } | { end: true } | { problem: ProblemParts };

/** Batches made by the worker at `path` in a thread of its own. Leaving the loop early stops the thread. */
export async function* feed<T>(path: string, data: Record<string, unknown>): AsyncGenerator<T> {
  const taken = new Int32Array(new SharedArrayBuffer(4));
  const worker = startWorker(path, { ...data, taken } satisfies FeedState, {
    resourceLimits: { maxYoungGenerationSizeMb: YOUNG },
  });
  const gone = new Promise((resolve) => worker.once('exit', resolve));
  const waiting: FeedMessage<T>[] = [];
  let failure: Error | null = null;
  let wake = () => {};
  worker.on('message', (message: FeedMessage<T>) => {
    waiting.push(message);
    wake();
  });
  worker.on('error', (error) => {
    failure = error;
    wake();
  });
  try {
    for (;;) {
      while (waiting.length === 0) {
        if (failure) throw failure as Error;
        await new Promise<void>((resolve) => (wake = resolve));
      }
      const message = waiting.shift()!;
      if ('end' in message) return;
      if ('problem' in message)
        throw new Problem(message.problem.code, message.problem.message, message.problem);
      yield message.batch;
      Atomics.add(taken, 0, 1);
      Atomics.notify(taken, 0);
    }
  } finally {
    await worker.terminate();
    await gone;
  }
}

/** Runs the feeding side: `make` hands on batches with `put`, which blocks while the taker is behind. */
export async function runFeed<T>(make: (put: (batch: T) => void) => Promise<void> | void): Promise<void> {
  const { taken } = workerData as FeedState;
  let sent = 0;
  const post = (message: FeedMessage<T>) => parentPort!.postMessage(message);
  try {
    await make((batch) => {
      for (let seen = Atomics.load(taken, 0); sent - seen >= AHEAD; seen = Atomics.load(taken, 0))
        Atomics.wait(taken, 0, seen);
      sent++;
      post({ batch });
    });
    post({ end: true });
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    const { code, message, field, value, rule } = error;
    post({ problem: { code, message, field, value, rule } });
  }
}
