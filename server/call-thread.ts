import { parentPort, type Worker } from 'node:worker_threads';
import { Problem } from '../core/tape/problem.ts';
import { startWorker } from './threads.ts';

/** A thread that is asked one call after the other, by name. */

type Call = (...args: never[]) => unknown;
type Calls<C> = { readonly [N in keyof C]: Call };

interface Asked {
  id: number;
  name: string;
  args: unknown[];
}

type Reply = { id: number } & (
  | { result: unknown }
  | { problem: Pick<Problem, 'code' | 'message' | 'field' | 'value' | 'rule'> }
  /** `code` is what the system says of it, such as that the disk is full. */
  | { failure: string; code?: string }
);

interface Waiting {
  resolve(value: unknown): void;
  reject(error: Error): void;
  timer: NodeJS.Timeout | null;
}

export interface CallThreadWish {
  /** Path of the worker in the project, without an ending. */
  path: string;
  data: unknown;
  /** What those who wait are told where it ends by itself. */
  ended: string;
  /** Longest that a call may take, in ms: then the thread is ended, and begins anew at the next call. */
  longest?: { ms: number; message: string };
  /** Memory that it may use, in MB. */
  memory?: number;
}

/** The thread has ended by itself; `cause` is the error that ended it, where one did. */
export class ThreadEnded extends Error {}

/** Asks a thread; it is started at its first call, and again where it ended. */
export class CallThread<C extends Calls<C>> {
  private readonly wish: CallThreadWish;
  private worker: Worker | null = null;
  private readonly waiting = new Map<number, Waiting>();
  private calls = 0;

  constructor(wish: CallThreadWish) {
    this.wish = wish;
  }

  /** @throws Problem, or Error where the thread has ended */
  call<N extends keyof C & string>(name: N, ...args: Parameters<C[N]>): Promise<Awaited<ReturnType<C[N]>>> {
    const worker = (this.worker ??= this.start());
    const id = ++this.calls;
    const { longest } = this.wish;
    return new Promise<Awaited<ReturnType<C[N]>>>((resolve, reject) => {
      const timer = longest
        ? setTimeout(() => {
            this.waiting.delete(id);
            reject(new Problem('too-slow', longest.message));
            void worker.terminate();
          }, longest.ms)
        : null;
      this.waiting.set(id, { resolve, reject, timer });
      worker.postMessage({ id, name, args } satisfies Asked);
    });
  }

  /** Ends the thread once what it was asked is done. */
  async stop(): Promise<void> {
    while (this.waiting.size) await new Promise((resolve) => setTimeout(resolve, 10));
    await this.worker?.terminate();
  }

  private start(): Worker {
    const { path, data, memory } = this.wish;
    const worker = startWorker(
      path,
      data,
      memory === undefined ? {} : { resourceLimits: { maxOldGenerationSizeMb: memory } },
    );
    worker.on('message', (reply: Reply) => {
      const call = this.waiting.get(reply.id);
      this.waiting.delete(reply.id);
      if (!call) return;
      if (call.timer) clearTimeout(call.timer);
      if ('result' in reply) call.resolve(reply.result);
      else if ('problem' in reply)
        call.reject(new Problem(reply.problem.code, reply.problem.message, reply.problem));
      else call.reject(Object.assign(new Error(reply.failure), { code: reply.code }));
    });
    const died = (error: ThreadEnded) => {
      if (this.worker !== worker) return;
      this.worker = null;
      for (const { reject, timer } of this.waiting.values()) {
        if (timer) clearTimeout(timer);
        reject(error);
      }
      this.waiting.clear();
    };
    worker.on('error', (error) => died(new ThreadEnded(error.message, { cause: error })));
    worker.on('exit', () => died(new ThreadEnded(this.wish.ended)));
    return worker;
  }
}

/** Within a thread: answers calls by name. @param around does what has to be done about each call */
export function serveCalls(
  calls: Readonly<Record<string, (...args: never[]) => unknown>>,
  around: (work: () => unknown) => unknown = (work) => work(),
): void {
  const failed = (id: number, error: unknown): Reply => {
    if (error instanceof Problem) {
      const { code, message, field, value, rule } = error;
      return { id, problem: { code, message, field, value, rule } };
    }
    const { message, code } = error as Error & { code?: string };
    return { id, failure: message, code };
  };
  const answer = (reply: Reply) => parentPort!.postMessage(reply);
  parentPort!.on('message', ({ id, name, args }: Asked) => {
    try {
      const work = calls[name] as (...args: unknown[]) => unknown;
      const result = around(() => work(...args));
      if (result instanceof Promise)
        result.then(
          (later: unknown) => answer({ id, result: later }),
          (error: unknown) => answer(failed(id, error)),
        );
      else answer({ id, result });
    } catch (error) {
      answer(failed(id, error));
    }
  });
}
