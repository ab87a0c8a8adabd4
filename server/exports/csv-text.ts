import { stringify } from 'csv-stringify/sync';
import { safeText } from '../../core/exports/safe-text.ts';
import type { FileOptions } from './writers/writer.ts';

export type CsvOptions = Pick<FileOptions, 'delimiter'> & Partial<FileOptions>;

/** Records as CSV. Cells that a spreadsheet would run as a formula begin with an apostrophe. */
export function csvText(
  records: readonly (readonly (string | number | null)[])[],
  { delimiter, bom = false, quoteAll = false, decimalComma = false, lineEnd = 'crlf' }: CsvOptions,
): string {
  return stringify(records as (string | number)[][], {
    delimiter,
    bom,
    quoted: quoteAll,
    cast: {
      string: safeText,
      ...(decimalComma ? { number: (value: number) => String(value).replace('.', ',') } : {}),
    },
    record_delimiter: lineEnd === 'crlf' ? 'windows' : 'unix',
  });
}
