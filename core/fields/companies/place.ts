import { PLACE_HEADINGS } from '../file-headings.ts';
import type { Field } from '../field.ts';
import { degreesOf } from '../related/making.ts';
import { label, words } from './making.ts';

/** Where a company is. */
export const place: readonly Field[] = [
  {
    id: 'place',
    subject: 'companies',
    section: 'where',
    dated: 'checked',
    kind: 'place',
    label: 'Place',
    meaning: 'Head office: country, region, town and coordinates.',
    store: { at: 'place' },
    openers: ['in', 'near', 'metro', 'place'],
    column: { heading: 'Town', width: 168 },
    files: [
      {
        id: 'country',
        label: 'Country',
        headings: PLACE_HEADINGS.country,
      },
      {
        id: 'region',
        label: 'Region',
        headings: PLACE_HEADINGS.region,
      },
      {
        id: 'town',
        label: 'Town',
        headings: PLACE_HEADINGS.town,
      },
      { id: 'latitude', label: 'Latitude', headings: words('latitude, lat, breitengrad, gps lat') },
      {
        id: 'longitude',
        label: 'Longitude',
        headings: words('longitude, lon, lng, long, laengengrad, gps lon'),
      },
    ],
  },
  withHouse(label('street', 'Street', 168, 'Street and number of the head office.', PLACE_HEADINGS.street)),
  label('postcode', 'Postcode', 92, 'Postcode of the head office.', PLACE_HEADINGS.postcode),
  ...degreesOf('companies'),
];

/** A street whose number stands in a column of its own at times. */
function withHouse(street: Field): Field {
  const house = {
    id: 'street-number',
    label: 'House number',
    headings: words(
      'house number, house no, street number, street no, hausnummer, hausnr, haus nr, hnr, huisnummer, huisnr, numero civico, nr civico, numero de calle, numero de voie, husnummer, husnr, gatunummer, cislo popisne, cislo domu, cp co, nr domu, numer domu, nr budynku, hazszam, numar strada, talonumero, kapi no',
    ),
  };
  return { ...street, files: [...(street.files ?? []), house] };
}
