import { join } from 'node:path';
import { parentPort, workerData } from 'node:worker_threads';
import { Problem } from '../../core/tape/problem.ts';
import { openLists } from '../db/open.ts';
import { listCalls, listCounts } from './calls.ts';

/** The thread that changes lists, or counts them, one call after the other. */

export interface ListsWorkerData {
  dir: string;
  part: 'changes' | 'counts';
}

export interface ListsCall {
  id: number;
  name: string;
  args: unknown[];
}

export type ListsReply = { id: number } & (
  | { result: unknown }
  | { problem: Pick<Problem, 'code' | 'message' | 'field' | 'value' | 'rule'> }
  /** `code` is what the system says of it, such as that the disk is full. */
  | { failure: string; code?: string }
);

const { dir, part } = workerData as ListsWorkerData;
const db = openLists(dir);
// A million members are written at once, by way of a table of this connection.
db.pragma('temp_store = MEMORY');
db.pragma('cache_size = -262144');
db.prepare('ATTACH ? AS u').run(join(dir, 'universe.sqlite'));
const calls: Readonly<Record<string, (...args: never[]) => unknown>> =
  part === 'changes' ? listCalls : listCounts;

parentPort!.on('message', ({ id, name, args }: ListsCall) => {
  let reply: ListsReply;
  try {
    const work = calls[name] as (...args: unknown[]) => unknown;
    // What only counts writes nothing but a table of its own connection.
    reply = { id, result: db.transaction(() => work(db, ...args))() };
  } catch (error) {
    if (error instanceof Problem) {
      const { code, message, field, value, rule } = error;
      reply = { id, problem: { code, message, field, value, rule } };
    } else {
      const { message, code } = error as Error & { code?: string };
      reply = { id, failure: message, code };
    }
  }
  parentPort!.postMessage(reply);
});
