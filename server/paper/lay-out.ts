import { startWorker } from '../threads.ts';
import type { PaperWorkerData } from './worker.ts';

/** Lays out a paper in a thread of its own. @throws Error where it cannot be laid out */
export function laidOut(paper: PaperWorkerData): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const worker = startWorker('server/paper/worker', paper);
    worker.once('message', (bytes: Uint8Array) => {
      resolve(Buffer.from(bytes));
      void worker.terminate();
    });
    worker.once('error', reject);
    worker.once('exit', () => reject(new Error('The paper could not be laid out.')));
  });
}
