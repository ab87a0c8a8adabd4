import type { Correctable, SiteCheck } from '../../core/records/own-values.ts';
import type { ReadingTables } from '../../core/records/read-corrections.ts';
import type { Db } from '../db/open.ts';
import { writeCorrection, writeSiteCheck, type Correction } from '../tables/own-values.ts';
import { nextRevision } from '../tables/revision.ts';
import { remakeCompanies } from './remake.ts';

/** A value of a company that is corrected, or whose correction is taken back where nothing is said. */
export interface Correcting {
  company: string;
  field: Correctable;
  said: Omit<Correction, 'field'> | null;
}

/**
 * Writes what we ourselves say of companies, and makes these anew; inside a transaction that the caller opens.
 * @returns how many companies were made anew
 */
export function landOwnValues(
  db: Db,
  what: string,
  {
    corrections = [],
    checks = [],
  }: { corrections?: readonly Correcting[]; checks?: readonly (SiteCheck & { company: string })[] },
  { trees, places }: ReadingTables,
  progress: (done: number, total: number) => void = () => {},
): number {
  for (const { company, field, said } of corrections) writeCorrection(db, company, field, said);
  for (const check of checks) writeSiteCheck(db, check.company, check);
  const idOf = db.prepare<[string], number>('SELECT id FROM company WHERE key = ?').pluck();
  const ids = new Set(
    [...corrections, ...checks].flatMap(({ company }) => {
      const id = idOf.get(company);
      return id === undefined ? [] : [id];
    }),
  );
  if (ids.size > 0) remakeCompanies(db, nextRevision(db, what), ids, trees, places, progress);
  return ids.size;
}
