import type { RememberedReading } from '../../contract/readings.ts';
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
    mapping,
  }: { name: string; subject: string; header: readonly string[]; mapping: Mapping },
): void {
  db.prepare(
    'INSERT OR REPLACE INTO remembered_reading (name, subject, header, mapping, used_at) VALUES (?, ?, ?, ?, ?)',
  ).run(name, subject, JSON.stringify(header), JSON.stringify(mapping), new Date().toISOString());
  db.prepare(
    `DELETE FROM remembered_reading WHERE (header, name) NOT IN
       (SELECT header, name FROM remembered_reading ORDER BY used_at DESC LIMIT ?)`,
  ).run(MOST_KEPT);
}

/** How files with just these headings were read, the latest first. */
export function rememberedReadings(db: Db, header: readonly string[]): RememberedReading[] {
  return db
    .prepare<[string, number], { name: string; subject: string; mapping: string; usedAt: string }>(
      'SELECT name, subject, mapping, used_at AS usedAt FROM remembered_reading WHERE header = ? ORDER BY used_at DESC LIMIT ?',
    )
    .all(JSON.stringify(header), MOST_OFFERED)
    .map((row) => ({ ...row, mapping: JSON.parse(row.mapping) as Mapping }));
}
