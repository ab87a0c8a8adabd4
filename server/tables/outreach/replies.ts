import type { ReplyChangeBody } from '../../../contract/outreach.ts';
import type { ReplyView } from '../../../contract/outreach-views.ts';
import { REPLY_KINDS, type ReplyKind } from '../../../core/outreach/reply-kind.ts';
import type { Db } from '../../db/open.ts';
import { messageById, messageView } from './messages.ts';

/** What came back to messages. */

export interface ReplyMade {
  message: number | null;
  sender: string;
  subject: string;
  body: string;
  kind: ReplyKind;
  backOn: string | null;
  incomingId: string | null;
}

/** Keeps what came. Null where it was kept before. */
export function addReply(db: Db, reply: ReplyMade): number | null {
  const { message, sender, subject, body, kind, backOn, incomingId } = reply;
  const { changes, lastInsertRowid } = db
    .prepare(
      `INSERT OR IGNORE INTO reply (message, sender, subject, body, kind, back_on, at, incoming_id) VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
    )
    .run(message, sender, subject, body, kind, backOn, Date.now(), incomingId);
  return changes ? Number(lastInsertRowid) : null;
}

interface ReplyRow {
  id: number;
  message: number | null;
  sender: string;
  subject: string;
  body: string;
  kind: ReplyKind;
  back_on: string | null;
  at: number;
  done: number;
  meeting: number;
}

export interface RepliesWish {
  kind: ReplyKind | null;
  campaign: string | null;
  /** Only those that are not done. */
  open: boolean;
}

const FROM = `FROM reply r LEFT JOIN message m ON m.id = r.message
  WHERE (@kind IS NULL OR r.kind = @kind) AND (@campaign IS NULL OR m.campaign = @campaign) AND (NOT @open OR r.done = 0)`;

/** Replies, the latest first. */
export function repliesLike(db: Db, wish: RepliesWish, offset: number, limit: number): ReplyView[] {
  return db
    .prepare<object, ReplyRow>(`SELECT r.* ${FROM} ORDER BY r.at DESC, r.id DESC LIMIT @limit OFFSET @offset`)
    .all({ ...wish, open: Number(wish.open), limit, offset })
    .map((row) => viewOf(db, row));
}

/** How many of each kind there are of a campaign, or of all. */
export function countReplies(
  db: Db,
  { campaign, open }: Omit<RepliesWish, 'kind'>,
): Record<ReplyKind, number> {
  const counts = Object.fromEntries(REPLY_KINDS.map((kind) => [kind, 0])) as Record<ReplyKind, number>;
  for (const { kind, count } of db
    .prepare<object, { kind: ReplyKind; count: number }>(
      `SELECT r.kind, count(*) AS count ${FROM} GROUP BY r.kind`,
    )
    .all({ kind: null, campaign, open: Number(open) }))
    counts[kind] = count;
  return counts;
}

/** An answer to a message, as far as it is something that happened at a company. */
export interface ReplyOf {
  id: number;
  kind: 'answered' | 'opted-out';
  /** Key of the company written to. */
  company: string;
  name: string;
  campaign: string;
  /** ISO time. */
  at: string;
}

/** What people at companies answered, the earliest first. */
export function answersFromCompanies(db: Db): ReplyOf[] {
  return db
    .prepare<[], Omit<ReplyOf, 'at'> & { at: number }>(
      `SELECT r.id, r.kind, m.company, m.name, c.name AS campaign, r.at
       FROM reply r JOIN message m ON m.id = r.message JOIN campaign c ON c.id = m.campaign
       WHERE r.kind IN ('answered', 'opted-out') AND m.company IS NOT NULL ORDER BY r.at, r.id`,
    )
    .all()
    .map(({ at, ...one }) => ({ ...one, at: new Date(at).toISOString() }));
}

export function replyById(db: Db, id: number): ReplyView | undefined {
  const row = db.prepare<[number], ReplyRow>('SELECT * FROM reply WHERE id = ?').get(id);
  return row && viewOf(db, row);
}

export function changeReply(db: Db, id: number, { done, meeting, kind }: ReplyChangeBody): void {
  db.prepare(
    'UPDATE reply SET done = COALESCE(?, done), meeting = COALESCE(?, meeting), kind = COALESCE(?, kind) WHERE id = ?',
  ).run(
    done === undefined ? null : Number(done),
    meeting === undefined ? null : Number(meeting),
    kind ?? null,
    id,
  );
}

function viewOf(db: Db, row: ReplyRow): ReplyView {
  const { id, message, sender, subject, body, kind, back_on, at, done, meeting } = row;
  const of = message === null ? undefined : messageById(db, message);
  return {
    ...{ id, sender, subject, body, kind, backOn: back_on },
    message: of ? messageView(of) : null,
    at: new Date(at).toISOString(),
    done: done === 1,
    meeting: meeting === 1,
  };
}
