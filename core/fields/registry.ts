import { companies } from './companies.ts';
import type { Field, FileColumn, Subject } from './field.ts';

/** The registered subjects. A new subject is one more entry here. */
export const SUBJECTS: ReadonlyMap<string, Subject> = new Map([[companies.id, companies]]);

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
  return (SUBJECTS.get(subject)?.fields ?? []).flatMap((field) => field.files);
}
