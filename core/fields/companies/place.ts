import type { Field } from '../field.ts';
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
        headings: words(
          'country, country code, land, staat, zeme, stat, kraj pochodzenia, panstwo, pays, paese, pais, orszag',
        ),
      },
      {
        id: 'region',
        label: 'Region',
        headings: words(
          'region, state, county, bundesland, kraj, wojewodztwo, departement, provincia, megye, province',
        ),
      },
      {
        id: 'town',
        label: 'Town',
        headings: words(
          'town, city, ort, stadt, mesto, obec, miasto, miejscowosc, ville, citta, comune, ciudad, varos, plaats, by, stad',
        ),
      },
      { id: 'latitude', label: 'Latitude', headings: words('latitude, lat, breitengrad, gps lat') },
      {
        id: 'longitude',
        label: 'Longitude',
        headings: words('longitude, lon, lng, long, laengengrad, gps lon'),
      },
    ],
  },
  label(
    'street',
    'Street',
    168,
    'Street and number of the head office.',
    words(
      'street, address, street address, strasse, adresse, anschrift, ulice, ulica, adres, rue, indirizzo, via, direccion, cim, straat, adresa',
    ),
  ),
  label(
    'postcode',
    'Postcode',
    92,
    'Postcode of the head office.',
    words(
      'postcode, post code, postal code, zip, zip code, plz, postleitzahl, psc, kod pocztowy, code postal, cap, codigo postal, iranyitoszam, postnummer',
    ),
  ),
];
