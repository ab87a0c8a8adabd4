import type { Field, FileColumn } from '../field.ts';
import { COMPANY_KEY_COLUMN } from '../related/making.ts';
import { REGISTRATION_HEADINGS } from '../file-headings.ts';
import { column, label, words } from './making.ts';

/** A field with one more column of files beside its own. */
const alsoFrom = (field: Field, column: FileColumn): Field => ({ ...field, files: [...field.files, column] });

/** Who a company is and what it does. */
export const activity: readonly Field[] = [
  alsoFrom(
    label(
      'name',
      'Company',
      214,
      'Name with legal form, as the freshest record has it.',
      words(
        'name, company, company name, supplier name, vendor name, customer name, client name, lieferant, lieferantenname, kunde, kundenname, dodavatel, odberatel, dostawca, kontrahent, fournisseur, fornitore, proveedor, leverancier, компания, организация, наименование, название компании, название, επωνυμία, εταιρεία, компанія, назва, підприємство, фирма, наименование на фирмата, назив, назив фирме, привредно друштво, denomination unite legale, denomination usuelle, raison sociale de l entreprise, obchodne meno, nazov firmy, nazov subjektu, meno subjektu, firma adi, unvan, ticaret unvani, yritys, yrityksen nimi, ettevotte nimi, pavadinimas, nosaukums, virksomhedsnavn, foretagsnamn, firm, firma, firmenname, unternehmen, nazev, nazev firmy, nazwa, nazwa firmy, nom, raison sociale, entreprise, ragione sociale, nombre, razon social, cegnev, naam, bedrijfsnaam, navn, namn, obchodni jmeno, business name, legal name, trading name, organisation, organization, organisation name, organization name, account name, firmenbezeichnung, unternehmensname, betrieb, spolecnost, nazov, nazov spolocnosti, podnik, przedsiebiorstwo, nazwa podmiotu, societe, nom de l entreprise, denomination, denominazione, azienda, impresa, empresa, nombre de la empresa, nome, nome da empresa, bedrijf, naam bedrijf, ceg neve, ceg, cegnev, foretag, foretagsnamn, virksomhed, virksomhedsnavn, firmanavn, bedrift, yritys, yrityksen nimi, nimi, denumire, nume firma, companie',
      ),
    ),
    COMPANY_KEY_COLUMN,
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
          'pkd glowne, glowne pkd, pkd przewazajace, przewazajaca dzialalnosc, dzialalnosc glowna, fotevekenyseg, fotevekenyseg kodja, actividad principal, hoofdactiviteit, cod caen principal, industries code, industry codes code, activite principale, naeringskode1 kode, naeringskode 1, naeringskode kode, sic text, nace, nace code, nace 2.1, nacebel, nace bel, sk nace, cz nace, nace kod, kod nace, emtak, nkd, skd, kad, branchekode, naringskod, naeringskode, main code, main industry code, industry code, code, naics, naics code, isic, sic, sic code, branchencode, wz, wz code, cz-nace, pkd, ape, code ape, code naf, naf, ateco, codice ateco, cnae, teaor, sbi, obor, nace rev 2, nace rev. 2, nace rev 2.1, nace2, primary nace, primary naics, primary sic, primary code, main activity code, activity code, industry codes, sic codes, nace codes, us sic, uk sic, sic 2007, naics 2022, isic rev 4, nace kod, kod nace, kod pkd, wz 2008, wz2008, wz-code, oenace, onace, noga, sk nace, branche, branchenschluessel, wirtschaftszweig, hlavni nace, hlavni cinnost kod, glowne pkd, naf rev 2, code nace, codice nace, codigo cnae, cae, sbi code, bransjekode, branchekode, sni, sni kod, toimiala, toimialakoodi, cod caen, caen',
        ),
      },
      {
        id: 'main-scheme',
        label: 'Scheme of codes',
        headings: words(
          'nomenclature activite principale unite legale, nomenclature activite principale, industry scheme, scheme of codes, code scheme, industry code scheme',
        ),
      },
      {
        id: 'other-codes',
        label: 'Other codes',
        headings: words(
          'other codes, all industry codes, secondary codes, further codes, weitere codes, nebencodes, dalsi nace, vedlejsi nace, pozostale pkd, codes secondaires, secondary naics, secondary sic, secondary nace, additional codes, all codes, other nace',
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
      'description, about, activity, beschreibung, taetigkeit, popis, cinnost, opis, description activite, descrizione, descripcion, leiras, business description, company description, what it does, taetigkeitsbeschreibung, predmet podnikani, predmet cinnosti, popis cinnosti, opis dzialalnosci, activite, attivita, actividad, descricao, omschrijving, beskrivelse, beskrivning, kuvaus, descriere',
    ),
  ),
  label(
    'web',
    'Web',
    112,
    'Address of the site.',
    words(
      'web, website, url, homepage, webseite, internet, www, site web, sito, domain, domena, strona, website url, web address, web page, company website, internetadresse, internetseite, webova stranka, webove stranky, www stranky, strona www, strona internetowa, adres www, site internet, site, sitio web, pagina web, weboldal, honlap, hemsida, hjemmeside, nettside, kotisivu, verkkosivu, webadres',
    ),
  ),
  {
    ...label(
      'domain',
      'Domain',
      130,
      'The web address without its page: what to give to another system.',
      [],
      column('domain'),
    ),
    files: [],
  },
  label(
    'phone',
    'Phone',
    150,
    'Telephone of the head office.',
    words(
      'phone, telephone, tel, telefon, telefonnummer, telefono, telephone number, tel., phone number, telefonni cislo, telefon cislo, numer telefonu, nr telefonu, tel nr, telephone fixe, numero de telephone, teléfono, telefone, telefoonnummer, telefoon, telefonszam, telefonnr, puhelin, puhelinnumero, numar telefon',
    ),
  ),
  label(
    'mail',
    'Mail',
    210,
    'General mail address.',
    words(
      'mail, email, e-mail, e mail, email address, courriel, correo, emails, mail address, e mail adresse, mailadresse, emailova adresa, adres email, adres e mail, adresse mail, adresse email, correo electronico, posta elettronica, e postadres, e post, epost, email cim, sahkoposti, e mailadres',
    ),
  ),
  label('registration', 'Registration', 128, 'Number in the register of its country.', REGISTRATION_HEADINGS),
];
