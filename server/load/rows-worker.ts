import { workerData } from 'node:worker_threads';
import { rowReader } from '../../core/records/read-row.ts';
import type { Mapping } from '../../core/records/mapping.ts';
import { openUniverse } from '../db/open.ts';
import { loadCodeTrees, loadGazetteer } from '../reference.ts';
import { companyUnder } from '../tables/company-joins.ts';
import type { SourceRow } from '../tables/source.ts';
import { CompanyBatcher, type ReadyCompany } from './company-batcher.ts';
import { runFeed } from '../feed.ts';
import { dataRows, type FileReading } from './read-file.ts';
import type { RefusedRow } from './refusals.ts';

/** The thread that reads a file into companies, while the load writes those it has. */

export interface RowsWorkerData extends Record<string, unknown> {
  dir: string;
  path: string;
  reading: FileReading;
  source: SourceRow;
}

export interface RowsBatch {
  companies: ReadyCompany[];
  /** Rows refused since the batch before. */
  refusals: RefusedRow[];
  /** Rows read so far, of them refused; cells left empty since they were not understood; rows that are no data; and how many bytes of the file that was. */
  read: number;
  refused: number;
  left: number;
  notData: number;
  bytes: number;
}

void runFeed<RowsBatch>(async (put) => {
  const { dir, path, reading, source } = workerData as RowsWorkerData;
  const header = JSON.parse(source.header) as string[];
  const reader = rowReader(
    header,
    JSON.parse(source.mapping) as Mapping,
    loadCodeTrees(),
    loadGazetteer(),
    source.as_of,
  );
  // A key that nobody has says nothing, as in a file that another workspace wrote.
  const universe = openUniverse(dir, { readonly: true });
  const idUnder = companyUnder(universe);
  let refusals: RefusedRow[] = [];
  let [read, refused, left, noData, bytes] = [0, 0, 0, 0, 0];
  const batcher = new CompanyBatcher((companies) => {
    put({ companies, refusals, read, refused, left, notData: noData, bytes });
    refusals = [];
  });
  for await (const block of dataRows(path, reading, header, (soFar) => (bytes = soFar)))
    for (const { row, cells, notData } of block) {
      if (notData) {
        noData++;
        continue;
      }
      read++;
      const found = reader.read(cells);
      if ('record' in found) {
        left += found.left.length;
        const key = found.key !== null && idUnder(found.key) !== undefined ? found.key : undefined;
        batcher.add(source, row, cells, found.record, key);
      } else {
        refused++;
        refusals.push({ row, cells, problems: found.problems });
      }
    }
  batcher.flush();
  universe.close();
});
