import { isoOf } from '../../core/dates.ts';
import type { Mapping } from '../../core/records/mapping.ts';
import type { SourceView } from '../../contract/responses.ts';
import type { Db } from '../db/open.ts';

export interface SourceRow {
  id: number;
  key: string;
  name: string;
  subject: string;
  file_name: string | null;
  licence: string | null;
  as_of: number;
  loaded_at: string;
  header: string;
  mapping: string;
  rows_read: number;
  rows_refused: number;
}

export interface NewSource {
  name: string;
  fileName: string | null;
  licence: string | null;
  asOf: number;
  header: readonly string[];
  mapping: Mapping;
  /** Companies where left out. */
  subject?: string;
}

/** Adds a source under a key made of its name, numbered where that is taken. */
export function addSource(db: Db, source: NewSource, key: string): SourceRow {
  const taken = db.prepare<[string], number>('SELECT 1 FROM source WHERE key = ?').pluck();
  let free = key;
  for (let n = 2; taken.get(free); n++) free = `${key}-${n}`;
  db.prepare(
    'INSERT INTO source (key, name, file_name, licence, as_of, loaded_at, header, mapping, subject) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
  ).run(
    free,
    source.name,
    source.fileName,
    source.licence,
    source.asOf,
    new Date().toISOString(),
    JSON.stringify(source.header),
    JSON.stringify(source.mapping),
    source.subject ?? 'companies',
  );
  return sourceByKey(db, free)!;
}

export function sourceByKey(db: Db, key: string): SourceRow | undefined {
  return db.prepare<[string], SourceRow>('SELECT * FROM source WHERE key = ?').get(key);
}

export function allSources(db: Db): SourceRow[] {
  return db.prepare<[], SourceRow>('SELECT * FROM source ORDER BY id').all();
}

export function setRows(db: Db, id: number, read: number, refused: number): void {
  db.prepare('UPDATE source SET rows_read = ?, rows_refused = ? WHERE id = ?').run(read, refused, id);
}

/** All sources with their counts. */
export function viewSources(db: Db): SourceView[] {
  const byCountry = db.prepare<[string], { country: string; companies: number }>(
    `SELECT COALESCE(c.country, '') AS country, count(*) AS companies FROM company_source s JOIN company c ON c.id = s.company_id
     WHERE s.source = ? GROUP BY 1 ORDER BY 2 DESC, 1`,
  );
  return allSources(db).map((source) => {
    const countries = source.subject === 'companies' ? byCountry.all(source.key) : [];
    return {
      key: source.key,
      name: source.name,
      fileName: source.file_name,
      licence: source.licence,
      asOf: isoOf(source.as_of),
      loadedAt: source.loaded_at,
      rowsRead: source.rows_read,
      rowsRefused: source.rows_refused,
      subject: source.subject,
      companies: countries.reduce((sum, one) => sum + one.companies, 0),
      countries,
    };
  });
}
