import { stringify } from 'csv-stringify/sync';
import { createWriteStream, mkdirSync, rmSync, statSync } from 'node:fs';
import { dirname } from 'node:path';
import { workerData } from 'node:worker_threads';
import type { Mapping } from '../../core/records/mapping.ts';
import { Problem } from '../../core/tape/problem.ts';
import { openUniverse } from '../db/open.ts';
import { runJob, stopIfCancelled, tellProgress } from '../jobs/thread.ts';
import { loadCodeTrees, loadGazetteer } from '../reference.ts';
import { nextRevision } from '../tables/revision.ts';
import { technologyKey } from '../tables/company.ts';
import { addSource, setRows } from '../tables/source.ts';
import { CompanyLoad } from './write-companies.ts';
import { remakeCompanies } from './remake.ts';
import { feed } from '../feed.ts';
import type { FileReading } from './read-file.ts';
import type { RowsBatch, RowsWorkerData } from './rows-worker.ts';
import { refusalsPath, type Refusal } from './refusals.ts';

/** The thread that loads a file of companies as a source: all in one transaction, so that it lands whole or not at all. */

export interface LoadWorkerData {
  dir: string;
  job: string;
  path: string;
  fileName: string;
  name: string;
  licence: string | null;
  asOf: number;
  reading: FileReading;
  header: string[];
  mapping: Mapping;
  allOrNothing: boolean;
}

const MOST_SHOWN = 100;

async function load(data: LoadWorkerData): Promise<Record<string, unknown>> {
  const db = openUniverse(data.dir);
  const trees = loadCodeTrees();
  const places = loadGazetteer();
  const total = statSync(data.path).size;
  const path = refusalsPath(data.dir, data.job);
  mkdirSync(dirname(path), { recursive: true });
  const refusals = createWriteStream(path);
  const shown: Refusal[] = [];
  let refusedCells = 0;
  db.exec('BEGIN IMMEDIATE');
  try {
    const revision = nextRevision(db);
    const source = addSource(
      db,
      {
        name: data.name,
        fileName: data.fileName,
        licence: data.licence,
        asOf: data.asOf,
        header: data.header,
        mapping: data.mapping,
      },
      technologyKey(data.name),
    );
    const companies = new CompanyLoad(db, revision);
    refusals.write(stringify([['row', 'column', 'value', 'rule']]));
    let landed = { read: 0, refused: 0 };
    const rows: RowsWorkerData = { path: data.path, reading: data.reading, source };
    for await (const batch of feed<RowsBatch>('server/load/rows-worker', rows)) {
      stopIfCancelled();
      companies.write(batch.companies);
      for (const refusal of batch.refusals) {
        refusedCells++;
        if (shown.length < MOST_SHOWN) shown.push(refusal);
        refusals.write(
          stringify([[refusal.row, refusal.column, refusal.value, refusal.rule]], { escape_formulas: true }),
        );
      }
      landed = { read: batch.read, refused: batch.refused };
      tellProgress(Math.min(batch.bytes, total), total, `${landed.read.toLocaleString('en-GB')} rows read`);
    }
    stopIfCancelled();
    setRows(db, source.id, landed.read, landed.refused);
    remakeCompanies(db, revision, companies.joined, trees, places, (done, all) => {
      stopIfCancelled();
      tellProgress(
        total,
        total,
        `lining up ${done.toLocaleString('en-GB')} of ${all.toLocaleString('en-GB')}`,
      );
    });
    await new Promise((resolve) => refusals.end(resolve));
    const summary = { ...landed, joined: companies.joined.size, refusedCells, refusals: shown };
    if (landed.read === landed.refused)
      throw new Problem(
        'all-refused',
        `None of the ${landed.read.toLocaleString('en-GB')} rows could be read; nothing was loaded. First: row ${shown[0]?.row}, ${shown[0]?.column}: expected ${shown[0]?.rule}.`,
      );
    if (data.allOrNothing && landed.refused > 0)
      throw new Problem(
        'some-refused',
        `${landed.refused} of ${landed.read} rows could not be read and all or nothing was asked for; nothing was loaded. First: row ${shown[0]!.row}, ${shown[0]!.column} “${shown[0]!.value}”: expected ${shown[0]!.rule}.`,
      );
    db.exec('COMMIT');
    if (refusedCells === 0) rmSync(path);
    tellProgress(total, total);
    return { source: source.key, ...summary };
  } catch (error) {
    if (db.inTransaction) db.exec('ROLLBACK');
    throw error;
  } finally {
    db.close();
    refusals.destroy();
  }
}

void runJob(() => load(workerData as LoadWorkerData));
