import { words } from './companies/making.ts';

/** What columns that several subjects have are called in files, in several languages; folded. */

export const PLACE_HEADINGS = {
  country: words(
    'country, country code, страна, χώρα, країна, държава, држава, ctry, land, staat, zeme, stat, kraj pochodzenia, panstwo, pays, paese, pais, orszag, country name, country iso, iso country, laendercode, landerkurzel, krajina, kod kraju, nazione, stato estero, landcode, country of registration, land kod, maa, tara',
  ),
  region: words(
    'region, state, st, prov, provincia sigla, область, регион, περιοχή, περιφέρεια, νομός, регіон, област, county, bundesland, kraj, wojewodztwo, departement, provincia, megye, province, county or state, state province, state region, region name, kanton, canton, oblast, woj, wojewodztwo, regione, region kraj, comunidad autonoma, estado, distrito, provincie, lan, fylke, maakunta, judet, maakond, zupanija',
  ),
  town: words(
    'town, city, asukoha ehak tekstina, город, πόλη, місто, град, населено место, населённый пункт, libelle commune, libelle commune etablissement, hq, headquarters, headquarter, hq location, headquarters location, hq city, based in, ort, stadt, mesto, obec, miasto, miejscowosc, ville, citta, comune, ciudad, varos, plaats, by, stad, town city, town or city, city town, location, locality, municipality, sitz, standort, sidlo, sidlo obec, mesto obec, obec mesto, localita, localidad, cidade, municipio, gemeente, woonplaats, telepules, ort stadt, poststed, kommune, kaupunki, kunta, oras, localitate, postort, concelho, sehir, il, linn, pilseta, miestas, grad',
  ),
  street: words(
    'street, address, asukoht ettevotja aadressis, street house no, street house number, street and number, street no, strasse hausnummer, strasse nr, strasse und hausnummer, ulice a cislo, ulica i numer, addr, адрес, улица, διεύθυνση, οδός, адреса, вулиця, street address, strasse, sede legale, szekhely, postadress, besoksadress, domicilio social, siege social, adresse du siege, acik adres, adres siedziby, vestigingsadres, osoite, katuosoite, aadress, adresse, anschrift, ulice, ulica, adres, rue, indirizzo, via, direccion, cim, straat, adresa, address line 1, address 1, street and number, strasse nr, strasse und hausnummer, ulice a cp, ulice cislo, ulica nr, adresa ulice, adresse postale, via numero, calle, domicilio, morada, rua, utca, gatuadress, adress, gate, katuosoite, osoite, strada',
  ),
  postcode: words(
    'postcode, post code, индекс, почтовый индекс, τ.κ., ταχυδρομικός κώδικας, індекс, пощенски код, поштански број, postal code, zip, zip code, plz, postleitzahl, psc, kod pocztowy, code postal, cap, codigo postal, iranyitoszam, postnummer, zip postcode, zip or postcode, post zip, postal zip, cp, postkod, postnr, postinumero, cod postal, irsz',
  ),
} as const;

export const REGISTRATION_HEADINGS = words(
  'registration, registration number, ariregistri kood, regcode, reg code, registracijas numurs, p iva, piva, part iva, αφμ, αριθμός γεμη, огрн, едрпоу, єдрпоу, еик, матични број, company number, ondernemingsnummer, numero d entreprise, kbo nummer, handelsregister nr, registrikood, imones kodas, oib, eik, maticna stevilka, maticni broj, reg no, ico, ic, krs, regon, hrb, handelsregister, siren, siret, partita iva, nif, cegjegyzekszam, kvk, cvr, orgnr, registernummer, company registration number, company reg no, registered number, registration no, reg number, company no, register number, registration id, company id, national id, handelsregisternummer, hr nummer, hrb nummer, firmenbuchnummer, fn, uid, uid nummer, identifikacni cislo, ic organizace, nr krs, numer krs, numero siren, no siren, codice fiscale, cif, nipc, kvk nummer, btw nummer, adoszam, organisationsnummer, org nr, cvr nr, cvr nummer, organisasjonsnummer, y tunnus, cui, cod fiscal, vat number, vat no, ust idnr, dic',
);
