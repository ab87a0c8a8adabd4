import type { CodeTree, Scheme } from '../../core/codes/tree.ts';
import type { Gazetteer } from '../../core/geo/gazetteer.ts';
import { mergeRecords } from '../../core/records/merge.ts';
import { type MergedCompany, type SourcedRecord } from '../../core/records/merged.ts';
import type { Mapping } from '../../core/records/mapping.ts';
import {
  withCorrections,
  withSiteCheck,
  type Correctable,
  type SiteCheck,
} from '../../core/records/own-values.ts';
import type { Precedence } from '../../core/records/precedence.ts';
import { readCorrections, type ReadingTables } from '../../core/records/read-corrections.ts';
import { rowReader, type RowReader } from '../../core/records/read-row.ts';
import type { Db } from '../db/open.ts';
import { followCompanies, relate, removeRelated, unlinkCompanies } from './relate.ts';
import { keepIds, nextRevision } from '../tables/revision.ts';
import { companyParts, companyWriter } from '../tables/company.ts';
import type { Told } from '../tables/history.ts';
import { OwnValues, readPrecedence, type Correction } from '../tables/own-values.ts';
import { allSources, type SourceRow } from '../tables/source.ts';

interface RecordRow {
  id: number;
  source_id: number;
  cells: string;
}

/** Reads records of any source back from the cells they came in, and makes companies of them. */
export class RecordReader {
  private readonly sources = new Map<number, { row: SourceRow; reader: RowReader }>();
  private readonly ofCompany;
  private readonly everyRecord;
  private readonly keyOf;
  private readonly own: OwnValues;
  private readonly precedence: Precedence;
  private readonly tables: ReadingTables;

  /** @param precedence which source wins; as it is set where left out */
  constructor(
    db: Db,
    trees: ReadonlyMap<Scheme, CodeTree>,
    places: Gazetteer,
    precedence = readPrecedence(db),
  ) {
    this.tables = { trees, places };
    this.own = new OwnValues(db);
    this.precedence = precedence;
    this.keyOf = db.prepare<[number], string>('SELECT key FROM company WHERE id = ?').pluck();
    for (const row of allSources(db)) {
      if (row.subject !== 'companies') continue;
      const reader = rowReader(
        JSON.parse(row.header) as string[],
        // What was loaded is kept even where it would be refused by now.
        { ...(JSON.parse(row.mapping) as Mapping), unreadable: 'empty' },
        trees,
        places,
        row.as_of,
      );
      this.sources.set(row.id, { row, reader });
    }
    this.ofCompany = db.prepare<[number], RecordRow>(
      'SELECT id, source_id, cells FROM record WHERE company_id = ? ORDER BY id',
    );
    this.everyRecord = db.prepare<[], RecordRow>('SELECT id, source_id, cells FROM record');
  }

  /** The records of a company, with their sources' keys. */
  records(company: number): { records: SourcedRecord[]; sources: string[] } {
    const records: SourcedRecord[] = [];
    const sources = new Set<string>();
    for (const row of this.ofCompany.all(company)) {
      const record = this.read(row);
      records.push(record);
      sources.add(record.source);
    }
    return { records, sources: [...sources] };
  }

  /** The records of all companies, one after the other. */
  *all(): Generator<SourcedRecord> {
    for (const row of this.everyRecord.iterate()) yield this.read(row);
  }

  private read({ id, source_id, cells }: RecordRow): SourcedRecord {
    const { row, reader } = this.sources.get(source_id)!;
    const read = reader.read(JSON.parse(cells) as string[]);
    if ('problems' in read)
      throw new Error(`Record ${id} was loaded and cannot be read again: ${JSON.stringify(read.problems)}`);
    return { id, source: row.key, asOf: row.as_of, record: read.record };
  }

  /**
   * A company of its records, with what we ourselves say of it; null where it has none: what we say of it makes no company.
   * @param key its key, where it is not in the tables yet
   */
  merge(company: number, key = this.keyOf.get(company) ?? ''): MadeCompany | null {
    const { records, sources } = this.records(company);
    if (records.length === 0) return null;
    const merged = mergeRecords(records, this.precedence);
    const corrections = this.own.correctionsOf(key);
    const corrected = [...corrections.keys()];
    if (corrections.size === 0)
      return { ...withSiteCheck(merged, this.own.checkOf(key)), sources, corrected };
    const read = readCorrections(merged.company, corrections, this.tables);
    if ('problems' in read)
      throw new Error(`Corrections were kept and cannot be read again: ${JSON.stringify(read.problems)}`);
    const righted = withCorrections(merged, read.record, corrected);
    return { ...withSiteCheck(righted, this.own.checkOf(key)), sources, corrected };
  }

  /** What we ourselves say of a company. */
  ownOf(key: string): { corrections: Correction[]; check: SiteCheck | null } {
    return { corrections: [...this.own.correctionsOf(key).values()], check: this.own.checkOf(key) };
  }

  sourceRow(key: string): SourceRow {
    return [...this.sources.values()].find(({ row }) => row.key === key)!.row;
  }
}

/** A company as it is to be written. */
export interface MadeCompany extends MergedCompany {
  sources: string[];
  corrected: Correctable[];
}

/** Makes companies anew from all their records, after some got a further one. */
export function remakeCompanies(
  db: Db,
  revision: number,
  companies: ReadonlySet<number>,
  trees: ReadonlyMap<Scheme, CodeTree>,
  places: Gazetteer,
  progress: (done: number, total: number) => void,
  told: Told | null = 'all',
): void {
  const reader = new RecordReader(db, trees, places);
  const writer = companyWriter(db, revision, told);
  let done = 0;
  for (const company of companies) {
    const merged = reader.merge(company)!;
    writer.update(company, companyParts(merged.company, merged), merged.sources);
    if (++done % 2000 === 0) progress(done, companies.size);
  }
  followCompanies(db, revision);
}

const MOST_TOLD = 100_000;
/** Companies after which a removal tells how far it is. */
const REMOVED_AT_ONCE = 2000;

/** Takes a source out: its records, the companies that had no other, what the others had from it, and what hung on companies by it. */
export function removeSource(
  db: Db,
  source: SourceRow,
  trees: ReadonlyMap<Scheme, CodeTree>,
  places: Gazetteer,
  progress: (done: number, total: number) => void,
): void {
  const companies = db
    .prepare<[number], number>('SELECT DISTINCT company_id FROM record WHERE source_id = ?')
    .pluck()
    .all(source.id);
  const revision = nextRevision(db, `${source.name} was removed`);
  keepIds(db, 'company');
  // Of very many, what each of them was is not worth its place.
  const writer = companyWriter(db, revision, companies.length > MOST_TOLD ? null : 'all');
  const reader = new RecordReader(db, trees, places);
  db.prepare('DELETE FROM record WHERE source_id = ?').run(source.id);
  let gone: number[] = [];
  if (db.prepare('SELECT 1 FROM record LIMIT 1').get() === undefined) {
    progress(0, companies.length);
    writer.removeAll();
    gone = companies;
  } else
    for (let from = 0; from < companies.length; from += REMOVED_AT_ONCE) {
      progress(from, companies.length);
      const left: number[] = [];
      for (const company of companies.slice(from, from + REMOVED_AT_ONCE)) {
        const merged = reader.merge(company);
        if (merged) writer.update(company, companyParts(merged.company, merged), merged.sources);
        else left.push(company);
      }
      writer.remove(left);
      gone.push(...left);
    }
  const touched = new Set([...removeRelated(db, source.key), ...unlinkCompanies(db, gone)]);
  relate(db, revision, [...touched]);
  db.prepare('DELETE FROM source WHERE id = ?').run(source.id);
}
