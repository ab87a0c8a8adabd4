import type { Gazetteer } from '../geo/gazetteer.ts';
import { addressParts, apartIn, besideTown } from '../values/one-line-address.ts';
import { readPostcode as plainPostcode } from '../values/identifiers.ts';
import { countryIn, townsOf } from '../values/place.ts';
import type { ColumnReader } from './column-reader.ts';

/** The address of a row, as far as its columns say it. */
export interface RowAddress {
  country: string | null;
  /** As the cell of a town says it behind the town; null where it says none. */
  region: string | null;
  street: string | null;
  postcode: string | null;
  town: string | null;
}

/**
 * Reads the address of each row by its columns. A file without a column of towns or of postcodes has both in that of the street
 * ("Lipová 18, 602 00 Brno", "1051 Budapest, Arany J. u. 5."), and the country at times: there each is taken apart, and an address
 * that cannot be is left as the street. A number of the house in a column of its own goes behind the street. A town may have
 * its region and its country behind it ("Brno, South Moravia, Czechia"), or be an address itself where no column is a street's.
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
  const isTownWhole = !columns.hasAny('street', 'postcode');
  return (country) => {
    const ofStreet = withHouse(street(), house());
    const ofTown = town();
    const isAddress = isTownWhole && ofTown !== null && /\d/.test(ofTown) && /[,\n]/.test(ofTown);
    const text = isAddress ? ofTown : ofStreet;
    if (!isAddress && (!isWhole || text === null))
      return withPostcode({
        street: ofStreet,
        postcode: readPostcode(),
        ...townWith(ofTown, country ?? countryBefore(ofTown, places), places),
      });
    if (text === null) return { country, region: null, street: null, postcode: null, town: null };
    const apart = apartIn(text);
    const named = apart.length > 1 ? countryIn(apart.at(-1)!, places) : null;
    const within = named === null ? text : apart.slice(0, -1).join(', ');
    const parts = addressParts(within);
    const own = country ?? named ?? countryBefore(parts.postcode, places);
    // A town with nothing but where it lies: "New York, NY, USA".
    const alone =
      parts.street === null && parts.postcode === null && own !== null
        ? (apart.find((part) => townsOf(part, own, null, places).length > 0) ?? null)
        : null;
    return {
      country: own,
      region: null,
      street:
        alone !== null ? null : (parts.street ?? (parts.town === null ? text : besideTown(within, parts))),
      postcode: parts.postcode && plainPostcode(parts.postcode, own),
      town: parts.town ?? alone,
    };
  };
}

/** A postcode before a town, which cells of both have: "40-001 Katowice", "A-8010 Graz". */
const BEFORE_TOWN = /^((?:[A-Z]{1,2}-)?(?:\d{4,5}|\d{3} \d{2}|\d{2}-\d{3}|\d{4} [A-Z]{2})) +(\p{L}.*)$/u;

/** An address whose town has its postcode before it, where no column has one. */
function withPostcode(address: RowAddress): RowAddress {
  const apart = address.postcode === null && address.town !== null ? BEFORE_TOWN.exec(address.town) : null;
  return apart
    ? { ...address, postcode: plainPostcode(apart[1]!, address.country), town: apart[2]! }
    : address;
}

/** The country whose sign stands before a postcode: A-4020, CZ-602 00. */
function countryBefore(postcode: string | null, places: Gazetteer): string | null {
  const sign = /^([A-Z]{1,3})[- ](?=\d{4,5}\b|\d{3} \d{2}\b|\d{2}-\d{3}\b)/.exec(postcode ?? '')?.[1];
  return sign === undefined ? null : countryIn(sign, places);
}

/** A town with what stands behind it: its region, its country, or both. A short word for a country counts only where the town is in it: DE is Delaware, too. */
function townWith(
  text: string | null,
  country: string | null,
  places: Gazetteer,
): Pick<RowAddress, 'country' | 'region' | 'town'> {
  const apart = text === null ? [] : apartIn(text);
  const asItIs = { country, region: null, town: text };
  if (apart.length < 2 || apart.length > 3) return asItIs;
  const [town, last] = [apart[0]!, apart.at(-1)!];
  const isIn = (code: string | null, region: string | null = null) =>
    code !== null && townsOf(town, code, region, places).length > 0;
  const named = countryIn(last, places);
  if (named !== null && (country === null || country === named) && (last.length > 3 || isIn(named)))
    return { country: named, region: apart.length === 3 ? apart[1]! : null, town };
  if (apart.length === 3) return asItIs;
  // What stands behind a town of the row's country says where in it, known or not.
  if (isIn(country)) return { country, region: last, town };
  // "Portland, ME": a region of the only country that has both.
  if (country !== null) return asItIs;
  const regions = [...new Set(places.townsNamed(town).map((one) => one.country))]
    .flatMap((code) => places.regionsNamed(last, code))
    .filter((one) => isIn(one.country, one.key));
  return regions.length === 1 ? { country: regions[0]!.country, region: last, town } : asItIs;
}

/** A street with its number behind, unless that stands there already. */
function withHouse(street: string | null, house: string | null): string | null {
  if (street === null || house === null) return street ?? house;
  return street.endsWith(` ${house}`) ? street : `${street} ${house}`;
}
