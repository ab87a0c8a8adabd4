import type { CodeTree, Scheme } from '../codes/tree.ts';
import type { Gazetteer } from '../geo/gazetteer.ts';
import { correctionRow, type Correctable } from './own-values.ts';
import { rowReader, type RowReader } from './read-row.ts';
import type { CompanyRecord } from './record.ts';

export interface ReadingTables {
  trees: ReadonlyMap<Scheme, CodeTree>;
  places: Gazetteer;
}

/**
 * Reads corrections of a company as a row of a file: in the country of the company, the currency and year of its revenue and the scheme
 * of its main code, unless they name others; figures with a decimal point.
 */
export function readCorrections(
  company: CompanyRecord,
  corrections: ReadonlyMap<Correctable, { value: string }>,
  { trees, places }: ReadingTables,
): ReturnType<RowReader['read']> {
  const { header, cells } = correctionRow(
    company.name,
    new Map([...corrections].map(([field, { value }]) => [field, value])),
  );
  const known = company.revenue ?? company.profit ?? company.assets;
  return rowReader(
    header,
    {
      columns: header,
      decimal: '.',
      dates: 'dmy',
      scheme: company.codes.find(({ main }) => main)?.scheme ?? 'nace-2.1',
      country: company.country,
      currency: known?.currency ?? places.country(company.country ?? '')?.currency ?? 'EUR',
      year: known?.year ?? new Date().getUTCFullYear() - 1,
      revenueUnit: 1,
      unreadable: 'empty',
    },
    trees,
    places,
    0,
  ).read(cells);
}
