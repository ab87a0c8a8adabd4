import type { Worker } from 'node:worker_threads';
import { Problem } from '../../core/tape/problem.ts';
import { startWorker } from '../threads.ts';
import type { Engine } from './engine.ts';
import type { EngineMethod, EngineReply, EngineWorkerData } from './worker.ts';

interface Waiting {
  method: EngineMethod;
  args: unknown[];
  signal?: AbortSignal;
  resolve(value: unknown): void;
  reject(error: Error): void;
}

/** The client went away before its turn came; there is nobody to answer. */
export class GivenUp extends Error {}

/** One engine thread with the calls that wait for it. Calls given up before their turn are never made. */
class EngineThread {
  readonly ready: Promise<void>;
  private readonly worker: Worker;
  private readonly queue: Waiting[] = [];
  private current: Waiting | null = null;
  private isReady = false;
  private retired = false;
  private calls = 0;

  constructor(data: EngineWorkerData) {
    this.worker = startWorker('server/engine/worker', data);
    this.ready = new Promise((resolve, reject) => {
      this.worker.on('message', (message: 'ready' | EngineReply) => {
        if (message === 'ready') {
          this.isReady = true;
          resolve();
        } else this.settle(message);
        this.next();
      });
      const died = (error: Error) => {
        reject(error);
        for (const call of [this.current, ...this.queue]) call?.reject(error);
        this.queue.length = 0;
        this.current = null;
      };
      this.worker.on('error', died);
      this.worker.on('exit', () => died(new Error('The counting thread has stopped.')));
    });
    this.ready.catch(() => {});
  }

  call(method: EngineMethod, args: unknown[], signal?: AbortSignal): Promise<unknown> {
    return new Promise((resolve, reject) => {
      this.queue.push({ method, args, signal, resolve, reject });
      this.next();
    });
  }

  /** Ends the thread once it has answered what waits for it. */
  retire(): void {
    this.retired = true;
    this.next();
  }

  stop(): Promise<number> {
    return this.worker.terminate();
  }

  private next(): void {
    if (this.current || !this.isReady) return;
    let call = this.queue.shift();
    while (call?.signal?.aborted) {
      call.reject(new GivenUp());
      call = this.queue.shift();
    }
    if (call) {
      this.current = call;
      this.worker.postMessage({ id: ++this.calls, method: call.method, args: call.args });
    } else if (this.retired) void this.worker.terminate();
  }

  private settle(reply: EngineReply): void {
    const call = this.current!;
    this.current = null;
    if ('result' in reply) call.resolve(reply.result);
    else if ('problem' in reply)
      call.reject(new Problem(reply.problem.code, reply.problem.message, reply.problem));
    else call.reject(new Error(reply.failure));
  }
}

/** The engine as the server sees it. After the data changed, a second thread reads it while the first goes on answering. */
export class EngineHost {
  private thread: EngineThread;
  private readonly dir: string;
  private asOf: number;
  /** Grows with every change of the universe, so that clients know when to ask again. */
  generation = 1;

  constructor(dir: string, asOf: number) {
    this.dir = dir;
    this.asOf = asOf;
    this.thread = new EngineThread({ dir, asOf });
  }

  ready(): Promise<void> {
    return this.thread.ready;
  }

  async reload(asOf = this.asOf): Promise<void> {
    this.asOf = asOf;
    const fresh = new EngineThread({ dir: this.dir, asOf });
    await fresh.ready;
    this.thread.retire();
    this.thread = fresh;
    this.generation++;
  }

  call<M extends EngineMethod>(
    method: M,
    args: Parameters<Engine[M]>,
    signal?: AbortSignal,
  ): Promise<ReturnType<Engine[M]>> {
    return this.thread.call(method, args, signal) as Promise<ReturnType<Engine[M]>>;
  }

  stop(): Promise<number> {
    return this.thread.stop();
  }
}
