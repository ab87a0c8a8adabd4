import type { Refreshed } from '../../contract/responses.ts';
import type { CodeTree, Scheme } from '../../core/codes/tree.ts';
import type { Gazetteer } from '../../core/geo/gazetteer.ts';
import { changesBetween } from '../../core/records/changes.ts';
import { mergeRecords } from '../../core/records/merge.ts';
import { rowReader, type RowReader } from '../../core/records/read-row.ts';
import type { CompanyRecord } from '../../core/records/record.ts';
import type { Mapping } from '../../core/records/mapping.ts';
import type { Db } from '../db/open.ts';
import { companyParts, companyWriter } from '../tables/company.ts';
import { goneSource, noteRefresh, sourceByKey, type SourceRow } from '../tables/source.ts';
import { keepIds } from '../tables/revision.ts';
import { relate, unlinkCompanies } from './relate.ts';
import { RecordReader } from './remake.ts';

/**
 * A newer file in place of a source's. Its rows are loaded beside the old ones under the same source; then each company that has
 * records of either is looked at once:
 *
 *     old ── new       stays, and may have changed
 *     old ── none      gone: its old records leave, or go to a source of their own
 *     none ── new      new
 */
export class Refresh {
  private readonly db: Db;
  private readonly before: SourceRow;
  /** Records up to this one are the old ones. */
  private readonly last: number;
  private readonly tables: { trees: ReadonlyMap<Scheme, CodeTree>; places: Gazetteer };

  /** To be made before the source is renewed and the new rows are loaded. */
  constructor(
    db: Db,
    source: SourceRow,
    tables: { trees: ReadonlyMap<Scheme, CodeTree>; places: Gazetteer },
  ) {
    this.db = db;
    this.before = source;
    this.tables = tables;
    this.last = db.prepare<[], number>('SELECT COALESCE(max(id), 0) FROM record').pluck().get()!;
  }

  /** To be called once the new rows are loaded; remakes every company that the source has or had. */
  finish(
    revision: number,
    gone: 'removed' | 'kept',
    progress: (done: number, total: number) => void,
  ): Refreshed {
    const { db, last, tables } = this;
    const source = sourceByKey(db, this.before.key)!;
    const [readOld, readNew] = [this.reader(this.before), this.reader(source)];
    const sameReading = this.before.header === source.header && this.before.mapping === source.mapping;
    const companies = db
      .prepare<[number], number>(
        'SELECT DISTINCT company_id FROM record WHERE source_id = ? ORDER BY company_id',
      )
      .pluck()
      .all(source.id);
    const recordsOf = db.prepare<[number, number], { id: number; cells: string }>(
      'SELECT id, cells FROM record WHERE company_id = ? AND source_id = ? ORDER BY id',
    );
    const companyOf = db.prepare<[number], { key: string; name: string }>(
      'SELECT key, name FROM company WHERE id = ?',
    );
    const dropOld = db.prepare('DELETE FROM record WHERE company_id = ? AND source_id = ? AND id <= ?');
    const moveOld = db.prepare(
      'UPDATE record SET source_id = ? WHERE company_id = ? AND source_id = ? AND id <= ?',
    );
    const note = db.prepare(
      'INSERT INTO source_change (source, key, name, what, changes) VALUES (?, ?, ?, ?, ?)',
    );
    db.prepare('DELETE FROM source_change WHERE source = ?').run(source.key);
    const counts = { before: 0, added: 0, gone: 0, now: 0, changed: 0 };
    let archive: SourceRow | null = null;
    companies.forEach((company, i) => {
      if (i % 2000 === 0) progress(i, companies.length);
      const records = recordsOf.all(company, source.id);
      const old = records.filter(({ id }) => id <= last);
      const now = records.filter(({ id }) => id > last);
      const { key, name } = companyOf.get(company)!;
      if (old.length > 0) counts.before++;
      if (now.length > 0) counts.now++;
      if (old.length === 0) {
        counts.added++;
        note.run(source.key, key, name, 'new', '{}');
      } else if (now.length === 0) {
        counts.gone++;
        note.run(source.key, key, name, 'gone', '{}');
        if (gone === 'kept') {
          archive ??= goneSource(db, this.before);
          moveOld.run(archive.id, company, source.id, last);
        }
      } else if (
        !sameReading ||
        old.map(({ cells }) => cells).join() !== now.map(({ cells }) => cells).join()
      ) {
        const changes = changesBetween(merged(readOld, old), merged(readNew, now));
        if (Object.keys(changes).length > 0) {
          counts.changed++;
          note.run(source.key, key, name, 'changed', JSON.stringify(changes));
        }
      }
      dropOld.run(company, source.id, last);
    });
    const reader = new RecordReader(db, tables.trees, tables.places);
    const writer = companyWriter(db, revision);
    const left: number[] = [];
    keepIds(db, 'company');
    for (const company of companies) {
      const made = reader.merge(company);
      if (made) writer.update(company, companyParts(made.company, made), made.sources);
      else left.push(company);
    }
    writer.remove(left);
    relate(db, revision, unlinkCompanies(db, left));
    const kept = archive as SourceRow | null;
    const refreshed = { on: new Date().toISOString().slice(0, 10), ...counts, keptAs: kept?.key ?? null };
    noteRefresh(db, source, refreshed);
    return refreshed;
  }

  private reader({ header, mapping, as_of }: SourceRow): RowReader {
    return rowReader(
      JSON.parse(header) as string[],
      { ...(JSON.parse(mapping) as Mapping), unreadable: 'empty' },
      this.tables.trees,
      this.tables.places,
      as_of,
    );
  }
}

/** The company that some records of one source make. */
function merged(reader: RowReader, records: readonly { id: number; cells: string }[]): CompanyRecord {
  const read = records.flatMap(({ id, cells }) => {
    const found = reader.read(JSON.parse(cells) as string[]);
    return 'record' in found ? [{ id, source: '', record: found.record }] : [];
  });
  return mergeRecords(read).company;
}
