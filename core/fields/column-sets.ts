/** A named choice of columns of a subject. */
export interface ColumnSet {
  id: string;
  subject: string;
  name: string;
  columns: readonly string[];
}

const set = (subject: string, name: string, columns: string): ColumnSet => ({
  id: `ready ${subject} ${name.toLowerCase()}`,
  subject,
  name,
  columns: columns.split(' '),
});

/** The sets that ship with the program, the usual one of each subject first. */
export const READY_SETS: readonly ColumnSet[] = [
  set('companies', 'Research', 'name industry headcount revenue checked web'),
  set('companies', 'Outreach', 'name headcount management-head management-head-mail phone mail web'),
  set('companies', 'Rivals', 'name industry headcount revenue growth group listing ticker purchasing-head'),
  set('companies', 'Finance', 'name revenue profit assets revenue-per-head growth raised last-round'),
  set('companies', 'Mailing', 'name street postcode place'),
  set('sites', 'Premises', 'name kind headcount company street phone'),
  set('people', 'Contacts', 'name title department level mail certainty'),
  set('people', 'Outreach', 'name mail company'),
  set('deals', 'Deals', 'name kind date amount buyer sell-advisers'),
  set('brands', 'Brands', 'name category channel products share sold-in'),
  set('events', 'Events', 'name kind date'),
];
