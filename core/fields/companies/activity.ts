import type { Field } from '../field.ts';
import { label, words } from './making.ts';

/** Who a company is and what it does. */
export const activity: readonly Field[] = [
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
    section: 'what',
    dated: 'checked',
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
    id: 'company',
    subject: 'companies',
    section: 'what',
    kind: 'record',
    label: 'Company',
    meaning: 'Certain companies, by key: picked by hand, or the one whose deals or people are asked for.',
    store: { at: 'key' },
    openers: ['company'],
    column: null,
    files: [],
  },
  {
    id: 'peers',
    subject: 'companies',
    section: 'what',
    kind: 'peers',
    label: 'Peers',
    meaning:
      'How alike a company is to one company, several or a list, from 0 to 1: by codes, words, technologies, size, place and channels. Parts unknown of it make the answer unknown where they could decide it.',
    store: { at: 'peers' },
    openers: ['like', 'peers of'],
    column: null,
    files: [],
  },
  {
    id: 'words',
    subject: 'companies',
    section: 'what',
    dated: 'checked',
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
];
