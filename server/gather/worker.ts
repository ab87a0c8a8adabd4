import { workerData } from 'node:worker_threads';
import { serveCalls } from '../call-thread.ts';
import { openGather, openUniverse } from '../db/open.ts';
import { gatherCalls } from './calls.ts';

/** The thread that reads pages: whatever they hold, nobody waits for them. */

const { dir } = workerData as { dir: string };
serveCalls(gatherCalls(openGather(dir, { readonly: true }), openUniverse(dir, { readonly: true })));
