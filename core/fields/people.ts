import { DEPARTMENTS, SHARE_BARS } from './companies/making.ts';
import type { Subject } from './field.ts';
import { choices, COMPANY_COLUMNS, fieldsOf } from './related/making.ts';

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
    label('name', 'Name', 'First name and surname.', {
      width: 190,
      headings: 'name, full name, contact, contact name, person, jmeno, nom, nazwisko',
    }),
    text('title', 'Title', 'The post as the source words it.', {
      width: 200,
      openers: 'title, words',
      headings: 'title, job title, post, position, function, funktion, fonction, pozice, stanowisko',
    }),
    parties('company', 'Company', 'The company where the person works.', { width: 200 }),
    category('department', 'Department', 'The department the post is in.', {
      openers: 'department, in department',
      values: choices(DEPARTMENTS.join(', ')),
      headings: 'department, function area, abteilung, oddeleni, dzial, service',
    }),
    category('level', 'Level', 'How high the post stands, from owner to specialist.', {
      openers: 'level',
      ordered: true,
      values: choices(LEVELS.join(', ')),
      headings: 'level, seniority, rank, stufe, uroven',
    }),
    date('since', 'Since', 'The day the person took the post.', {
      section: 'growth',
      openers: 'in post, since',
      headings: 'since, start date, in post since, started, seit',
    }),
    label('mail', 'Mail', 'Mail address, recorded or made by the pattern of the company.', {
      width: 230,
      headings: 'mail, email, e-mail, email address, mail address',
    }),
    number('certainty', 'Mail certainty', 'How likely the mail address arrives, in percent.', {
      section: 'standing',
      unit: '%',
      bars: SHARE_BARS,
      openers: 'certainty, mail certainty',
      headings: 'certainty, mail certainty, email certainty, confidence',
    }),
    label('phone', 'Phone', 'Direct telephone number.', {
      width: 150,
      headings: 'phone, telephone, direct phone, mobile, tel',
    }),
    label('earlier', 'Earlier posts', 'Posts held before, the latest first.', {
      width: 260,
      headings: 'earlier posts, career, previous posts, experience',
    }),
    checked,
    source,
  ].map((field) => (field.id === 'name' ? { ...field, files: [...field.files, ...COMPANY_COLUMNS] } : field)),
};
