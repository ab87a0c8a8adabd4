import type { RememberedReading } from '../../contract/readings.ts';
import type { MadeColumn } from '../../core/records/made-columns.ts';
import type { Mapping } from '../../core/records/mapping.ts';
import type { Db } from '../db/open.ts';

/** Readings of files that are kept for the next file with the same headings. */
const MOST_KEPT = 200;
const MOST_OFFERED = 5;

/** Keeps how a file was read under the name of its source; an older one of that name and those headings gives way. */
export function rememberReading(
  db: Db,
  {
    name,
    subject,
    header,
    made,
    mapping,
  }: {
    name: string;
    subject: string;
    /** The file's own headings, without those of the columns that were made. */
    header: readonly string[];
    made: readonly MadeColumn[];
    mapping: Mapping;
  },
): void {
  db.prepare(
    'INSERT OR REPLACE INTO remembered_reading (name, subject, header, made, mapping, used_at) VALUES (?, ?, ?, ?, ?, ?)',
  ).run(
    name,
    subject,
    JSON.stringify(header),
    JSON.stringify(made),
    JSON.stringify(mapping),
    new Date().toISOString(),
  );
  db.prepare(
    `DELETE FROM remembered_reading WHERE (header, name) NOT IN
       (SELECT header, name FROM remembered_reading ORDER BY used_at DESC LIMIT ?)`,
  ).run(MOST_KEPT);
}

/** How files with just these headings were read, the latest first. */
export function rememberedReadings(db: Db, header: readonly string[]): RememberedReading[] {
  return db
    .prepare<
      [string, number],
      { name: string; subject: string; made: string; mapping: string; usedAt: string }
    >(
      'SELECT name, subject, made, mapping, used_at AS usedAt FROM remembered_reading WHERE header = ? ORDER BY used_at DESC LIMIT ?',
    )
    .all(JSON.stringify(header), MOST_OFFERED)
    .map((row) => ({
      ...row,
      made: JSON.parse(row.made) as MadeColumn[],
      mapping: JSON.parse(row.mapping) as Mapping,
    }));
}
