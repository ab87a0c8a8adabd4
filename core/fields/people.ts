import { LANGUAGE_NAMES } from '../people/languages.ts';
import { ADDRESS_STANDINGS } from '../people/standing.ts';
import { DEPARTMENTS, SHARE_BARS, words } from './companies/making.ts';
import type { Subject } from './field.ts';
import { choices, COMPANY_COLUMNS, companyColumnsOf, fieldsOf } from './related/making.ts';

/** Levels of posts, the highest first. */
export const LEVELS = ['owner', 'founder', 'director', 'head', 'manager', 'specialist'] as const;

const { label, category, number, date, text, source, checked, parties } = fieldsOf('people', 'checked');

/** People recorded at companies. */
export const people: Subject = {
  id: 'people',
  one: 'person',
  many: 'people',
  table: 'person',
  relation: { table: 'person', record: 'id', preposition: 'at', roles: [], known: 'people_known' },
  fields: [
    {
      ...label('name', 'Name', 'First name and surname.', { width: 190 }),
      files: [
        {
          id: 'name',
          label: 'Name',
          headings: words(
            'name, full name, contact, contact name, name of contact, contact person, person, jmeno, cele jmeno, nom complet, imie i nazwisko, ansprechpartner, nome e cognome, nombre completo, naam, kontaktperson, kontaktni osoba, kontaktna osoba, nazwisko i imie, interlocuteur, referente, contatto, contacto, contactpersoon, nev, kapcsolattarto, yhteyshenkilo, nimi, fullstandigt navn',
          ),
        },
        {
          id: 'first-name',
          label: 'First name',
          headings: words(
            'first name, given name, forename, vorname, krestni jmeno, meno, imie, prenom, nombre, nome, keresztnev, voornaam, fornavn, fornamn, etunimi, prenume, eesnimi, vardas, vards, ime, ad, adi',
          ),
        },
        {
          id: 'last-name',
          label: 'Last name',
          headings: words(
            'last name, surname, family name, nachname, familienname, prijmeni, priezvisko, nazwisko, nom, nom de famille, cognome, apellido, apellidos, vezeteknev, achternaam, efternavn, efternamn, etternavn, sukunimi, nume, sobrenome, apelido, perekonnanimi, pavarde, uzvards, prezime, priimek, soyad, soyadi',
          ),
        },
      ],
    },
    text('title', 'Title', 'The post as the source words it.', {
      width: 200,
      openers: 'title, words',
      headings:
        'title, job title, post, position, function, role, funktion, stelle, fonction, pozice, funkce, stanowisko, funkcja, qualifica, cargo, puesto, beosztas, functie, stilling, befattning, ruolo, carica, mansione, poste, intitule de poste, jobtitel, jobbezeichnung, stellenbezeichnung, berufsbezeichnung, taetigkeit, pracovni pozice, pracovna pozicia, titul pozice, stanowisko pracy, munkakor, functietitel, tehtavanimike, tehtava, asema, titteli, amet, pareigos, amats, unvan, gorev, jobbtitel, tittel',
    }),
    parties('company', 'Company', 'The company where the person works.', { width: 200 }),
    category(
      'department',
      'Department',
      'The department the post is in; where the source does not say, as the title tells.',
      {
        openers: 'department, in department',
        values: choices(DEPARTMENTS.join(', ')),
        headings:
          'department, function area, abteilung, bereich, oddeleni, utvar, oddelenie, dzial, service, departement, reparto, ufficio, departamento, osztaly, afdeling, avdelning, afdeling',
      },
    ),
    category(
      'level',
      'Level',
      'How high the post stands, from owner to specialist; where the source does not say, as the title tells.',
      {
        openers: 'level',
        ordered: true,
        values: choices(LEVELS.join(', ')),
        headings:
          'level, seniority, management level, rank, stufe, ebene, hierarchieebene, uroven, poziom, szczebel, niveau, livello, nivel, szint, niva',
      },
    ),
    category(
      'language',
      'Language',
      'The language that most people of the country write business letters in.',
      {
        section: 'where',
        openers: 'language, language is, writes',
        values: LANGUAGE_NAMES.map((key) => ({ key, label: key })),
      },
    ),
    date('since', 'Since', 'The day the person took the post.', {
      section: 'growth',
      openers: 'in post, since',
      headings:
        'since, start date, in post since, started, seit, depuis, od, dal, desde, sinds, siden, sedan, ota',
    }),
    label('mail', 'Mail', 'Mail address, recorded or made by the pattern of the company.', {
      width: 230,
      headings:
        'mail, email, e-mail, email address, mail address, work email, business email, mail adresse, e mail adresse, emailadresse, courriel, adresse mail, adresse email, correo, correo electronico, posta elettronica, indirizzo email, adres e mail, adres email, emailova adresa, email cim, mailadres, e mailadres, sahkoposti, e post, epost, e pasts, el pastas',
    }),
    number('certainty', 'Mail certainty', 'How likely the mail address arrives, in percent.', {
      section: 'standing',
      unit: '%',
      bars: SHARE_BARS,
      openers: 'certainty, mail certainty',
      headings: 'certainty, mail certainty, email certainty, confidence',
    }),
    category(
      'address',
      'Address',
      'Whether the mail address is known or made, and how far it is to be trusted.',
      {
        section: 'standing',
        openers: 'address, address is, mail address',
        ordered: true,
        values: ADDRESS_STANDINGS.map((key) => ({ key, label: key })),
        headings: 'address, standing of the address, mail standing',
      },
    ),
    label(
      'made-by',
      'Address made by',
      'The pattern that an address was made by, and how many at the company follow it.',
      {
        width: 210,
        headings: 'address made by',
      },
    ),
    label('phone', 'Phone', 'Direct telephone number.', {
      width: 150,
      headings:
        'phone, telephone, direct phone, mobile, tel, telefon, telefono, telefone, telefoon, telefonnummer, telefonszam, numer telefonu, puhelin, telefonas, direct dial, direct line, durchwahl, telefon geschaeftlich, ligne directe, tel direct',
    }),
    text('earlier', 'Earlier posts', 'Posts held before and where, the latest first.', {
      width: 260,
      openers: 'earlier posts, earlier post, formerly at, formerly',
      headings: 'earlier posts, career, previous posts, experience',
    }),
    checked,
    ...companyColumnsOf('people'),
    source,
  ].map((field) => (field.id === 'name' ? { ...field, files: [...field.files, ...COMPANY_COLUMNS] } : field)),
};
