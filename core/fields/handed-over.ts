import type { Field } from './field.ts';

/** Whom a record of a subject was handed over to by exports, which every subject has; no record is ever unknown to it. */
export function handedOver(subject: string): Field {
  return {
    id: 'handed-over',
    subject,
    section: 'standing',
    kind: 'category',
    label: 'Handed over to',
    meaning: 'Whom exports that held the record went to, and how long ago the last one did.',
    store: { at: 'handed' },
    openers: ['handed over to', 'handed to'],
    column: { heading: 'Handed over to', width: 160, sortable: false },
    files: [],
  };
}
