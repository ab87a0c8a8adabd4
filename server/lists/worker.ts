import { join } from 'node:path';
import { workerData } from 'node:worker_threads';
import { serveCalls } from '../call-thread.ts';
import { openLists, type Db } from '../db/open.ts';
import { listCalls, listCounts } from './calls.ts';

/** The thread that changes lists, or counts them, one call after the other. */

export interface ListsWorkerData {
  dir: string;
  part: 'changes' | 'counts';
}

const { dir, part } = workerData as ListsWorkerData;
const db = openLists(dir);
// A million members are written at once, by way of a table of this connection.
db.pragma('temp_store = MEMORY');
db.pragma('cache_size = -262144');
db.prepare('ATTACH ? AS u').run(join(dir, 'universe.sqlite'));

type Own = Readonly<Record<string, (db: Db, ...args: unknown[]) => unknown>>;
const own = (part === 'changes' ? listCalls : listCounts) as unknown as Own;
const calls = Object.fromEntries(
  Object.entries(own).map(([name, work]) => [name, (...args: unknown[]) => work(db, ...args)]),
);
// What only counts writes nothing but a table of its own connection.
serveCalls(calls, (work) => db.transaction(work)());
