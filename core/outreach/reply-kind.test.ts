import { describe, expect, test } from '@jest/globals';
import { backOn, ownText, replyKindOf } from './reply-kind.ts';

const kind = (subject: string, text: string, headers: Record<string, string> = {}) =>
  replyKindOf({ subject, text, headers: new Map(Object.entries(headers)) });

describe('what came back is told', () => {
  test.each([
    ['Re: Air', 'Please come on Thursday.', {}, 'answered'],
    ['Re: Air', 'Who do you know in Brno? No rush.', {}, 'answered'],
    ['Re: Air', 'No.', {}, 'opted-out'],
    ['Re: Air', 'Nein danke!\n\n> Dear Monika', {}, 'opted-out'],
    ['Re: Air', 'Please remove me from your list.', {}, 'opted-out'],
    ['Re: Air', 'Bitte keine weiteren E-Mails.', {}, 'opted-out'],
    ['Unsubscribe', '', {}, 'opted-out'],
    ['Out of the office: Air', 'I am back on 14 December 2026.', {}, 'out-of-office'],
    ['Re: Air', 'Ich bin bis 14.12.2026 im Urlaub.', {}, 'out-of-office'],
    ['Re: Air', 'thank you', { 'auto-submitted': 'auto-replied' }, 'out-of-office'],
    ['Undelivered mail returned to sender', 'no such mailbox', {}, 'bounced'],
    ['x', 'y', { 'content-type': 'multipart/report; report-type=delivery-status' }, 'bounced'],
  ] as const)('%s: %s', (subject, text, headers, what) => {
    expect(kind(subject, text, headers)).toBe(what);
  });
  test('what is quoted does not count', () => {
    const quoted = 'Gladly.\n\nOn Monday, 5 October 2026, Jonas wrote:\n> Answer “no” and unsubscribe';
    expect(kind('Re: Air', quoted)).toBe('answered');
    expect(ownText(quoted)).toBe('Gladly.');
    expect(ownText('Yes\n-- original message --\nunsubscribe')).toBe('Yes');
  });
});

test.each([
  ['away until 2026-12-14.', '2026-12-14'],
  ['im Urlaub bis 14.12.2026', '2026-12-14'],
  ['from 1 Dec 2026 to 14 December 2026', '2026-12-14'],
  ['back on 31.02.2027', null],
  ['soon', null],
])('%s says when they are back', (text, day) => {
  expect(backOn(text)).toBe(day);
});
