import { isoOf } from '../../core/dates.ts';
import type { Changes } from '../../core/records/changes.ts';
import type { Mapping } from '../../core/records/mapping.ts';
import type { Refreshed, SourceView } from '../../contract/responses.ts';
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
  /** JSON of a Refreshed; null where the source is as it was first loaded. */
  refreshed: string | null;
  /** SHA-256 of its file as it came; null where it is not known or there is none. */
  fingerprint: string | null;
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
  fingerprint?: string | null;
}

/** Adds a source under a key made of its name, numbered where that is taken. */
export function addSource(db: Db, source: NewSource, key: string): SourceRow {
  const taken = db.prepare<[string], number>('SELECT 1 FROM source WHERE key = ?').pluck();
  let free = key;
  for (let n = 2; taken.get(free); n++) free = `${key}-${n}`;
  db.prepare(
    'INSERT INTO source (key, name, file_name, licence, as_of, loaded_at, header, mapping, subject, fingerprint) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
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
    source.fingerprint ?? null,
  );
  return sourceByKey(db, free)!;
}

export function sourceByKey(db: Db, key: string): SourceRow | undefined {
  return db.prepare<[string], SourceRow>('SELECT * FROM source WHERE key = ?').get(key);
}

/** The source that was loaded from just this file, the last of several. */
export function sourceOfFile(db: Db, fingerprint: string): SourceRow | undefined {
  return db
    .prepare<[string], SourceRow>('SELECT * FROM source WHERE fingerprint = ? ORDER BY id DESC LIMIT 1')
    .get(fingerprint);
}

export function allSources(db: Db): SourceRow[] {
  return db.prepare<[], SourceRow>('SELECT * FROM source ORDER BY id').all();
}

export function setRows(db: Db, id: number, read: number, refused: number): void {
  db.prepare('UPDATE source SET rows_read = ?, rows_refused = ? WHERE id = ?').run(read, refused, id);
}

/** What is told of a source without counting its records. */
export type ToldSource = Omit<SourceView, 'companies' | 'countries'>;

/** All sources, in the order in which they came. */
export function toldSources(db: Db): ToldSource[] {
  return allSources(db).map((source) => ({
    key: source.key,
    name: source.name,
    fileName: source.file_name,
    licence: source.licence,
    asOf: isoOf(source.as_of),
    loadedAt: source.loaded_at,
    rowsRead: source.rows_read,
    rowsRefused: source.rows_refused,
    subject: source.subject,
    refreshed: source.refreshed === null ? null : (JSON.parse(source.refreshed) as Refreshed),
  }));
}

/** How many companies of each country each source has, the most first; "" where the country is not known. Takes seconds at a million. */
export function companiesBySource(db: Db): Record<string, SourceView['countries']> {
  const rows = db
    .prepare<[], { source: string; country: string; companies: number }>(
      `SELECT s.source, COALESCE(c.country, '') AS country, count(*) AS companies
       FROM u.company_source s JOIN u.company c ON c.id = s.company_id GROUP BY 1, 2 ORDER BY 3 DESC, 2`,
    )
    .all();
  const bySource: Record<string, SourceView['countries']> = {};
  for (const { source, ...one } of rows) (bySource[source] ??= []).push(one);
  return bySource;
}

/** Puts a newer file in place of that of a source, which keeps its key. */
export function renewSource(db: Db, id: number, source: NewSource): void {
  db.prepare(
    'UPDATE source SET name = ?, file_name = ?, licence = ?, as_of = ?, loaded_at = ?, header = ?, mapping = ?, fingerprint = ? WHERE id = ?',
  ).run(
    source.name,
    source.fileName,
    source.licence,
    source.asOf,
    new Date().toISOString(),
    JSON.stringify(source.header),
    JSON.stringify(source.mapping),
    source.fingerprint ?? null,
    id,
  );
}

/** A source for what the newer file of another has no more, read as that was. @param before the other, as it was before the newer file */
export function goneSource(db: Db, before: SourceRow): SourceRow {
  const { name, file_name, licence, as_of, header, mapping, key, subject } = before;
  return addSource(
    db,
    {
      name: `${name}, gone after ${isoOf(as_of)}`,
      ...{ fileName: file_name, licence, asOf: as_of, subject },
      header: JSON.parse(header) as string[],
      mapping: JSON.parse(mapping) as Mapping,
    },
    `${key}-gone`,
  );
}

/** Notes what a refresh of a source did, in place of what the one before did. */
export function noteRefresh(db: Db, source: SourceRow, refreshed: Refreshed): void {
  db.prepare('UPDATE source SET refreshed = ? WHERE id = ?').run(JSON.stringify(refreshed), source.id);
}

export type ChangeKind = 'new' | 'changed' | 'gone';

/** What the last refresh did to companies of a source, by their keys. */
export function changesOf(
  db: Db,
  source: string,
  what: ChangeKind,
): { key: string; name: string; changes: Changes }[] {
  return db
    .prepare<[string, string], { key: string; name: string; changes: string }>(
      'SELECT key, name, changes FROM source_change WHERE source = ? AND what = ? ORDER BY key',
    )
    .all(source, what)
    .map((row) => ({ ...row, changes: JSON.parse(row.changes) as Changes }));
}
