import { headingsInLanguages } from './headings/in-languages.ts';
import { brands } from './brands.ts';
import { companies } from './companies.ts';
import { deals } from './deals.ts';
import { events } from './events.ts';
import type { Field, FileColumn, Relation, Role, Subject } from './field.ts';
import { handedOver } from './handed-over.ts';
import { joinedTape } from './joined-tape.ts';
import { onLists } from './on-lists.ts';
import { people } from './people.ts';
import { sites } from './sites.ts';

/** The registered subjects. A new subject is one more entry here. Records of every subject can be on lists. */
export const SUBJECTS: ReadonlyMap<string, Subject> = new Map(
  [companies, sites, people, brands, deals, events].map((subject) => [
    subject.id,
    {
      ...subject,
      fields: [...subject.fields, onLists(subject.id), handedOver(subject.id), joinedTape(subject.id)],
    },
  ]),
);

/** The subjects whose records hang on companies. */
export const RELATED: readonly (Subject & { relation: Relation })[] = [...SUBJECTS.values()].filter(
  (subject): subject is Subject & { relation: Relation } => subject.relation !== null,
);

/** A subject by id. @throws Error where there is none; ids from outside are checked by `validateTape`. */
export function subjectOf(id: string): Subject {
  const subject = SUBJECTS.get(id);
  if (!subject) throw new Error(`There is no subject "${id}".`);
  return subject;
}

/** What a has-line of a subject may look through to, under the name that it says: other subjects from companies, "company" from those. */
export function relationsOf(subject: string): ReadonlyMap<string, Subject> {
  const { relation } = subjectOf(subject);
  return relation === null
    ? new Map(RELATED.map((related) => [related.id, related]))
    : new Map([['company', subjectOf('companies')]]);
}

/** The roles that a has-line of a subject may name. */
export function rolesOf(subject: string, has: string): readonly Role[] {
  return (subjectOf(subject).relation ?? subjectOf(has).relation)!.roles;
}

/** One record of a subject, with its article: "a person", "an event". */
export function oneOf(subject: string): string {
  const { one } = subjectOf(subject);
  return `${/^[aeiou]/.test(one) ? 'an' : 'a'} ${one}`;
}

/** A field of a subject by id, or undefined. */
export function fieldOf(subject: string, id: string): Field | undefined {
  return SUBJECTS.get(subject)?.fields.find((field) => field.id === id);
}

/** The fields of a subject that can be a line. */
export function lineFields(subject: string): Field[] {
  return (SUBJECTS.get(subject)?.fields ?? []).filter((field) => field.openers.length > 0);
}

/** The fields of a subject that can be a column of the sheet and of an export. */
export function columnFields(subject: string): Field[] {
  return (SUBJECTS.get(subject)?.fields ?? []).filter((field) => field.column !== null);
}

/** Every column of a file that can be read for a subject. */
export function fileColumns(subject: string): FileColumn[] {
  const own = (SUBJECTS.get(subject)?.fields ?? []).flatMap((field) => field.files);
  if (subject !== 'companies') return own;
  return own.map((column) => ({
    ...column,
    headings: [...new Set([...column.headings, ...headingsInLanguages(column.id)])],
  }));
}
