import { formatOf, type FormatId } from '../../core/exports/formats.ts';
import type { Roll } from '../../core/lists/roll.ts';
import type { Db } from '../db/open.ts';

/** Exports as they are kept in the workspace. */
export interface ExportRow {
  id: string;
  job_id: string;
  name: string;
  subject: string;
  format: FormatId;
  /** Of its file; that of the format where null. */
  ending: string | null;
  tape: string;
  wording: string;
  columns: string;
  picked: number | null;
  count: number | null;
  receiver: string;
  template: string | null;
  person: string;
  /** JSON of what was asked; null for those of earlier versions, which cannot be made again. */
  wish: string | null;
  roll: string | null;
  repeats: string | null;
  made_at: string;
  removed_at: string | null;
}

/** Days for which a removed export can be brought back. */
export const DAYS_KEPT = 30;

const COLUMNS = [
  ...['id', 'job_id', 'name', 'subject', 'format', 'ending', 'tape', 'wording', 'columns', 'picked'],
  ...['count', 'receiver', 'template', 'person', 'wish', 'roll', 'repeats', 'made_at', 'removed_at'],
];

export function addExport(db: Db, row: ExportRow): void {
  db.prepare(
    `INSERT INTO export (${COLUMNS.join(', ')}) VALUES (${COLUMNS.map((column) => `@${column}`).join(', ')})`,
  ).run(row);
}

/** What the file of an export came to. */
export function setExportResult(db: Db, id: string, count: number, roll: Roll): void {
  db.prepare('UPDATE export SET count = ?, roll = ? WHERE id = ?').run(count, JSON.stringify(roll), id);
}

export function exportById(db: Db, id: string): ExportRow | undefined {
  return db.prepare<[string], ExportRow>('SELECT * FROM export WHERE id = ?').get(id);
}

export function exportOfJob(db: Db, job: string): ExportRow | undefined {
  return db.prepare<[string], ExportRow>('SELECT * FROM export WHERE job_id = ?').get(job);
}

/** The latest first, those removed lately among them. */
export function allExports(db: Db): ExportRow[] {
  return db.prepare<[], ExportRow>('SELECT * FROM export ORDER BY made_at DESC, id').all();
}

export function setExportRemoved(db: Db, id: string, at: string | null): void {
  db.prepare('UPDATE export SET removed_at = ? WHERE id = ?').run(at, id);
}

/** Forgets those removed longer ago than they can be brought back, and returns them. */
export function purgeExports(db: Db, now: Date): ExportRow[] {
  const limit = new Date(now.getTime() - DAYS_KEPT * 86_400_000).toISOString();
  return db.prepare<[string], ExportRow>('DELETE FROM export WHERE removed_at < ? RETURNING *').all(limit);
}

/** Exports whose job ended without a file. */
export function failedExports(db: Db): string[] {
  return db
    .prepare<[], string>(
      `SELECT e.id FROM export e JOIN job j ON j.id = e.job_id WHERE j.state IN ('failed', 'cancelled')`,
    )
    .pluck()
    .all();
}

/** The name of an export's file within the folder of exports. */
export function storedName({ id, format, ending }: Pick<ExportRow, 'id' | 'format' | 'ending'>): string {
  return `${id}.${ending ?? formatOf(format).ending}`;
}
