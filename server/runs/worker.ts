import { workerData } from 'node:worker_threads';
import { openUniverse } from '../db/open.ts';
import { Problem } from '../../core/tape/problem.ts';
import { openCounting } from '../engine/open-counting.ts';
import type { StoredUniverse } from '../engine/opening/stored-universe.ts';
import { serveCalls } from '../call-thread.ts';
import { loadReferenceData } from '../reference.ts';
import { revisionOf } from '../tables/revision.ts';
import { runCalls } from './calls.ts';
import { yieldToOthers } from './nice.ts';

/** The thread that counts runs, over the columns that the counting threads have opened: those who wait at a screen come before it. */

export interface RunsWorkerData {
  dir: string;
  stored: StoredUniverse;
}

yieldToOthers();
const { dir, stored } = workerData as RunsWorkerData;
const db = openUniverse(dir, { readonly: true });
db.exec('BEGIN');
if (revisionOf(db).revision !== stored.revision)
  throw new Problem('changed', 'The universe has changed since its columns were opened.');
const { engine, lists, useChanged } = openCounting(dir, db, stored, loadReferenceData());
serveCalls(runCalls({ engine, db, lists }), (work) => {
  useChanged();
  return work();
});
