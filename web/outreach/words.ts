import type { MessageState, WrittenView } from '../../contract/outreach-views.ts';
import type { ReplyKind } from '../../core/outreach/reply-kind.ts';

/** How states of messages and kinds of replies are said. */

export const STATE_WORDS: Readonly<Record<MessageState, string>> = {
  draft: 'draft',
  outbox: 'in the outbox',
  sending: 'being handed over',
  sent: 'sent',
  perhaps: 'perhaps sent',
  bounced: 'came back',
};

export const REPLY_WORDS: Readonly<Record<ReplyKind, string>> = {
  answered: 'answered',
  'out-of-office': 'out of office',
  bounced: 'came back',
  'opted-out': 'opted out',
};

/** "Spring round, by Hana, 4 May 2026: answered". */
export function writtenWords(
  { campaign, by, at, state, answer }: WrittenView,
  date: (iso: string) => string,
): string {
  const what = answer ? REPLY_WORDS[answer] : STATE_WORDS[state];
  return `${[campaign, by && `by ${by}`, at && date(at.slice(0, 10))].filter(Boolean).join(', ')}: ${what}`;
}
