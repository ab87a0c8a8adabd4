import type { Gazetteer } from '../geo/gazetteer.ts';
import { addressParts, apartIn } from '../values/one-line-address.ts';
import { countryIn, townsOf } from '../values/place.ts';
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
    const text = withHouse(street(), house());
    if (!isWhole || text === null) return { country, street: text, postcode: readPostcode(), town: town() };
    const apart = apartIn(text);
    const named = apart.length > 1 ? countryIn(apart.at(-1)!, places) : null;
    const within = named === null ? text : apart.slice(0, -1).join(', ');
    const parts = addressParts(within);
    const own = country ?? named;
    // A town with nothing but where it lies: "New York, NY, USA".
    const alone =
      parts.street === null && parts.postcode === null && own !== null
        ? (apart.find((part) => townsOf(part, own, null, places).length > 0) ?? null)
        : null;
    return {
      country: own,
      street: alone === null ? (parts.street ?? text) : null,
      postcode: parts.postcode,
      town: parts.town ?? alone,
    };
  };
}

/** A street with its number behind, unless that stands there already. */
function withHouse(street: string | null, house: string | null): string | null {
  if (street === null || house === null) return street ?? house;
  return street.endsWith(` ${house}`) ? street : `${street} ${house}`;
}
