import type { Field } from './field.ts';

/** Which saved tapes a record of a subject came to pass between two runs of them, which every subject has; no record is ever unknown to it. */
export function joinedTape(subject: string): Field {
  return {
    id: 'joined',
    subject,
    section: 'standing',
    kind: 'category',
    label: 'Joined',
    meaning:
      'Saved tapes that the record passes since a run of them, and did not pass at the run before; what the first run found joined nothing.',
    store: { at: 'joined' },
    openers: ['joined'],
    column: { heading: 'Joined', width: 160, sortable: false },
    files: [],
  };
}
