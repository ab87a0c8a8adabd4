/** What can be read from a page: fields of a company's file with their headings, or a heading of one's own. */
export const GATHER_FIELDS: Readonly<Record<string, string>> = {
  name: 'Company',
  street: 'Street',
  postcode: 'Postcode',
  town: 'Town',
  country: 'Country',
  phone: 'Phone',
  mail: 'Mail',
  web: 'Web',
  registration: 'Registration',
  description: 'Description',
  headcount: 'Headcount',
  founded: 'Founded',
  page: 'Page of its own',
};

/** What the sites of companies say, beside: their headings are those of any file. */
const SITE_FIELDS: Readonly<Record<string, string>> = {
  offers: 'Website offers',
  technologies: 'Technologies',
  surveyed: 'Website surveyed on',
  'site-answers': 'Website answers',
  'site-state': 'Website state',
  'site-moved-to': 'Website moved to',
  'site-checked': 'Website tried on',
};

const OWN = 'own:';

/** A field by its name, or "own:" and a heading. */
export const GATHER_FIELD = new RegExp(`^(?:${Object.keys(GATHER_FIELDS).join('|')}|${OWN}.{1,60})$`);

/** What stands above a field's column. */
export const headingOf = (field: string) =>
  field.startsWith(OWN) ? field.slice(OWN.length) : (GATHER_FIELDS[field] ?? SITE_FIELDS[field] ?? field);
