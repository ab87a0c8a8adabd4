import { stringify } from 'csv-stringify/sync';
import { safeText } from '../../core/exports/safe-text.ts';

/** Records as CSV. Cells that a spreadsheet would run as a formula begin with an apostrophe. */
export function csvText(
  records: readonly (readonly (string | number)[])[],
  { delimiter, bom = false }: { delimiter: string; bom?: boolean },
): string {
  return stringify(records as (string | number)[][], {
    delimiter,
    bom,
    cast: { string: safeText },
    record_delimiter: 'windows',
  });
}
