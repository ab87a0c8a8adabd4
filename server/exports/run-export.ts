import type { JobMessage } from '../jobs/jobs.ts';
import { startWorker } from '../threads.ts';
import type { ExportWorkerData } from './worker.ts';

/** Writes an export's file in a thread, unlisted and not as a job. @throws Error with what went wrong */
export function runExport(data: ExportWorkerData): Promise<void> {
  return new Promise((resolve, reject) => {
    const cancel = new Int32Array(new SharedArrayBuffer(4));
    const worker = startWorker('server/exports/worker', { ...data, cancel });
    let problem = 'The thread ended without a result.';
    let done = false;
    worker.on('message', (message: JobMessage) => {
      if ('result' in message) done = true;
      if ('problem' in message) problem = message.problem;
    });
    worker.on('error', (error) => (problem = error.message));
    worker.on('exit', () => (done ? resolve() : reject(new Error(problem))));
  });
}
