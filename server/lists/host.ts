import type { Worker } from 'node:worker_threads';
import type { Db } from '../db/open.ts';
import { Problem } from '../../core/tape/problem.ts';
import { startWorker } from '../threads.ts';
import type { listCalls, listCounts } from './calls.ts';
import type { ListsCall, ListsReply, ListsWorkerData } from './worker.ts';

type Calls = Readonly<Record<string, (db: Db, ...args: never[]) => unknown>>;
type Args<C extends Calls, N extends keyof C> = C[N] extends (db: Db, ...args: infer A) => unknown
  ? A
  : never;

interface Waiting {
  resolve(value: unknown): void;
  reject(error: Error): void;
}

/** One of the threads of lists; started at its first call, and again where it ended by itself. */
class ListsThread<C extends Calls> {
  private readonly data: ListsWorkerData;
  private worker: Worker | null = null;
  private readonly waiting = new Map<number, Waiting>();
  private calls = 0;

  constructor(data: ListsWorkerData) {
    this.data = data;
  }

  call<N extends keyof C & string>(name: N, ...args: Args<C, N>): Promise<ReturnType<C[N]>> {
    const worker = (this.worker ??= this.start());
    const id = ++this.calls;
    return new Promise((resolve, reject) => {
      this.waiting.set(id, { resolve: resolve, reject });
      worker.postMessage({ id, name, args } satisfies ListsCall);
    });
  }

  /** Ends the thread once what it was asked is done. */
  async stop(): Promise<void> {
    while (this.waiting.size) await new Promise((resolve) => setTimeout(resolve, 10));
    await this.worker?.terminate();
  }

  private start(): Worker {
    const worker = startWorker('server/lists/worker', this.data);
    worker.on('message', (reply: ListsReply) => {
      const call = this.waiting.get(reply.id)!;
      this.waiting.delete(reply.id);
      if ('result' in reply) call.resolve(reply.result);
      else if ('problem' in reply)
        call.reject(new Problem(reply.problem.code, reply.problem.message, reply.problem));
      else call.reject(Object.assign(new Error(reply.failure), { code: reply.code }));
    });
    const died = (error: Error) => {
      if (this.worker !== worker) return;
      this.worker = null;
      for (const { reject } of this.waiting.values()) reject(error);
      this.waiting.clear();
    };
    worker.on('error', died);
    worker.on('exit', () => died(new Error('The thread of lists has ended; nothing of this was kept.')));
    return worker;
  }
}

/** The lists as the server changes and counts them: two threads, so that no answer waits for a large change. */
export class ListsHost {
  private readonly changes: ListsThread<typeof listCalls>;
  private readonly counts: ListsThread<typeof listCounts>;

  constructor(dir: string) {
    this.changes = new ListsThread({ dir, part: 'changes' });
    this.counts = new ListsThread({ dir, part: 'counts' });
  }

  /** Does one of `listCalls`, all of it or nothing. @throws Problem */
  change<N extends keyof typeof listCalls>(
    name: N,
    ...args: Args<typeof listCalls, N>
  ): Promise<ReturnType<(typeof listCalls)[N]>> {
    return this.changes.call(name, ...args);
  }

  /** Asks one of `listCounts`. @throws Problem */
  count<N extends keyof typeof listCounts>(
    name: N,
    ...args: Args<typeof listCounts, N>
  ): Promise<ReturnType<(typeof listCounts)[N]>> {
    return this.counts.call(name, ...args);
  }

  async stop(): Promise<void> {
    await Promise.all([this.changes.stop(), this.counts.stop()]);
  }
}
