import { parentPort, workerData } from 'node:worker_threads';
import type { JobMessage } from './jobs.ts';

/** Thrown in a job's thread to leave its work when the user has cancelled it. */
export class Cancelled extends Error {}

/** Null where the work is done outside a job's thread: then nobody cancels it, and nobody is told how far it is. */
const cancel = (workerData as { cancel: Int32Array } | null)?.cancel;

/** @throws Cancelled once the user has asked for it. */
export function stopIfCancelled(): void {
  if (cancel && Atomics.load(cancel, 0) !== 0) throw new Cancelled();
}

export function tellProgress(done: number, total: number | null, message?: string): void {
  parentPort?.postMessage({
    progress: { done, total, ...(message === undefined ? {} : { message }) },
  } satisfies JobMessage);
}

/** Runs a job: its result, or what went wrong, goes to the main thread. */
export async function runJob(
  work: () => Promise<Record<string, unknown>> | Record<string, unknown>,
): Promise<void> {
  try {
    parentPort!.postMessage({ result: await work() } satisfies JobMessage);
  } catch (error) {
    if (!(error instanceof Cancelled))
      parentPort!.postMessage({
        problem: error instanceof Error ? error.message : String(error),
      } satisfies JobMessage);
  }
}
