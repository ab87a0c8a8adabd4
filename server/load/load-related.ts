import { statSync } from 'node:fs';
import { relatedReader, type ReadSubject } from '../../core/records/read-related.ts';
import type { Db } from '../db/open.ts';
import { stopIfCancelled, tellProgress } from '../jobs/thread.ts';
import { isFreeMail } from '../free-mail.ts';
import { loadGazetteer } from '../reference.ts';
import { dataRows } from './read-file.ts';
import { RelatedLoad } from './related-load.ts';
import type { RefusedRow } from './refusals.ts';
import type { Landed, LoadWorkerData } from './load-data.ts';

/** Rows after which a load looks whether it is to stop, and tells how far it is. */
const ROWS_A_LOOK = 500;

/**
 * Reads and writes a file of what hangs on companies, inside the transaction that the caller opened, who relates the subject
 * afterwards. What is refused is handed to `refuse` as it comes.
 */
export async function loadRelated(
  db: Db,
  source: string,
  { path, reading, header, mapping, subject, covers }: LoadWorkerData,
  refuse: (row: RefusedRow) => void,
): Promise<Landed & Record<string, unknown>> {
  const reader = relatedReader(subject as ReadSubject, header, mapping, loadGazetteer(), null, isFreeMail);
  const load = new RelatedLoad(db, source);
  const total = statSync(path).size;
  let [read, refused, left, noData, bytes] = [0, 0, 0, 0, 0];
  for await (const block of dataRows(path, reading, header, (soFar) => (bytes = soFar)))
    for (const { row, cells, notData } of block) {
      if (notData) {
        noData++;
        continue;
      }
      read++;
      const found = reader.read(cells);
      if ('related' in found) {
        left += found.left.length;
        load.write(found.related);
      } else {
        refused++;
        refuse({ row, cells, problems: found.problems });
      }
      if (read % ROWS_A_LOOK === 0) {
        stopIfCancelled();
        tellProgress(Math.min(bytes, total), total, `${read.toLocaleString('en-GB')} rows read`);
      }
    }
  const cover = db.prepare('INSERT OR IGNORE INTO source_cover (source, subject, country) VALUES (?, ?, ?)');
  for (const country of covers) cover.run(source, subject, country);
  return { read, refused, left, notData: noData, found: load.found, joinedDeals: load.joined };
}
