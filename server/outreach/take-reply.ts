import PostalMime from 'postal-mime';
import { backOn, ownText, replyKindOf, type ReplyKind } from '../../core/outreach/reply-kind.ts';
import type { Db } from '../db/open.ts';
import { MESSAGE, type MessageRow } from '../tables/outreach/messages.ts';
import { noteArrived, noteBounced, takeFromOutbox } from '../tables/outreach/outbox.ts';
import { noteOutcome, optOut } from '../tables/outreach/outcomes.ts';
import { addReply } from '../tables/outreach/replies.ts';

/** Message-IDs that messages of this program go by. */
export const OWN_ID = /<just-tally\.[\w.-]{1,80}@[\w.-]{1,200}>/g;
const MOST_LETTERS = 20_000;
/** A report that says so means the mailbox is there, but full or down (RFC 3463). */
const FOR_NOW = /^Status:\s*(?:4\.|5\.2\.[12])/im;

/** Somebody who wants no more of it. */
export interface OptedOut {
  person: string | null;
  mail: string;
}

export interface Taken {
  id: number;
  kind: ReplyKind;
  optedOut: OptedOut | null;
}

/**
 * Takes a message that came back: finds what it answers by the Message-ID it names, tells what it is, and does what follows of it
 * at once, in one transaction. Null where it was taken before.
 */
export async function takeReply(db: Db, source: Buffer): Promise<Taken | null> {
  const mail = await PostalMime.parse(source);
  const raw = source.toString('latin1');
  const headers = new Map(mail.headers.map(({ key, value }) => [key, value]));
  const sender = mail.from && 'address' in mail.from ? (mail.from.address ?? '') : '';
  const text = (mail.text ?? textOf(mail.html ?? '')).slice(0, MOST_LETTERS);
  const subject = (mail.subject ?? '').slice(0, 300);
  const kind = replyKindOf({ subject, text, headers });
  return db.transaction((): Taken | null => {
    const message = messageNamed(db, raw) ?? messageFrom(db, sender);
    const id = addReply(db, {
      message: message?.id ?? null,
      ...{ sender, subject, kind },
      body: kind === 'answered' || kind === 'opted-out' ? ownText(text) : text.trim(),
      backOn: kind === 'out-of-office' ? backOn(text) : null,
      incomingId: mail.messageId ?? null,
    });
    if (id === null) return null;
    return { id, kind, optedOut: follow(db, kind, message, sender, FOR_NOW.test(raw)) };
  })();
}

/** What follows of an answer for the address, the message and what still waits. */
function follow(
  db: Db,
  kind: ReplyKind,
  message: MessageRow | undefined,
  sender: string,
  forNow: boolean,
): OptedOut | null {
  const mail = message?.mail ?? null;
  if (kind === 'bounced') {
    if (!message || mail === null) return null;
    noteBounced(db, message.id, 'It came back: it could not be delivered.');
    if (!forNow) noteOutcome(db, { mail, outcome: 'refuted', how: 'a message to it came back' });
    return null;
  }
  if (message) noteArrived(db, message.id);
  if (mail !== null && sender.toLowerCase() === mail.toLowerCase())
    noteOutcome(db, { mail, outcome: 'confirmed', how: 'somebody answered from it' });
  if (kind !== 'opted-out') return null;
  return optOutOf(db, mail ?? sender, message?.person ?? null);
}

/** Notes that somebody wants no more, and takes what waits for them out of the outbox. */
export function optOutOf(db: Db, mail: string, person: string | null): OptedOut {
  optOut(db, mail, person);
  const waiting = db
    .prepare<[string, string | null], number>(
      "SELECT id FROM message WHERE state = 'outbox' AND (lower(mail) = lower(?) OR person = ?)",
    )
    .pluck()
    .all(mail, person);
  takeFromOutbox(db, waiting);
  return { person, mail };
}

function messageNamed(db: Db, raw: string): MessageRow | undefined {
  const find = db.prepare<[string], MessageRow>(`${MESSAGE} WHERE m.message_id = ?`);
  for (const [id] of raw.matchAll(OWN_ID)) {
    const found = find.get(id);
    if (found) return found;
  }
  return undefined;
}

/** Who answers in a message of its own names no other: the last message to the address is meant. */
function messageFrom(db: Db, sender: string): MessageRow | undefined {
  return db
    .prepare<[string], MessageRow>(
      `${MESSAGE} WHERE lower(m.mail) = lower(?) AND m.state IN ('sent', 'perhaps', 'bounced') ORDER BY m.sent_at DESC LIMIT 1`,
    )
    .get(sender);
}

/** The words of a message that has no plain text: tags go, nothing of it is ever shown as HTML. */
function textOf(html: string): string {
  return html
    .replace(/<(?:br|\/p|\/div)[^>]{0,200}>/gi, '\n')
    .replace(/<[^>]{0,2000}>/g, ' ')
    .replace(/&nbsp;/g, ' ')
    .replace(/&lt;/g, '<')
    .replace(/&gt;/g, '>')
    .replace(/&amp;/g, '&')
    .replace(/[ \t]+/g, ' ')
    .trim();
}
