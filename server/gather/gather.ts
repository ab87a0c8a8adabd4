import { existsSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { CallThread } from '../call-thread.ts';
import { openGather, type Db } from '../db/open.ts';
import type { Log } from '../log.ts';
import type { GatherCalls } from './calls.ts';
import { Fetcher } from './fetcher.ts';
import { Runner } from './runner.ts';
import { StandInFirms } from './stand-in/firms.ts';
import { StandInWeb, type Manners } from './stand-in/host.ts';

const SEED = 20_260_930;
/** Longest that reading a page may take, in ms, and memory for it, in MB. */
const [LONGEST, MEMORY] = [20_000, 1024];

/** How a test may have pages be read. */
export interface GatherTuning {
  pauses?: readonly number[];
  manners?: Partial<Manners>;
}

/** Companies from pages: gatherers, the thread that reads pages, the runs, and the stand-in web that ships. */
export class Gather {
  readonly db: Db;
  readonly thread: CallThread<GatherCalls>;
  readonly fetcher: Fetcher;
  readonly runner: Runner;
  readonly web: StandInWeb;
  private readonly dir: string;

  private constructor(dir: string, db: Db, web: StandInWeb, log: Log, tuning: GatherTuning) {
    this.dir = dir;
    this.db = db;
    this.web = web;
    this.thread = new CallThread<GatherCalls>({
      path: 'server/gather/worker',
      data: { dir },
      ended: 'The thread that reads pages has ended; try it once more.',
      longest: { ms: LONGEST, message: `The page could not be read within ${LONGEST / 1000} seconds.` },
      memory: MEMORY,
    });
    this.fetcher = new Fetcher({ db, standIn: () => web.port });
    this.runner = new Runner({ db, fetcher: this.fetcher, thread: this.thread, log, ...tuning });
  }

  static async open(
    { dir, universe, log }: { dir: string; universe: Db; log: Log },
    tuning: GatherTuning = {},
  ): Promise<Gather> {
    const db = openGather(dir);
    const web = await StandInWeb.start(new StandInFirms(universe, SEED), tuning.manners);
    const opened = new Gather(dir, db, web, log, tuning);
    opened.runner.start();
    return opened;
  }

  /** Where the records of a run lie that go to webhooks. */
  handedFile(id: string): string {
    const folder = join(this.dir, 'gathered');
    mkdirSync(folder, { recursive: true });
    return join(folder, `${id}.jsonl`);
  }

  async stop(): Promise<void> {
    await this.runner.stop();
    await this.thread.stop();
    await this.web.stop();
    this.db.close();
  }
}

/** The file of a run's records that go to webhooks, by the name of their delivery; null for that of an export. */
export function gatheredFile(dir: string, id: string): string | null {
  const path = join(dir, 'gathered', `${id}.jsonl`);
  return id.startsWith('gathered-') && existsSync(path) ? path : null;
}
