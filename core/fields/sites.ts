import { PLACE_HEADINGS } from './file-headings.ts';
import type { Subject } from './field.ts';
import { choices, COMPANY_COLUMNS, companyColumnsOf, degreesOf, fieldsOf } from './related/making.ts';

export const SITE_KINDS = ['works', 'branch', 'store', 'office'] as const;

const { label, category, flag, number, place, source, checked, parties } = fieldsOf('sites', 'checked');

/** Premises of companies, the head office among them. */
export const sites: Subject = {
  id: 'sites',
  one: 'site',
  many: 'sites',
  table: 'site',
  relation: { table: 'site', record: 'id', preposition: 'of', roles: [], known: 'sites_known' },
  fields: [
    label('name', 'Site', 'What the site is called.', {
      width: 214,
      headings:
        'filialname, name der filiale, filialbezeichnung, store name, branch name, name of branch, outlet, outlet name, shop name, location name, prodejna, nazev prodejny, nom du magasin, punto vendita, nome filiale, nombre de la tienda, winkelnaam, butiksnavn, site, site name, branch, premises, name of site, provozovna, etablissement, standort, standortname, niederlassung, filiale, betriebsstaette, betriebsstatte, werk, nazev provozovny, pobocka, prevadzka, oddzial, nazwa oddzialu, zaklad, nom de l etablissement, unita locale, sede operativa, sucursal, centro de trabajo, vestiging, vestigingsnaam, telephely, toimipaikka, arbejdssted, arbetsstalle',
    }),
    parties('company', 'Company', 'The company whose site it is.', { width: 200 }),
    category('kind', 'Kind', 'What the site is used as.', {
      openers: 'kind, kind of site',
      values: choices(SITE_KINDS.join(', ')),
      headings:
        'kind, type, site kind, site type, art, druh, art des standorts, standortart, standorttyp, typ, rodzaj, type de site, tipo, tipo di sede',
    }),
    flag('head', 'Head office', 'Whether it is the head office.', {
      openers: 'head office',
      headings: 'head office, headquarters, hauptsitz, sidlo',
    }),
    {
      ...place('place', 'Place', 'Where the site is.', {
        section: 'where',
        openers: 'in, near, place',
        width: 170,
      }),
      files: [
        {
          id: 'country',
          label: 'Country',
          headings: ['site country', 'country of site', ...PLACE_HEADINGS.country],
        },
        {
          id: 'region',
          label: 'Region',
          headings: ['site region', 'region of site', ...PLACE_HEADINGS.region],
        },
        { id: 'town', label: 'Town', headings: PLACE_HEADINGS.town },
        { id: 'latitude', label: 'Latitude', headings: ['latitude', 'lat'] },
        { id: 'longitude', label: 'Longitude', headings: ['longitude', 'lon', 'lng', 'long'] },
      ],
    },
    ...degreesOf('sites'),
    label('street', 'Street', 'Street and number.', {
      section: 'where',
      width: 180,
      headings: PLACE_HEADINGS.street.join(', '),
    }),
    label('postcode', 'Postcode', 'Postal code.', {
      section: 'where',
      width: 90,
      headings: PLACE_HEADINGS.postcode.join(', '),
    }),
    number('headcount', 'Headcount', 'People who work at the site.', {
      section: 'size',
      openers: 'headcount, staff',
      headings:
        'headcount, employees, staff, mitarbeiter, mitarbeiter am standort, employees at site, employees on site, staff at site, pracownicy, zamestnanci, effectif, dipendenti, addetti, empleados, werknemers',
    }),
    label('phone', 'Phone', 'Telephone of the site.', {
      width: 150,
      headings: 'phone, telephone, tel, telefon, telefono, telefone, telefoon, telephone du site',
    }),
    checked,
    ...companyColumnsOf('sites'),
    source,
  ].map((field) => (field.id === 'name' ? { ...field, files: [...field.files, ...COMPANY_COLUMNS] } : field)),
};
