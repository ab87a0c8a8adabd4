import { parentPort, workerData } from 'node:worker_threads';
import { openUniverse } from '../../db/open.ts';
import { loadCodeTrees } from '../../reference.ts';
import { revisionOf } from '../../tables/revision.ts';
import { buildColumns } from './build-columns.ts';
import type { ColumnsWorkerData, ColumnsWorkerReply } from './open-universe.ts';

/** The second thread of a build: makes a part of the columns. */
const { dir, plan, fields } = workerData as ColumnsWorkerData;
const db = openUniverse(dir, { readonly: true });
db.exec('BEGIN');
const reply: ColumnsWorkerReply = {
  revision: revisionOf(db),
  columns: buildColumns(db, plan, loadCodeTrees(), fields),
};
db.close();
parentPort!.postMessage(reply);
