import { isoOf } from '../../../core/dates.ts';
import type { Answer } from './behaviour.ts';

/** What a stand-in mailbox answers, as the source of a mail message (RFC 5322). */

export interface Answered {
  answer: Exclude<Answer, 'none'>;
  /** The mailbox that answers. */
  from: string;
  to: string;
  subject: string;
  /** Message-ID of what is answered, with its angle brackets. */
  messageId: string;
}

const TEXTS: Readonly<Record<'yes' | 'question' | 'no', string>> = {
  yes: 'Thank you for your note. Please come by on Thursday at ten, and ask for me at the gate.',
  question: 'Interesting. What would that cost for a hall of 1,200 square metres?',
  no: 'No.',
};
const DAY = 86_400_000;
const AWAY_DAYS = 12;

/** @param now ms since 1970 */
export function answerSource({ answer, from, to, subject, messageId }: Answered, now: number): string {
  const id = `<answer.${messageId.replace(/[<>]/g, '')}>`;
  const head = [
    `Date: ${new Date(now).toUTCString()}`,
    `Message-ID: ${id}`,
    `In-Reply-To: ${messageId}`,
    `References: ${messageId}`,
    'MIME-Version: 1.0',
  ];
  if (answer === 'comes-back')
    return bounce(
      [`From: Mail host <postmaster@${from.split('@')[1]}>`, `To: ${to}`, ...head],
      from,
      messageId,
    );
  const away = answer === 'away';
  const back = isoOf(Math.floor(now / DAY) + AWAY_DAYS);
  const body = away
    ? `I am out of the office until ${back}. In urgent matters please ring the office.`
    : TEXTS[answer];
  return [
    `From: ${from}`,
    `To: ${to}`,
    `Subject: ${away ? 'Out of the office' : 'Re'}: ${subject}`,
    ...head,
    ...(away ? ['Auto-Submitted: auto-replied'] : []),
    'Content-Type: text/plain; charset=utf-8',
    '',
    body,
    '',
  ].join('\r\n');
}

/** A report that a message could not be delivered after all (RFC 3464). */
function bounce(head: readonly string[], mail: string, messageId: string): string {
  const line = '--------part';
  return [
    ...head.filter((one) => !/^(?:In-Reply-To|References)/.test(one)),
    'Subject: Undelivered mail returned to sender',
    'Auto-Submitted: auto-replied',
    'Content-Type: multipart/report; report-type=delivery-status; boundary="------part"',
    '',
    line,
    'Content-Type: text/plain; charset=utf-8',
    '',
    `Your message to ${mail} could not be delivered: there is no such mailbox any more.`,
    line,
    'Content-Type: message/delivery-status',
    '',
    `Reporting-MTA: dns; ${mail.split('@')[1]}`,
    '',
    `Final-Recipient: rfc822; ${mail}`,
    'Action: failed',
    'Status: 5.1.1',
    line,
    'Content-Type: text/rfc822-headers',
    '',
    `Message-ID: ${messageId}`,
    `${line}--`,
    '',
  ].join('\r\n');
}
