import { addressReader } from './whole-address.ts';
import type { Gazetteer } from '../geo/gazetteer.ts';
import { fileColumns } from '../fields/registry.ts';
import type { Firm } from '../match/firm.ts';
import { readQuantity } from '../values/figures.ts';
import { readMail, readPhone, readPostcode, readRegistration, readWeb } from '../values/identifiers.ts';
import { placeOf, readCountry } from '../values/place.ts';
import { ColumnReader } from './column-reader.ts';
import type { Mapping } from './mapping.ts';

/**
 * A reader of what the rows of a file say by which a company is known again. A cell that is not understood counts as empty: it is
 * not loaded, so that nothing wrong is kept by that. Null where a row has nothing to be known by.
 */
export function firmReader(
  header: readonly string[],
  mapping: Mapping,
  places: Gazetteer,
): (cells: readonly string[]) => Firm | null {
  const labels = new Map(fileColumns('companies').map((column) => [column.id, column.label]));
  const columns = new ColumnReader(header, { ...mapping, unreadable: 'empty' }, labels);
  let country: string | null = null;
  const read = {
    key: columns.plain('company-key'),
    name: columns.plain('name'),
    legalForm: columns.plain('legal-form'),
    registration: columns.column('registration', (cell) => readRegistration(cell, country)),
    country: columns.column('country', (cell) => readCountry(cell, places)),
    region: columns.plain('region'),
    postcode: columns.column('postcode', (cell) => readPostcode(cell, country)),
    phone: columns.column('phone', (cell) =>
      readPhone(cell, places.country(country ?? '')?.dialling ?? null),
    ),
    mail: columns.column('mail', readMail),
    web: columns.column('web', readWeb),
    headcount: columns.column('headcount', (cell) =>
      readQuantity(cell, { ...columns.style('headcount'), people: true }),
    ),
  };
  const readAddress = addressReader(columns, read.postcode, places);
  return (cells) => {
    columns.begin(cells);
    country = read.country() ?? mapping.country;
    const address = readAddress(country);
    country = address.country;
    const place = placeOf(read.region(), address.town, country, places, address.postcode);
    country = place.country;
    const firm: Firm = {
      name: read.name(),
      legalForm: read.legalForm(),
      registration: read.registration(),
      country,
      web: read.web(),
      mail: read.mail(),
      phone: read.phone(),
      street: address.street,
      postcode: address.postcode,
      town: place.town,
      lat: place.lat,
      lon: place.lon,
      headcount: read.headcount()?.point ?? null,
    };
    const { name, registration, web, mail, phone } = firm;
    const key = read.key();
    if (key !== null) return { ...firm, key };
    return (name ?? registration ?? web ?? mail ?? phone) ? firm : null;
  };
}
