import { statSync } from 'node:fs';
import { relatedReader, type ReadSubject } from '../../core/records/read-related.ts';
import type { Db } from '../db/open.ts';
import { stopIfCancelled, tellProgress } from '../jobs/thread.ts';
import { loadGazetteer } from '../reference.ts';
import { fileRows } from './read-file.ts';
import { relate } from './relate.ts';
import { RelatedLoad } from './related-load.ts';
import type { Refusal } from './refusals.ts';
import type { LoadWorkerData } from './load-data.ts';

/** Rows after which a load looks whether it is to stop, and tells how far it is. */
const ROWS_A_LOOK = 500;

/**
 * Reads and writes a file of what hangs on companies, inside the transaction that the caller opened. What is refused is handed to
 * `refuse` as it comes.
 */
export async function loadRelated(
  db: Db,
  revision: number,
  source: string,
  { path, reading, header, mapping, subject, covers }: LoadWorkerData,
  refuse: (refusal: Refusal) => void,
): Promise<{ read: number; refused: number } & Record<string, unknown>> {
  const reader = relatedReader(subject as ReadSubject, header, mapping, loadGazetteer());
  const load = new RelatedLoad(db, source);
  const total = statSync(path).size;
  let [row, read, refused, bytes] = [0, 0, 0, 0];
  for await (const cells of fileRows(path, reading, (soFar) => (bytes = soFar))) {
    row++;
    if (row === 1 && reading.hasHeader) continue;
    if (cells.every((cell) => cell.trim() === '')) continue;
    read++;
    const found = reader.read(cells);
    if ('related' in found) load.write(found.related);
    else {
      refused++;
      for (const problem of found.problems) refuse({ row, ...problem });
    }
    if (read % ROWS_A_LOOK === 0) {
      stopIfCancelled();
      tellProgress(Math.min(bytes, total), total, `${read.toLocaleString('en-GB')} rows read`);
    }
  }
  const cover = db.prepare('INSERT OR IGNORE INTO source_cover (source, subject, country) VALUES (?, ?, ?)');
  for (const country of covers) cover.run(source, subject, country);
  relate(db, revision, [subject]);
  return { read, refused, found: load.found, joinedDeals: load.joined };
}
