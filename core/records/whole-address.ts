import type { Gazetteer } from '../geo/gazetteer.ts';
import { addressParts, apartIn } from '../values/one-line-address.ts';
import { countryIn } from '../values/place.ts';
import type { ColumnReader } from './column-reader.ts';

/** The address of a row, as far as its columns say it. */
export interface RowAddress {
  country: string | null;
  street: string | null;
  postcode: string | null;
  town: string | null;
}

/**
 * Reads the address of each row by its columns. A file without a column of towns or of postcodes has both in that of the street
 * ("Lipová 18, 602 00 Brno", "1051 Budapest, Arany J. u. 5."), and the country at times: there each is taken apart, and an address
 * that cannot be is left as the street. A number of the house in a column of its own goes behind the street.
 * @returns reads the row that is begun; `country` is what its column says
 */
export function addressReader(
  columns: ColumnReader,
  readPostcode: () => string | null,
  places: Gazetteer,
): (country: string | null) => RowAddress {
  const [street, house, town] = ['street', 'street-number', 'town'].map((id) => columns.plain(id)) as [
    () => string | null,
    () => string | null,
    () => string | null,
  ];
  const isWhole = !columns.hasAny('town', 'postcode');
  return (country) => {
    const text = [street(), house()].filter((part) => part !== null).join(' ') || null;
    if (!isWhole || text === null) return { country, street: text, postcode: readPostcode(), town: town() };
    const parts = addressParts(text);
    const last = apartIn(text).at(-1)!;
    const named = country === null && last !== text ? countryIn(last, places) : null;
    return {
      country: country ?? named,
      street: parts.street ?? text,
      postcode: parts.postcode,
      // Of a country behind the town only the town is one.
      town: parts.town !== null && parts.town !== last ? parts.town : named === null ? parts.town : null,
    };
  };
}
