import { parentPort, workerData } from 'node:worker_threads';
import { openUniverse } from '../../db/open.ts';
import { revisionOf, type Revision } from '../../tables/revision.ts';
import { labelKeys } from './label-keys.ts';

/** Makes the sort keys of names beside the counting threads, so that the first sort by name need not wait for them. */

export interface NamesWorkerData {
  dir: string;
  /** The universe that the counting threads show. */
  shown: Revision;
}

const { dir, shown } = workerData as NamesWorkerData;
const db = openUniverse(dir, { readonly: true });
db.exec('BEGIN');
const now = revisionOf(db);
if (now.stamp === shown.stamp && now.revision === shown.revision) {
  const keys = labelKeys(db, 'companies', 'name');
  parentPort!.postMessage(keys, [keys.buffer as ArrayBuffer]);
}
db.close();
