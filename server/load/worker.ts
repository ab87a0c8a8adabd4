import { stringify } from 'csv-stringify/sync';
import { createWriteStream, mkdirSync, rmSync, statSync } from 'node:fs';
import { dirname } from 'node:path';
import { workerData } from 'node:worker_threads';
import type { Mapping } from '../../core/records/mapping.ts';
import { Problem } from '../../core/tape/problem.ts';
import { openUniverse } from '../db/open.ts';
import { runJob, stopIfCancelled, tellProgress } from '../jobs/thread.ts';
import { loadCodeTrees, loadGazetteer } from '../reference.ts';
import { technologyKey } from '../tables/company.ts';
import { addSource } from '../tables/source.ts';
import { Loader, remakeCompanies } from './loader.ts';
import { fileRows, type FileReading } from './read-file.ts';
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
  let bytes = 0;
  db.exec('BEGIN IMMEDIATE');
  try {
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
    const loader = new Loader(db, source, trees, places);
    refusals.write(stringify([['row', 'column', 'value', 'rule']]));
    let row = 0;
    for await (const cells of fileRows(data.path, data.reading, (read) => (bytes = read))) {
      row++;
      if (row === 1 && data.reading.hasHeader) continue;
      if (cells.every((cell) => cell.trim() === '')) continue;
      const problems = loader.add(cells, row);
      for (const problem of problems ?? []) {
        refusedCells++;
        if (shown.length < MOST_SHOWN) shown.push({ row, ...problem });
        refusals.write(
          stringify([[row, problem.column, problem.value, problem.rule]], { escape_formulas: true }),
        );
      }
      if (row % 1000 === 0) {
        stopIfCancelled();
        tellProgress(Math.min(bytes, total), total, `${row.toLocaleString('en-GB')} rows read`);
      }
    }
    stopIfCancelled();
    const { joined, ...landed } = loader.end();
    remakeCompanies(db, joined, trees, places, (done, all) => {
      stopIfCancelled();
      tellProgress(
        total,
        total,
        `lining up ${done.toLocaleString('en-GB')} of ${all.toLocaleString('en-GB')}`,
      );
    });
    await new Promise((resolve) => refusals.end(resolve));
    const summary = { ...landed, joined: joined.size, refusedCells, refusals: shown };
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
