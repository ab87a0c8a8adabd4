import { PART_LABELS } from './part-labels.ts';
import type { CompanyRecord } from './record.ts';

/** How much each source knows, by field and country, and how fresh it is. */

/** The records of one source in one country. */
export interface CoverageCell {
  source: string;
  /** ISO code; empty where the country is not known. */
  country: string;
  records: number;
  /** Records that know a part, in the order of PART_LABELS. */
  known: number[];
  /** Records by the days since they were last checked: within each of FRESH_DAYS; the rest is older or was never checked. */
  fresh: number[];
}

/** Spans in days within which a record counts as fresh. */
export const FRESH_DAYS = [90, 365, 730] as const;

/** Parts that are known as "none" where the site was surveyed. */
const SURVEYED: ReadonlySet<keyof CompanyRecord> = new Set(['technologies', 'offers']);

/** Counts records as they are read. */
export class Coverage {
  private readonly cells = new Map<string, CoverageCell>();
  private readonly today: number;

  /** @param today days since 1970 */
  constructor(today: number) {
    this.today = today;
  }

  /** @param asOf the day of the record's source, for records that do not say when they were checked */
  add(source: string, asOf: number, record: CompanyRecord): void {
    const country = record.country ?? '';
    const key = `${source}\u001f${country}`;
    let cell = this.cells.get(key);
    if (!cell)
      this.cells.set(
        key,
        (cell = {
          ...{ source, country, records: 0 },
          ...{ known: PART_LABELS.map(() => 0), fresh: FRESH_DAYS.map(() => 0) },
        }),
      );
    cell.records++;
    PART_LABELS.forEach(({ part }, at) => {
      if (isKnown(record, part)) cell.known[at]!++;
    });
    const age = this.today - (record.checkedOn ?? asOf);
    FRESH_DAYS.forEach((days, at) => {
      if (age <= days) cell.fresh[at]!++;
    });
  }

  /** By source, then the country with most records first. */
  result(): CoverageCell[] {
    return [...this.cells.values()].sort((a, b) => a.source.localeCompare(b.source) || b.records - a.records);
  }
}

function isKnown(record: CompanyRecord, part: keyof CompanyRecord): boolean {
  if (SURVEYED.has(part)) return record.surveyedOn !== null;
  const value = record[part];
  if (value === null || value === '') return false;
  return !(part === 'codes' && Array.isArray(value) && value.length === 0);
}

/** Cells of several sources or countries as one. Null where there is none. */
export function together(cells: readonly CoverageCell[]): Omit<CoverageCell, 'source' | 'country'> | null {
  if (cells.length === 0) return null;
  const sum = (of: (cell: CoverageCell) => number[]) =>
    of(cells[0]!).map((_, at) => cells.reduce((all, cell) => all + of(cell)[at]!, 0));
  return {
    records: cells.reduce((all, { records }) => all + records, 0),
    known: sum(({ known }) => known),
    fresh: sum(({ fresh }) => fresh),
  };
}
