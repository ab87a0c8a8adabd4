import type { Db } from '../db/open.ts';
import { CallThread } from '../call-thread.ts';
import type { listCalls, listCounts } from './calls.ts';
import type { ListsWorkerData } from './worker.ts';

/** The calls of a thread of lists as they are asked: the thread adds its own database. */
export type AskedOf<C> = {
  readonly [N in keyof C]: C[N] extends (db: Db, ...args: infer A) => infer R ? (...args: A) => R : never;
};
type Changes = AskedOf<typeof listCalls>;
type Counts = AskedOf<typeof listCounts>;

const thread = (data: ListsWorkerData) => ({
  path: 'server/lists/worker',
  data,
  ended: 'The thread of lists has ended; nothing of this was kept.',
});

/** The lists as the server changes and counts them: two threads, so that no answer waits for a large change. */
export class ListsHost {
  private readonly changes: CallThread<Changes>;
  private readonly counts: CallThread<Counts>;

  constructor(dir: string) {
    this.changes = new CallThread(thread({ dir, part: 'changes' }));
    this.counts = new CallThread(thread({ dir, part: 'counts' }));
  }

  /** Does one of `listCalls`, all of it or nothing. @throws Problem */
  change<N extends keyof Changes>(name: N, ...args: Parameters<Changes[N]>): Promise<ReturnType<Changes[N]>> {
    return this.changes.call(name, ...args);
  }

  /** Asks one of `listCounts`. @throws Problem */
  count<N extends keyof Counts>(name: N, ...args: Parameters<Counts[N]>): Promise<ReturnType<Counts[N]>> {
    return this.counts.call(name, ...args);
  }

  async stop(): Promise<void> {
    await Promise.all([this.changes.stop(), this.counts.stop()]);
  }
}
