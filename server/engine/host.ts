import type { Worker } from 'node:worker_threads';
import { Problem } from '../../core/tape/problem.ts';
import { NO_LOG, type Log } from '../log.ts';
import { startWorker } from '../threads.ts';
import type { NamesWorkerData } from './rows/names-worker.ts';
import type { StoredUniverse } from './opening/stored-universe.ts';
import { calls, type Call } from './calls.ts';
import type { EngineReady, EngineReply, EngineWorkerData } from './worker.ts';

type Described = ReturnType<(typeof calls)['describe']['handler']>;
type Named = Pick<Call, 'method' | 'thread'>;

interface Waiting {
  method: string;
  args: unknown[];
  signal?: AbortSignal;
  resolve(value: unknown): void;
  reject(error: Error): void;
}

/** A counting thread has ended; another is being started in its place. */
export class EngineGone extends Error {}

/** The client went away before its turn came; there is nobody to answer. */
export class GivenUp extends Error {}

/** One engine thread with the calls that wait for it. Calls given up before their turn are never made. */
class EngineThread {
  /** The columns the thread counts over, once it can answer. */
  readonly ready: Promise<StoredUniverse>;
  private readonly worker: Worker;
  private readonly queue: Waiting[] = [];
  private current: Waiting | null = null;
  isReady = false;
  private retired = false;
  private ended: Error | null = null;
  private calls = 0;

  /** `onDeath` is called where the thread ends without having been told to. */
  constructor(data: EngineWorkerData, log: Log, onDeath: () => void) {
    this.worker = startWorker('server/engine/worker', data);
    this.ready = new Promise((resolve, reject) => {
      this.worker.on('message', (message: EngineReady | EngineReply) => {
        if ('ready' in message) {
          this.isReady = true;
          for (const warning of message.warnings) log.warn(warning);
          resolve(message.ready);
        } else this.settle(message);
        this.next();
      });
      const died = (error: Error) => {
        if (this.ended) return;
        this.ended = new EngineGone(`The counting thread has stopped: ${error.message}`);
        // What kept it from starting is for those who start it.
        reject(this.isReady ? this.ended : error);
        for (const call of [this.current, ...this.queue]) call?.reject(this.ended);
        this.queue.length = 0;
        this.current = null;
        if (this.isReady && !this.retired) {
          log.error({ err: error }, 'A counting thread ended by itself; another is started');
          onDeath();
        }
      };
      this.worker.on('error', died);
      this.worker.on('exit', () => died(new Error('it ended')));
    });
    this.ready.catch(() => {});
  }

  call({ method }: Named, args: unknown[], signal?: AbortSignal): Promise<unknown> {
    if (this.ended) return Promise.reject(this.ended);
    return new Promise((resolve, reject) => {
      this.queue.push({ method, args, signal, resolve, reject });
      this.next();
    });
  }

  get answers(): boolean {
    return this.isReady && this.ended === null;
  }

  /** Ends the thread once it has answered what waits for it. */
  retire(): void {
    this.retired = true;
    this.next();
  }

  stop(): Promise<number> {
    this.retired = true;
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

/** Companies from which names are sorted ahead, and up to which their texts fit beside all else. */
const NAMES_AHEAD = { least: 20_000, most: 2_000_000 };

/**
 * Two threads over the same columns, so that the figures of a tape need not wait for its rows. The
 * second starts once the first has opened the columns; until then the first answers all.
 */
class EnginePair {
  readonly ready: Promise<void>;
  private readonly first: EngineThread;
  /** What is counted, once it is opened. */
  stored: StoredUniverse | null = null;
  private second: EngineThread | null = null;
  private names: Worker | null = null;
  private ended = false;

  constructor(dir: string, log: Log, onDeath: () => void) {
    this.first = new EngineThread({ dir, stored: null }, log, onDeath);
    this.ready = this.first.ready.then((stored) => {
      this.stored = stored;
      if (this.ended) return;
      const second = new EngineThread({ dir, stored }, log, onDeath);
      this.second = second;
      if (stored.size > NAMES_AHEAD.least && stored.size <= NAMES_AHEAD.most)
        void second.ready.then(() => this.sortNames(dir, stored, second)).catch(() => {});
    });
    this.ready.catch(() => {});
  }

  private sortNames(dir: string, { stamp, revision }: StoredUniverse, second: EngineThread): void {
    if (this.ended) return;
    this.names = startWorker('server/engine/rows/names-worker', {
      dir,
      shown: { stamp, revision },
    } satisfies NamesWorkerData);
    this.names.on('message', (keys) => void second.call(calls.takeLabelKeys, ['name', keys]).catch(() => {}));
    // Without them, the first sort by name makes its own.
    this.names.on('error', () => {});
  }

  call(call: Named, args: unknown[], signal?: AbortSignal): Promise<unknown> {
    const thread = this.second?.isReady && call.thread === 'second' ? this.second : this.first;
    return thread.call(call, args, signal);
  }

  get threads(): { first: boolean; second: boolean } {
    return { first: this.first.answers, second: this.second?.answers ?? false };
  }

  retire(): void {
    this.ended = true;
    void this.names?.terminate();
    this.first.retire();
    this.second?.retire();
  }

  async stop(): Promise<void> {
    this.ended = true;
    await Promise.all([this.first.stop(), this.second?.stop(), this.names?.terminate()]);
  }
}

/** The engine as the server sees it. After the data changed, a second pair of threads reads it while the first goes on answering. */
export class EngineHost {
  private pair: EnginePair;
  private readonly dir: string;
  private readonly log: Log;
  /** What is counted, known without asking: a long count must not hold up the word that all is well. */
  described: Described = { universe: 0, schemes: [], technologies: 0, related: {} };
  /** Threads that ended by themselves since the start. */
  deaths = 0;
  /** The last reload begun, and the one that waits for it: it will read all that has changed until it begins. */
  private current: Promise<void> = Promise.resolve();
  private waiting: Promise<void> | null = null;
  private stopped = false;
  /** Called once other columns are in use. */
  onReload: () => void = () => {};
  /** Grows with every change of what is counted, so that clients know when to ask again. */
  generation = 1;

  constructor(dir: string, log: Log = NO_LOG) {
    this.dir = dir;
    this.log = log;
    this.pair = this.newPair();
  }

  /** The columns that are counted now, shared between threads; null while they are opened. */
  get stored(): StoredUniverse | null {
    return this.pair.stored;
  }

  /** A pair that is replaced where one of its threads ends by itself, such as by want of memory. */
  private newPair(): EnginePair {
    const pair: EnginePair = new EnginePair(this.dir, this.log, () => {
      this.deaths++;
      if (this.pair === pair) void this.recover(pair, 0);
    });
    return pair;
  }

  /** Starts a pair in place of one that ended, again and again with growing pauses where that fails. */
  private async recover(ended: EnginePair, tries: number): Promise<void> {
    if (this.stopped || this.pair !== ended) return;
    try {
      await this.reload();
    } catch (error) {
      this.log.error({ err: error, tries }, 'The counting threads could not be started');
      setTimeout(() => void this.recover(ended, tries + 1), Math.min(30_000, 500 * 2 ** tries)).unref();
    }
  }

  async ready(): Promise<void> {
    await this.pair.ready;
    this.described = await this.describe(this.pair);
  }

  private describe(pair: EnginePair): Promise<Described> {
    return pair.call(calls.describe, []) as Promise<Described>;
  }

  /** Whether each thread can answer. The second starts after the first. */
  get threads(): { first: boolean; second: boolean } {
    return this.pair.threads;
  }

  /** Reads the universe anew. Reloads come one after the other, so that the columns last read are those in use. */
  reload(): Promise<void> {
    this.waiting ??= this.current
      .catch(() => {})
      .then(() => {
        this.waiting = null;
        this.current = this.swap();
        return this.current;
      });
    return this.waiting;
  }

  private async swap(): Promise<void> {
    const fresh = this.newPair();
    try {
      await fresh.ready;
      this.described = await this.describe(fresh);
    } catch (error) {
      void fresh.stop();
      throw error;
    }
    this.pair.retire();
    this.pair = fresh;
    this.generation++;
    this.onReload();
  }

  /** Settings that counts rest on have changed; the threads read them by themselves. */
  settingsChanged(): void {
    this.generation++;
  }

  /** Asks a counting thread one of `calls`. @throws GivenUp where the signal was aborted before its turn came, EngineGone where the thread has ended */
  call<A extends unknown[], R>(call: Call<A, R>, args: A, signal?: AbortSignal): Promise<R> {
    return this.pair.call(call, args, signal) as Promise<R>;
  }

  stop(): Promise<void> {
    this.stopped = true;
    return this.pair.stop();
  }
}
