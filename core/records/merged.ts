import type { Disputed } from './disputes.ts';
import type { CompanyRecord } from './record.ts';

/** A record with where it is from. */
export interface SourcedRecord {
  id: number;
  /** Key of its source. */
  source: string;
  /** The day that its source speaks of; nothing is known of it where left out. */
  asOf?: number;
  record: CompanyRecord;
}

/** A company as its records make it, and for each field the record it is from. */
export interface MergedCompany {
  company: CompanyRecord;
  from: Partial<Record<keyof CompanyRecord, number>>;
  /** What its sources say differently. */
  disputes: Disputed[];
}
