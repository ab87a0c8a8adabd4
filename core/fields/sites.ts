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
      headings: 'site, site name, branch, premises, name of site, provozovna, etablissement',
    }),
    parties('company', 'Company', 'The company whose site it is.', { width: 200 }),
    category('kind', 'Kind', 'What the site is used as.', {
      openers: 'kind, kind of site',
      values: choices(SITE_KINDS.join(', ')),
      headings: 'kind, type, site kind, site type, art, druh',
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
        { id: 'country', label: 'Country', headings: ['site country', 'country of site', 'country'] },
        { id: 'region', label: 'Region', headings: ['region', 'site region', 'region of site'] },
        { id: 'town', label: 'Town', headings: ['town', 'city', 'ort', 'stadt', 'mesto', 'miasto', 'ville'] },
        { id: 'latitude', label: 'Latitude', headings: ['latitude', 'lat'] },
        { id: 'longitude', label: 'Longitude', headings: ['longitude', 'lon', 'lng', 'long'] },
      ],
    },
    ...degreesOf('sites'),
    label('street', 'Street', 'Street and number.', {
      section: 'where',
      width: 180,
      headings: 'street, address, street address, strasse, ulice, ulica, rue',
    }),
    label('postcode', 'Postcode', 'Postal code.', {
      section: 'where',
      width: 90,
      headings: 'postcode, postal code, zip, plz, psc, code postal',
    }),
    number('headcount', 'Headcount', 'People who work at the site.', {
      section: 'size',
      openers: 'headcount, staff',
      headings: 'headcount, employees, staff, mitarbeiter',
    }),
    label('phone', 'Phone', 'Telephone of the site.', {
      width: 150,
      headings: 'phone, telephone, tel, telefon',
    }),
    checked,
    ...companyColumnsOf('sites'),
    source,
  ].map((field) => (field.id === 'name' ? { ...field, files: [...field.files, ...COMPANY_COLUMNS] } : field)),
};
