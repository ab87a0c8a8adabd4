import { CallThread, ThreadEnded } from '../call-thread.ts';
import type { EngineHost } from '../engine/host.ts';
import type { StoredUniverse } from '../engine/opening/stored-universe.ts';
import type { RunCalls } from './calls.ts';
import type { RunsWorkerData } from './worker.ts';

/** Idle so long, the thread ends: it holds a state of the universe open. */
const IDLE_MS = 30_000;
/** Tries where the universe is changed just as its thread begins. */
const TRIES = 20;
const PAUSE_MS = 250;

/** The thread that counts runs, over the columns that are counted now; begun when it is asked, and anew where the universe changed. */
export class Counting {
  private readonly dir: string;
  private readonly engine: EngineHost;
  private of: StoredUniverse | null = null;
  private thread: CallThread<RunCalls> | null = null;
  private idle: NodeJS.Timeout | null = null;
  private asked = 0;

  constructor(dir: string, engine: EngineHost) {
    this.dir = dir;
    this.engine = engine;
  }

  /** @throws Problem of what is asked, or Error where the thread ends again and again */
  async call<N extends keyof RunCalls>(
    name: N,
    ...args: Parameters<RunCalls[N]>
  ): Promise<Awaited<ReturnType<RunCalls[N]>>> {
    if (this.idle) clearTimeout(this.idle);
    this.asked++;
    try {
      for (let tried = 1; ; tried++) {
        try {
          return await this.current().call(name, ...args);
        } catch (error) {
          // The universe may have changed since its columns were opened; they are being opened anew.
          if (tried === TRIES || !isEnd(error)) throw error;
          this.of = null;
          await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
        }
      }
    } finally {
      if (--this.asked === 0) {
        this.idle = setTimeout(() => void this.stop(), IDLE_MS);
        this.idle.unref();
      }
    }
  }

  private current(): CallThread<RunCalls> {
    const { stored } = this.engine;
    if (!stored) throw new NotOpenYet('The columns are being opened.');
    if (!this.thread || this.of !== stored) {
      void this.thread?.stop();
      this.of = stored;
      this.thread = new CallThread<RunCalls>({
        path: 'server/runs/worker',
        data: { dir: this.dir, stored } satisfies RunsWorkerData,
        ended: 'The thread that counts runs has ended.',
      });
    }
    return this.thread;
  }

  async stop(): Promise<void> {
    if (this.idle) clearTimeout(this.idle);
    const { thread } = this;
    this.thread = null;
    this.of = null;
    await thread?.stop();
  }
}

class NotOpenYet extends Error {}

/** Whether to try once more: the columns are being opened, or the thread ended since the universe is another, or since it was told to. */
function isEnd(error: unknown): boolean {
  if (error instanceof NotOpenYet) return true;
  return (
    error instanceof ThreadEnded && (!error.cause || (error.cause as { code?: string }).code === 'changed')
  );
}
