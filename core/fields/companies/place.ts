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
        headings: words(
          'country, country code, land, staat, zeme, stat, kraj pochodzenia, panstwo, pays, paese, pais, orszag, country name, country iso, iso country, laendercode, landerkurzel, krajina, kod kraju, nazione, stato estero, landcode, country of registration, land kod, maa, tara',
        ),
      },
      {
        id: 'region',
        label: 'Region',
        headings: words(
          'region, state, county, bundesland, kraj, wojewodztwo, departement, provincia, megye, province, county or state, state province, state region, region name, kanton, canton, oblast, woj, wojewodztwo, regione, region kraj, comunidad autonoma, estado, distrito, provincie, lan, fylke, maakunta, judet, maakond, zupanija',
        ),
      },
      {
        id: 'town',
        label: 'Town',
        headings: words(
          'town, city, ort, stadt, mesto, obec, miasto, miejscowosc, ville, citta, comune, ciudad, varos, plaats, by, stad, town city, town or city, city town, location, locality, municipality, sitz, standort, sidlo, sidlo obec, mesto obec, obec mesto, localita, localidad, cidade, municipio, gemeente, woonplaats, telepules, ort stadt, poststed, kommune, kaupunki, kunta, oras, localitate, postort, concelho, sehir, il, linn, pilseta, miestas, grad',
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
  withHouse(
    label(
      'street',
      'Street',
      168,
      'Street and number of the head office.',
      words(
        'street, address, street address, strasse, sede legale, szekhely, postadress, besoksadress, domicilio social, siege social, adresse du siege, acik adres, adres siedziby, vestigingsadres, osoite, katuosoite, aadress, adresse, anschrift, ulice, ulica, adres, rue, indirizzo, via, direccion, cim, straat, adresa, address line 1, address 1, street and number, strasse nr, strasse und hausnummer, ulice a cp, ulice cislo, ulica nr, adresa ulice, adresse postale, via numero, calle, domicilio, morada, rua, utca, gatuadress, adress, gate, katuosoite, osoite, strada',
      ),
    ),
  ),
  label(
    'postcode',
    'Postcode',
    92,
    'Postcode of the head office.',
    words(
      'postcode, post code, postal code, zip, zip code, plz, postleitzahl, psc, kod pocztowy, code postal, cap, codigo postal, iranyitoszam, postnummer, zip postcode, zip or postcode, post zip, postal zip, cp, postkod, postnr, postinumero, cod postal, irsz',
    ),
  ),
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
