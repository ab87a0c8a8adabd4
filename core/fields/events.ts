import type { Subject } from './field.ts';
import { choices, COMPANY_COLUMNS, companyColumnsOf, fieldsOf } from './related/making.ts';

export const EVENT_KINDS = [
  'job-opening',
  'appointment',
  'departure',
  'move',
  'new-line',
  'certificate',
  'court',
  'news',
  'reply',
] as const;

const { category, date, text, source, parties } = fieldsOf('events', 'date');

/** What happened at companies. */
export const events: Subject = {
  id: 'events',
  one: 'event',
  many: 'events',
  table: 'event',
  relation: { table: 'event', record: 'id', preposition: 'at', roles: [], known: 'events_known' },
  fields: [
    {
      ...text('name', 'Event', 'What happened, in one line.', {
        width: 320,
        openers: 'words, says',
        headings: 'headline, event, text, news, title, what',
      }),
      files: [
        {
          id: 'name',
          label: 'Event',
          headings: [
            ...[
              'headline',
              'event',
              'text',
              'news',
              'title',
              'what',
              'what happened',
              'description',
              'ereignis',
              'meldung',
              'beschreibung',
              'udalost',
            ],
            ...[
              'popis udalosti',
              'popis',
              'titulek',
              'zprava',
              'wydarzenie',
              'opis',
              'evenement',
              'evento',
              'descrizione',
              'suceso',
            ],
          ],
        },
        ...COMPANY_COLUMNS,
      ],
    },
    category('kind', 'Kind', 'What kind of event it is.', {
      openers: 'kind, kind of event',
      values: choices(EVENT_KINDS.join(', ')),
      headings:
        'kind, type, event type, category, typ udalosti, druh udalosti, ereignisart, art des ereignisses, rodzaj wydarzenia, type d evenement, tipo di evento, tipo de evento',
    }),
    date('date', 'Date', 'The day it happened.', {
      openers: 'date, happened',
      headings:
        'date, day, datum, when, data, fecha, den, tag, data wydarzenia, datum udalosti, dato, pvm, kuupaev',
    }),
    parties('company', 'Company', 'The company where it happened.', { width: 214 }),
    ...companyColumnsOf('events'),
    source,
  ],
};
