import type { MessageState, MessageView, WrittenView } from '../../../contract/outreach-views.ts';
import type { Draft } from '../../../core/outreach/draft.ts';
import type { ReplyKind } from '../../../core/outreach/reply-kind.ts';
import type { TriggerWay } from '../../../core/outreach/trigger.ts';
import type { Db } from '../../db/open.ts';

/** Messages as they stand with the people of their campaigns, from draft to sent. */

export interface MessageRow {
  id: number;
  campaign: string;
  campaign_name: string;
  nth: number;
  person: string;
  company: string | null;
  name: string;
  title: string | null;
  company_name: string | null;
  country: string | null;
  mail: string | null;
  certainty: number | null;
  left_out: number;
  state: MessageState;
  template: string | null;
  language: string | null;
  trigger: TriggerWay;
  subject: string;
  body: string;
  proof: string | null;
  proof_text: string | null;
  unfilled: string;
  words: number;
  wording: string;
  edited: number;
  seen: number;
  put_at: number | null;
  put_by: string | null;
  tries: number;
  next_at: number | null;
  trouble: string | null;
  sent_at: number | null;
  message_id: string | null;
  version: number;
}

export const MESSAGE =
  'SELECT m.*, c.name AS campaign_name FROM message m JOIN campaign c ON c.id = m.campaign';

const iso = (at: number | null) => (at === null ? null : new Date(at).toISOString());

export function messageView(row: MessageRow): MessageView {
  const { id, campaign, person, name, mail, certainty, state, subject, body, words } = row;
  const { template, language, trigger, proof, version, trouble } = row;
  return {
    ...{ id, campaign, person, name, mail, certainty, state, subject, body, words },
    ...{ template, language, trigger, proof, version, trouble },
    campaignName: row.campaign_name,
    companyName: row.company_name,
    proofText: row.proof_text,
    unfilled: JSON.parse(row.unfilled) as string[],
    edited: row.edited === 1,
    seen: row.seen === 1,
    putBy: row.put_by,
    putAt: iso(row.put_at),
    sentAt: iso(row.sent_at),
  };
}

/** Somebody new of a campaign, with the draft to them. */
export interface Addressed {
  person: string;
  company: string | null;
  name: string;
  title: string | null;
  companyName: string | null;
  country: string | null;
  trigger: TriggerWay;
  draft: Draft;
}

/** The place of the last of a campaign; -1 where it has nobody. */
export function lastPlace(db: Db, campaign: string): number {
  const find = db.prepare<[string], number | null>('SELECT max(nth) FROM message WHERE campaign = ?').pluck();
  return find.get(campaign) ?? -1;
}

/** Takes so many drafts behind a place out of a campaign again; what is in the outbox or went out stays. Returns how many went. */
export function dropDraftsAfter(db: Db, campaign: string, place: number, count: number): number {
  return db
    .prepare("DELETE FROM message WHERE campaign = ? AND nth > ? AND nth <= ? AND state = 'draft'")
    .run(campaign, place, place + count).changes;
}

/** Puts people into a campaign after those there; those who are in it stay as they are. Returns how many are new. */
export function addAddressed(db: Db, campaign: string, people: readonly Addressed[]): number {
  let nth = lastPlace(db, campaign);
  const add = db.prepare(
    `INSERT OR IGNORE INTO message (campaign, nth, person, company, name, title, company_name, country, template, language, trigger,
       subject, body, proof, proof_text, unfilled, words, wording)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
  );
  return db.transaction(() => {
    let added = 0;
    for (const { person, company, name, title, companyName, country, trigger, draft } of people) {
      const { template, language, subject, body, proof, proofText, unfilled, words, wording } = draft;
      const { changes } = add.run(
        ...[
          campaign,
          nth + 1,
          person,
          company,
          name,
          title,
          companyName,
          country,
          template,
          language,
          trigger,
        ],
        ...[subject, body, proof, proofText, JSON.stringify(unfilled), words, wording],
      );
      if (changes) nth++;
      added += changes;
    }
    return added;
  })();
}

/** All of a campaign in their order. */
export function messagesOf(db: Db, campaign: string): MessageRow[] {
  return db.prepare<[string], MessageRow>(`${MESSAGE} WHERE m.campaign = ? ORDER BY m.nth`).all(campaign);
}

/** What decides how somebody of a campaign stands, without the text of their message. */
export type Standee = Pick<
  MessageRow,
  | 'id'
  | 'person'
  | 'company'
  | 'name'
  | 'title'
  | 'company_name'
  | 'country'
  | 'mail'
  | 'certainty'
  | 'left_out'
  | 'state'
  | 'proof'
  | 'unfilled'
  | 'words'
  | 'wording'
  | 'edited'
  | 'seen'
>;

/** The same of all of a campaign, in their order. */
export function standeesOf(db: Db, campaign: string): Standee[] {
  return db
    .prepare<[string], Standee>(
      `SELECT id, person, company, name, title, company_name, country, mail, certainty, left_out, state, proof, unfilled, words, wording,
         edited, seen FROM message WHERE campaign = ? ORDER BY nth`,
    )
    .all(campaign);
}

export function messageTo(db: Db, campaign: string, person: string): MessageRow | undefined {
  return db
    .prepare<[string, string], MessageRow>(`${MESSAGE} WHERE m.campaign = ? AND m.person = ?`)
    .get(campaign, person);
}

export function messageById(db: Db, id: number): MessageRow | undefined {
  return db.prepare<[number], MessageRow>(`${MESSAGE} WHERE m.id = ?`).get(id);
}

/** Writes the text of a draft; what is no draft any more stays as it is. Returns whether it was written. */
export function writeDraft(
  db: Db,
  id: number,
  draft: Draft,
  more: { trigger: TriggerWay; edited: boolean },
): boolean {
  const { template, language, subject, body, proof, proofText, unfilled, words, wording } = draft;
  return (
    db
      .prepare(
        `UPDATE message SET template = ?, language = ?, subject = ?, body = ?, proof = ?, proof_text = ?, unfilled = ?, words = ?,
           wording = ?, trigger = ?, edited = ?, version = version + 1
         WHERE id = ? AND state = 'draft'`,
      )
      .run(
        ...[template, language, subject, body, proof, proofText, JSON.stringify(unfilled), words, wording],
        ...[more.trigger, Number(more.edited), id],
      ).changes > 0
  );
}

export function markSeen(db: Db, id: number): void {
  db.prepare('UPDATE message SET seen = 1 WHERE id = ? AND seen = 0').run(id);
}

export function leaveOut(db: Db, campaign: string, people: readonly string[], leftOut: boolean): number {
  return db
    .prepare(
      `UPDATE message SET left_out = ? WHERE campaign = ? AND state = 'draft' AND left_out <> ?
         AND person IN (SELECT value FROM json_each(?))`,
    )
    .run(Number(leftOut), campaign, Number(leftOut), JSON.stringify(people)).changes;
}

/** Messages that left, or are about to, to any of some addresses or people: the latest of each address and of each person. */
export function writtenSince(
  db: Db,
  since: number,
): { mail: string; person: string; campaign: string; by: string }[] {
  return db
    .prepare<[number], { mail: string; person: string; campaign: string; by: string }>(
      `SELECT lower(mail) AS mail, person, campaign, put_by AS by FROM message
       WHERE state <> 'draft' AND mail IS NOT NULL AND COALESCE(sent_at, put_at) >= ? ORDER BY COALESCE(sent_at, put_at)`,
    )
    .all(since);
}

interface WrittenRow {
  id: number;
  person: string;
  name: string;
  campaign: string;
  by: string | null;
  at: number | null;
  state: MessageState;
  answer: ReplyKind | null;
}

const WRITTEN = `SELECT m.id, m.person, m.name, c.name AS campaign, m.put_by AS by, m.sent_at AS at, m.state,
    (SELECT r.kind FROM reply r WHERE r.message = m.id ORDER BY r.at DESC LIMIT 1) AS answer
  FROM message m JOIN campaign c ON c.id = m.campaign WHERE m.state <> 'draft'`;
const LATEST_FIRST = 'ORDER BY COALESCE(m.sent_at, m.put_at) DESC, m.id DESC';

/** What was written to a person or an address, the latest first, without one message. */
export function writtenTo(
  db: Db,
  person: string,
  mail: string | null,
  without: number | null,
): WrittenView[] {
  return db
    .prepare<[object], WrittenRow>(
      `${WRITTEN} AND (m.person = @person OR lower(m.mail) = lower(@mail)) AND m.id IS NOT @without ${LATEST_FIRST}`,
    )
    .all({ person, mail, without })
    .map(writtenView);
}

const MOST_OF_COMPANY = 200;

/** What was written to people of a company under any of its keys, the latest first. */
export function writtenToCompany(db: Db, keys: readonly string[]): WrittenView[] {
  return db
    .prepare<[string], WrittenRow>(
      `${WRITTEN} AND m.company IN (SELECT value FROM json_each(?)) ${LATEST_FIRST} LIMIT ${MOST_OF_COMPANY}`,
    )
    .all(JSON.stringify(keys))
    .map(writtenView);
}

function writtenView({ id, by, at, ...one }: WrittenRow): WrittenView {
  return { ...one, message: id, by: by ?? '', at: iso(at) };
}
