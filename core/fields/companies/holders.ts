import type { Field } from '../field.ts';
import { DEPARTMENTS } from './making.ts';

const holder = (department: string, column: 'name' | 'mail'): Field => ({
  id: `${department}-${column === 'name' ? 'head' : 'head-mail'}`,
  subject: 'companies',
  section: 'people',
  kind: 'label',
  label: column === 'name' ? `Head of ${department}` : `Mail of head of ${department}`,
  meaning: `${column === 'name' ? 'Name' : 'Mail address'} of the person in ${department} who stands highest.`,
  store: { at: 'holder', department, column },
  openers: [],
  column: {
    heading: column === 'name' ? `Head of ${department}` : `Mail, ${department}`,
    width: column === 'name' ? 160 : 200,
  },
  files: [],
});

/** Who runs a department, by name and by mail. Made of the people, never read from a file of companies. */
export const holders: readonly Field[] = DEPARTMENTS.flatMap((department) => [
  holder(department, 'name'),
  holder(department, 'mail'),
]);
