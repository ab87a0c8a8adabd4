import type { Field } from './field.ts';

/** The lists of the workspace that a record of a subject is on, which every subject has. */
export function onLists(subject: string): Field {
  return {
    id: 'list',
    subject,
    section: 'standing',
    kind: 'list',
    label: 'On list',
    meaning: 'On a list of the workspace, by verdict: in, out, unsure or not judged.',
    store: { at: 'lists' },
    openers: ['on list', 'list'],
    column: null,
    files: [],
  };
}
