import { parentPort, workerData } from 'node:worker_threads';
import { Problem } from '../../core/tape/problem.ts';
import { openUniverse } from '../db/open.ts';
import { loadCodeSearches, loadCodeTrees, loadGazetteer } from '../reference.ts';
import { Engine } from './engine.ts';

/** The thread that counts: opens one universe and answers the calls of EngineHost in order. */

export interface EngineWorkerData {
  dir: string;
  asOf: number;
}

export type EngineCall = { id: number; method: EngineMethod; args: unknown[] };
export type EngineMethod =
  | 'tally'
  | 'typed'
  | 'complete'
  | 'sql'
  | 'rows'
  | 'idsOf'
  | 'position'
  | 'counts'
  | 'points'
  | 'towns'
  | 'cities'
  | 'jump'
  | 'describe'
  | 'wordsOf'
  | 'profile';
export type EngineReply =
  | { id: number; result: unknown }
  | { id: number; problem: { code: string; message: string; field?: string; value?: unknown; rule?: string } }
  | { id: number; failure: string };

const { dir, asOf } = workerData as EngineWorkerData;
const trees = loadCodeTrees();
const searches = loadCodeSearches(trees);
const engine = new Engine(
  openUniverse(dir, { readonly: true }),
  { trees, searches, places: loadGazetteer() },
  asOf,
);

parentPort!.on('message', ({ id, method, args }: EngineCall) => {
  let reply: EngineReply;
  try {
    const call = engine[method] as (...args: unknown[]) => unknown;
    reply = { id, result: call.apply(engine, args) };
  } catch (error) {
    if (error instanceof Problem) {
      const { code, message, field, value, rule } = error;
      reply = { id, problem: { code, message, field, value, rule } };
    } else reply = { id, failure: error instanceof Error ? (error.stack ?? error.message) : String(error) };
  }
  parentPort!.postMessage(reply);
});

parentPort!.postMessage('ready');
// The first typed word should not wait for this.
setImmediate(() => searches.of('nace-2.1'));
