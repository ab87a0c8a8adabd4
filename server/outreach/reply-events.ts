import { dayOf } from '../../core/dates.ts';
import type { Mapping } from '../../core/records/mapping.ts';
import type { Db } from '../db/open.ts';
import { companyUnder } from '../tables/company-joins.ts';
import type { ReplyOf } from '../tables/outreach/replies.ts';
import { relatedWriter } from '../tables/related.ts';
import { addSource, sourceByKey } from '../tables/source.ts';

/** Replies to our messages as events of the companies they came from. */

export const REPLIES_SOURCE = 'our-messages';

const WORDS: Readonly<Record<ReplyOf['kind'], string>> = {
  answered: 'answered',
  'opted-out': 'wants no more messages, of',
};

/** How no columns are read. */
const NO_FILE: Mapping = {
  ...{ columns: [], decimal: '.', dates: 'dmy', scheme: 'nace-2.1', country: null },
  ...{ currency: 'EUR', year: 0, revenueUnit: 1 },
};

/**
 * Writes those that are no events yet, inside a transaction that the caller opens and ends with relating events. Replies from
 * companies that the universe has no more wait until it has them. Returns how many it wrote.
 */
export function writeReplyEvents(db: Db, replies: readonly ReplyOf[], asOf: number): number {
  const known = new Set(db.prepare<[], number>('SELECT reply FROM reply_event').pluck().all());
  const fresh = replies.filter(({ id }) => !known.has(id));
  if (fresh.length === 0) return 0;
  const companyOf = companyUnder(db);
  const source = sourceByKey(db, REPLIES_SOURCE) ?? addOwnSource(db, asOf);
  db.prepare('UPDATE source SET as_of = max(as_of, ?) WHERE key = ?').run(asOf, source.key);
  const writer = relatedWriter(db);
  const note = db.prepare('INSERT INTO reply_event (reply) VALUES (?)');
  let written = 0;
  for (const { id, kind, company, name, campaign, at } of fresh) {
    const held = companyOf(company);
    if (held === undefined) continue;
    writer.event(
      source.key,
      { id: held, reference: null },
      { name: `${name} ${WORDS[kind]} “${campaign}”`, kind: 'reply', date: dayOf(at.slice(0, 10)) },
    );
    note.run(id);
    written++;
  }
  return written;
}

function addOwnSource(db: Db, asOf: number) {
  return addSource(
    db,
    {
      name: 'Replies to our messages',
      ...{ fileName: null, licence: 'our own', asOf, header: [], subject: 'events' },
      mapping: NO_FILE,
    },
    REPLIES_SOURCE,
  );
}
