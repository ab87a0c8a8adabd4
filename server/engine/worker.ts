import { parentPort, workerData } from 'node:worker_threads';
import { Problem } from '../../core/tape/problem.ts';
import { openUniverse } from '../db/open.ts';
import { loadReferenceData } from '../reference.ts';
import { calls, type Answering, type Call } from './calls.ts';
import { ListsEngine } from './lists-engine.ts';
import { Steering } from './steering.ts';
import { MapEngine } from './market/map-engine.ts';
import { Market } from './market/market.ts';
import { openColumns } from './opening/open-universe.ts';
import type { StoredUniverse } from './opening/stored-universe.ts';
import { openCounting } from './open-counting.ts';

/**
 * A thread that counts. The first opens the columns and hands them to the others, which share them.
 * Each holds one read transaction for its whole life, so that rows and columns show one state of
 * the universe whatever is loaded meanwhile.
 */

export interface EngineWorkerData {
  dir: string;
  /** Columns that another thread has opened; null to open them here. */
  stored: StoredUniverse | null;
}

/** Said once, when the thread can answer. */
export interface EngineReady {
  ready: StoredUniverse;
  /** What went wrong on the way without keeping it from answering. */
  warnings: string[];
}

export type EngineCall = { id: number; method: string; args: unknown[] };
export type EngineReply =
  | { id: number; result: unknown }
  | { id: number; problem: { code: string; message: string; field?: string; value?: unknown; rule?: string } }
  | { id: number; failure: string };

const { dir, stored } = workerData as EngineWorkerData;
const reference = loadReferenceData();
const db = openUniverse(dir, { readonly: true });
db.exec('BEGIN');
const opened = stored ? { universe: stored, unsaved: null } : await openColumns(dir, db, reference.trees);
const { universe, unsaved } = opened;
const { engine, useChanged } = openCounting(dir, db, universe, reference);
const market = new Market(engine);
const on: Answering = {
  engine,
  market,
  map: new MapEngine(engine),
  lists: new ListsEngine(engine),
  steering: new Steering(engine),
};
parentPort!.on('message', ({ id, method, args }: EngineCall) => {
  let reply: EngineReply;
  try {
    useChanged();
    const { handler } = (calls as Readonly<Record<string, Call<unknown[]>>>)[method]!;
    reply = { id, result: handler(on, ...args) };
  } catch (error) {
    if (error instanceof Problem) {
      const { code, message, field, value, rule } = error;
      reply = { id, problem: { code, message, field, value, rule } };
    } else reply = { id, failure: error instanceof Error ? (error.stack ?? error.message) : String(error) };
  }
  parentPort!.postMessage(reply);
});

const warnings = unsaved
  ? [`The columns could not be saved, so that the next start builds them again: ${unsaved}`]
  : [];
parentPort!.postMessage({ ready: universe, warnings } satisfies EngineReady);
/** Does one thing after another while nothing is asked. */
function whileIdle(steps: (() => unknown)[]): void {
  const [step, ...rest] = steps;
  if (!step) return;
  setTimeout(() => {
    step();
    whileIdle(rest);
  }, PAUSE_MS);
}
const PAUSE_MS = 20;

// The first typed word and the first Breakdown should not wait for this; see `calls.ts`.
if (stored)
  whileIdle([
    () => reference.searches.of('nace-2.1'),
    () => reference.places.warm(),
    () => whileIdle(market.warmUp()),
  ]);
