import type { Field, Subject } from './field.ts';

const column = (name: string) => ({ at: 'column', column: name }) as const;

/** Headings written in one text, by commas. */
const words = (text: string): string[] => text.split(', ');

const label = (id: string, heading: string, width: number, meaning: string, headings: string[]): Field => ({
  id,
  subject: 'companies',
  kind: 'label',
  label: heading,
  meaning,
  store: column(id.replace('-', '_')),
  openers: [],
  column: { heading, width },
  files: [{ id, label: heading, headings }],
});

/** Everything known of a company, in the order in which a choice of fields lists them. */
const fields: readonly Field[] = [
  label(
    'name',
    'Company',
    214,
    'Name with legal form, as the freshest record has it.',
    words(
      'name, company, company name, firm, firma, firmenname, unternehmen, nazev, nazev firmy, nazwa, nazwa firmy, nom, raison sociale, entreprise, ragione sociale, nombre, razon social, cegnev, naam, bedrijfsnaam, navn, namn, obchodni jmeno',
    ),
  ),
  {
    id: 'industry',
    subject: 'companies',
    kind: 'codes',
    label: 'Industry',
    meaning: 'Industry codes: one main and up to six more, in the scheme of the source.',
    store: { at: 'codes' },
    openers: ['nace', 'nace2', 'isic', 'naics', 'sic', 'industry'],
    column: { heading: 'Main industry', width: 182 },
    files: [
      {
        id: 'main-code',
        label: 'Main code',
        headings: words(
          'nace, nace code, nace 2.1, main code, industry code, code, naics, naics code, isic, sic, sic code, branchencode, wz, wz code, cz-nace, pkd, ape, code ape, code naf, naf, ateco, codice ateco, cnae, teaor, sbi, obor',
        ),
      },
      {
        id: 'other-codes',
        label: 'Other codes',
        headings: words(
          'other codes, secondary codes, further codes, weitere codes, nebencodes, dalsi nace, vedlejsi nace, pozostale pkd, codes secondaires',
        ),
      },
    ],
  },
  {
    id: 'place',
    subject: 'companies',
    kind: 'place',
    label: 'Place',
    meaning: 'Head office: country, region, town and coordinates.',
    store: { at: 'place' },
    openers: ['in', 'near', 'place'],
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
  {
    id: 'headcount',
    subject: 'companies',
    kind: 'number',
    label: 'Headcount',
    unit: 'staff',
    meaning: 'People employed: an exact figure, a band (10-49) or an estimate with its range.',
    store: { at: 'range', stem: 'headcount' },
    openers: ['headcount', 'staff', 'employees'],
    column: { heading: 'Headcount', width: 94, numeric: true },
    files: [
      {
        id: 'headcount',
        label: 'Headcount',
        headings: words(
          'headcount, employees, number of employees, staff, mitarbeiter, mitarbeiterzahl, beschaftigte, pocet zamestnancu, zamestnanci, liczba pracownikow, zatrudnienie, effectif, effectifs, salaries, dipendenti, empleados, letszam, werknemers, ansatte, antal ansatte, anstallda',
        ),
      },
      {
        id: 'headcount-year',
        label: 'Year of headcount',
        headings: words('headcount year, year of headcount, employees year'),
      },
      { id: 'headcount-basis', label: 'Basis of headcount', headings: words('headcount basis') },
      {
        id: 'headcount-unknown',
        label: 'Why headcount is unknown',
        headings: words('headcount unknown because, headcount why'),
      },
    ],
  },
  {
    id: 'revenue',
    subject: 'companies',
    kind: 'money',
    label: 'Revenue',
    meaning: 'Revenue of the latest year known, in its own currency; reported, banded or estimated.',
    store: { at: 'range', stem: 'revenue' },
    openers: ['revenue', 'turnover', 'sales'],
    column: { heading: 'Revenue', width: 112, numeric: true },
    files: [
      {
        id: 'revenue',
        label: 'Revenue',
        headings: words(
          'revenue, turnover, sales, annual revenue, umsatz, jahresumsatz, obrat, trzby, przychody, przychod, obrot, chiffre d affaires, ca, fatturato, ricavi, facturacion, ingresos, arbevetel, omzet, omsaetning, omsattning',
        ),
      },
      {
        id: 'revenue-currency',
        label: 'Currency',
        headings: words('currency, waehrung, wahrung, mena, waluta, devise, valuta, moneda, penznem'),
      },
      {
        id: 'revenue-year',
        label: 'Year of revenue',
        headings: words(
          'revenue year, year, year of revenue, turnover year, jahr, rok, annee, anno, ano, ev',
        ),
      },
      { id: 'revenue-basis', label: 'Basis of revenue', headings: words('revenue basis') },
      {
        id: 'revenue-unknown',
        label: 'Why revenue is unknown',
        headings: words('revenue unknown because, revenue why'),
      },
    ],
  },
  {
    id: 'technology',
    subject: 'companies',
    kind: 'category',
    label: 'Technology',
    meaning:
      'Products seen by a survey of the site. Never surveyed is unknown; surveyed and not seen is a no.',
    store: { at: 'many', table: 'company_technology', value: 'technology', known: 'surveyed_on' },
    openers: ['technology', 'uses'],
    column: { heading: 'Technology', width: 200, sortable: false },
    files: [
      {
        id: 'technologies',
        label: 'Technologies',
        headings: words('technology, technologies, software, systems, technologie, tech stack'),
      },
      { id: 'surveyed', label: 'Site surveyed on', headings: words('surveyed, surveyed on, survey date') },
    ],
  },
  {
    id: 'founded',
    subject: 'companies',
    kind: 'number',
    label: 'Founded',
    meaning: 'Calendar year of founding.',
    store: column('founded'),
    openers: ['founded'],
    column: { heading: 'Founded', width: 88, numeric: true },
    files: [
      {
        id: 'founded',
        label: 'Founded',
        headings: words(
          'founded, founding year, year founded, established, gegruendet, gruendungsjahr, zalozeno, rok zalozeni, rok zalozenia, annee de creation, fondata, fundada, alapitas',
        ),
      },
    ],
  },
  {
    id: 'status',
    subject: 'companies',
    kind: 'category',
    label: 'Status',
    meaning: 'Active, dormant or closed, as the register says.',
    store: column('status'),
    openers: ['status'],
    column: { heading: 'Status', width: 88 },
    values: [
      { key: 'active', label: 'active' },
      { key: 'dormant', label: 'dormant' },
      { key: 'closed', label: 'closed' },
    ],
    files: [
      {
        id: 'status',
        label: 'Status',
        headings: words('status, stav, zustand, etat, stato, estado, allapot'),
      },
    ],
  },
  {
    id: 'legal-form',
    subject: 'companies',
    kind: 'category',
    label: 'Legal form',
    meaning: 'Legal form as written in its country.',
    store: column('legal_form'),
    openers: ['legal form', 'form'],
    column: { heading: 'Legal form', width: 108 },
    files: [
      {
        id: 'legal-form',
        label: 'Legal form',
        headings: words(
          'legal form, rechtsform, pravni forma, forma prawna, forme juridique, forma giuridica, forma juridica, rechtsvorm',
        ),
      },
    ],
  },
  {
    id: 'words',
    subject: 'companies',
    kind: 'text',
    label: 'Words',
    meaning: 'Words of the name and the description.',
    store: { at: 'words' },
    openers: ['words', 'says'],
    column: null,
    files: [],
  },
  label(
    'description',
    'Description',
    320,
    'What the company says it does.',
    words(
      'description, about, activity, beschreibung, taetigkeit, popis, cinnost, opis, description activite, descrizione, descripcion, leiras',
    ),
  ),
  label(
    'web',
    'Web',
    112,
    'Address of the site.',
    words('web, website, url, homepage, webseite, internet, www, site web, sito, domain, domena, strona'),
  ),
  label(
    'phone',
    'Phone',
    150,
    'Telephone of the head office.',
    words('phone, telephone, tel, telefon, telefonnummer, telefono, telephone number, tel.'),
  ),
  label(
    'mail',
    'Mail',
    210,
    'General mail address.',
    words('mail, email, e-mail, e mail, email address, courriel, correo'),
  ),
  label(
    'registration',
    'Registration',
    128,
    'Number in the register of its country.',
    words(
      'registration, registration number, company number, reg no, ico, ic, krs, regon, hrb, handelsregister, siren, siret, partita iva, nif, cegjegyzekszam, kvk, cvr, orgnr, registernummer',
    ),
  ),
  {
    id: 'checked',
    subject: 'companies',
    kind: 'date',
    label: 'Last checked',
    meaning: 'Day on which the freshest of its records was last checked.',
    store: column('checked_on'),
    openers: ['checked', 'last checked'],
    column: { heading: 'Last checked', width: 108 },
    files: [
      {
        id: 'checked',
        label: 'Last checked',
        headings: words(
          'checked, last checked, checked on, verified, last verified, updated, last update, geprueft, geprueft am, stand, aktualisiert, overeno, aktualizovano, sprawdzono, data aktualizacji, mis a jour, verifie le, aggiornato',
        ),
      },
    ],
  },
  {
    id: 'checked-how',
    subject: 'companies',
    kind: 'category',
    label: 'Checked by',
    meaning: 'How the freshest record was last checked.',
    store: column('checked_how'),
    openers: ['checked by'],
    column: { heading: 'Checked by', width: 104 },
    values: [
      { key: 'phone', label: 'phone' },
      { key: 'register', label: 'register' },
      { key: 'web', label: 'web' },
    ],
    files: [
      {
        id: 'checked-how',
        label: 'Checked by',
        headings: words('checked by, checked how, verified by, check'),
      },
    ],
  },
  {
    id: 'source',
    subject: 'companies',
    kind: 'category',
    label: 'Source',
    meaning: 'The loaded files and databases that have a record of the company.',
    store: { at: 'many', table: 'company_source', value: 'source', known: null },
    openers: ['source'],
    column: { heading: 'Sources', width: 180, sortable: false },
    files: [],
  },
];

export const companies: Subject = { id: 'companies', one: 'company', many: 'companies', fields };
