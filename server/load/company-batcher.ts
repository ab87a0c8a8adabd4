import { mergeRecords } from '../../core/records/merge.ts';
import { type SourcedRecord } from '../../core/records/merged.ts';
import { companyKey } from '../../core/records/company-key.ts';
import type { CompanyRecord } from '../../core/records/record.ts';
import { companyParts, type CompanyParts } from '../tables/company.ts';

/** A company ready to be written, as it crosses from the reading thread to the writing one. */
export interface ReadyCompany extends CompanyParts {
  key: string;
  /** Keys of its sources. */
  sources: string[];
  /** Whether it has a registration number. */
  hasNumber: boolean;
  /** The rows it was made of; cells as a JSON list. */
  records: [source: number, row: number, cells: string][];
}

interface Held {
  records: SourcedRecord[];
  sources: Set<string>;
  rows: ReadyCompany['records'];
}

/** Companies held back before they are handed on. */
const MOST_HELD = 500;

/**
 * Makes companies of the rows of a load. They are held back for a while, so that one whose rows
 * stand close together is merged in memory and written once.
 */
export class CompanyBatcher {
  private readonly put;
  private readonly held = new Map<string, Held>();
  private rows = 0;

  /** `put` is handed each batch, in which every key stands once. */
  constructor(put: (companies: ReadyCompany[]) => void) {
    this.put = put;
  }

  /** Adds one row of a source. Its key is what the row says of the company, unless whoever made the row knows better. */
  add(
    source: { id: number; key: string },
    row: number,
    cells: readonly string[],
    record: CompanyRecord,
    key = companyKey(record, cells),
  ): void {
    let company = this.held.get(key);
    if (!company) {
      if (this.held.size >= MOST_HELD) this.flush();
      company = { records: [], sources: new Set(), rows: [] };
      this.held.set(key, company);
    }
    company.records.push({ id: ++this.rows, source: source.key, record });
    company.sources.add(source.key);
    company.rows.push([source.id, row, JSON.stringify(cells)]);
  }

  /** Hands on what is held back; to be called at the end. */
  flush(): void {
    const ready: ReadyCompany[] = [];
    for (const [key, { records, sources, rows }] of this.held) {
      const { company, disputes } =
        records.length === 1 ? { company: records[0]!.record, disputes: [] } : mergeRecords(records);
      const parts = companyParts(company, { disputes, corrected: [] });
      const hasNumber = company.registration !== null;
      ready.push({ key, sources: [...sources], hasNumber, records: rows, ...parts });
    }
    this.held.clear();
    this.put(ready);
  }
}
