import { workerData } from 'node:worker_threads';
import { rowReader } from '../../core/records/read-row.ts';
import type { Mapping } from '../../core/records/mapping.ts';
import { loadCodeTrees, loadGazetteer } from '../reference.ts';
import type { SourceRow } from '../tables/source.ts';
import { CompanyBatcher, type ReadyCompany } from './company-batcher.ts';
import { runFeed } from '../feed.ts';
import { fileRows, type FileReading } from './read-file.ts';
import type { Refusal } from './refusals.ts';

/** The thread that reads a file into companies, while the load writes those it has. */

export interface RowsWorkerData extends Record<string, unknown> {
  path: string;
  reading: FileReading;
  source: SourceRow;
}

export interface RowsBatch {
  companies: ReadyCompany[];
  /** Cells that could not be read, in the rows since the batch before. */
  refusals: Refusal[];
  /** Rows read so far, of them refused, and how many bytes of the file that was. */
  read: number;
  refused: number;
  bytes: number;
}

void runFeed<RowsBatch>(async (put) => {
  const { path, reading, source } = workerData as RowsWorkerData;
  const reader = rowReader(
    JSON.parse(source.header) as string[],
    JSON.parse(source.mapping) as Mapping,
    loadCodeTrees(),
    loadGazetteer(),
    source.as_of,
  );
  let refusals: Refusal[] = [];
  let [row, read, refused, bytes] = [0, 0, 0, 0];
  const batcher = new CompanyBatcher((companies) => {
    put({ companies, refusals, read, refused, bytes });
    refusals = [];
  });
  for await (const cells of fileRows(path, reading, (soFar) => (bytes = soFar))) {
    row++;
    if (row === 1 && reading.hasHeader) continue;
    if (cells.every((cell) => cell.trim() === '')) continue;
    read++;
    const found = reader.read(cells);
    if ('record' in found) batcher.add(source, row, cells, found.record);
    else {
      refused++;
      for (const problem of found.problems) refusals.push({ row, ...problem });
    }
  }
  batcher.flush();
});
