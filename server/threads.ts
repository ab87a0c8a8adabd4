import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { Worker, type WorkerOptions } from 'node:worker_threads';
import { ROOT } from './reference.ts';

/**
 * Starts a worker thread from its path in the project without an ending, such as
 * "server/engine/worker": the source when the program runs from source, else what was built of it.
 * Tests run from source and name the folder of built threads in BUILT_THREADS.
 */
export function startWorker(
  path: string,
  workerData: unknown,
  more: Pick<WorkerOptions, 'resourceLimits'> = {},
): Worker {
  const built = process.env.BUILT_THREADS ?? (import.meta.url.endsWith('.ts') ? null : 'dist');
  if (built) return new Worker(join(ROOT, built, `${path}.js`), { workerData, ...more });
  const url = pathToFileURL(join(ROOT, `${path}.ts`)).href;
  const boot = `import('tsx/esm/api').then(({ register }) => { register(); return import(${JSON.stringify(url)}); })`;
  return new Worker(boot, { workerData, eval: true, execArgv: [], ...more });
}
