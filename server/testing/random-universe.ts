import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { CompanyRecord } from '../../core/records/record.ts';
import { SOURCES, TECHNOLOGIES } from '../../core/testing/any-record.ts';
import { openUniverse, type Db } from '../db/open.ts';
import type { ReferenceData } from '../engine/universe-lookup.ts';
import { loadReferenceData } from '../reference.ts';
import { nextRevision } from '../tables/revision.ts';
import { companyParts, companyWriter, LIST_TABLES } from '../tables/company.ts';
import { addSource } from '../tables/source.ts';

/** 2026-09-30 */
export const AS_OF = 20_726;

const GROUPED = ['rutavel', 'planodor'];

/** A universe on disk that can be filled anew with random companies. */
export class RandomUniverse {
  readonly dir = mkdtempSync(join(tmpdir(), 'just-tally-universe-'));
  readonly db: Db = openUniverse(this.dir);
  readonly reference: ReferenceData;

  constructor() {
    this.reference = loadReferenceData();
    const mapping = {
      columns: [],
      decimal: '.',
      dates: 'dmy',
      scheme: 'nace-2.1',
      country: null,
      currency: 'EUR',
      year: 2025,
      revenueUnit: 1,
    } as const;
    for (const name of SOURCES)
      addSource(
        this.db,
        {
          name,
          fileName: null,
          licence: null,
          asOf: AS_OF,
          header: [],
          mapping: { ...mapping, columns: [] },
        },
        name,
      );
    const add = this.db.prepare(
      'INSERT INTO technology (key, label, category, category_label) VALUES (?, ?, ?, ?)',
    );
    for (const key of TECHNOLOGIES) {
      const group = GROUPED.includes(key) ? 'planning' : null;
      add.run(key, key, group, group);
    }
  }

  fill(records: readonly (readonly [CompanyRecord, readonly string[]])[]): void {
    for (const table of [...LIST_TABLES, 'company_source', 'company', 'company_words'])
      this.db.exec(`DELETE FROM ${table}`);
    const writer = companyWriter(this.db, nextRevision(this.db));
    this.db.transaction(() =>
      records.forEach(([record, sources], i) => writer.insert(i + 1, `k${i}`, companyParts(record), sources)),
    )();
  }

  close(): void {
    this.db.close();
    rmSync(this.dir, { recursive: true });
  }
}
