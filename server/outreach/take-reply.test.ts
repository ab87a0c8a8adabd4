import { afterAll, beforeEach, describe, expect, test } from '@jest/globals';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openOutreach, type Db } from '../db/open.ts';
import { addCampaign } from '../tables/outreach/campaigns.ts';
import { addAddressed, messageById, messagesOf, type Addressed } from '../tables/outreach/messages.ts';
import { noteSent, perhapsAfterStop, putInOutbox, takeToSend } from '../tables/outreach/outbox.ts';
import { optedOut, outcomeOf } from '../tables/outreach/outcomes.ts';
import { replyById } from '../tables/outreach/replies.ts';
import { takeReply } from './take-reply.ts';

/** What follows of a message that came back, over a real database. */

const folders: string[] = [];
afterAll(() => folders.forEach((folder) => rmSync(folder, { recursive: true })));

let db: Db;
let campaign: string;
const addressed = (nth: number): Addressed => ({
  ...{ person: `person-${nth}`, company: `c-${nth}`, name: `Ann ${nth}`, title: null, companyName: 'Alder' },
  ...{ country: 'CZ', trigger: 'named' },
  draft: {
    ...{ template: 'T', language: 'en', subject: 'Air', body: 'Dear Ann', proof: null, proofText: null },
    ...{ unfilled: [], words: 2, wording: 'dear' },
  },
});
const mailOf = (nth: number) => `ann@a${nth}.example`;
const idOf = (nth: number) => `<just-tally.${nth}.abc@us.example>`;
/** Sends the message to somebody; one that is not acknowledged may have gone. */
function sent(nth: number, acknowledged = true): number {
  const { id } = messagesOf(db, campaign)[nth]!;
  putInOutbox(db, id, { mail: mailOf(nth), certainty: 97 }, 'Ilona');
  takeToSend(db, id, idOf(nth));
  if (acknowledged) noteSent(db, id);
  else perhapsAfterStop(db);
  return id;
}
const source = (lines: readonly string[], text: string) => Buffer.from([...lines, '', text].join('\r\n'));
const answer = (nth: number, text: string, more: readonly string[] = []) =>
  source(
    [`From: ${mailOf(nth)}`, 'To: us@us.example', 'Subject: Re: Air', `In-Reply-To: ${idOf(nth)}`, ...more],
    text,
  );

beforeEach(() => {
  const dir = mkdtempSync(join(tmpdir(), 'just-tally-reply-'));
  folders.push(dir);
  db = openOutreach(dir);
  campaign = addCampaign(db, {
    ...{ name: 'C', person: 'Ilona', what: '', functions: null, template: 'T', trigger: 'named' },
    ...{ certainty: 80, words: 40, quietDays: 90, askProof: false },
  });
  addAddressed(db, campaign, [0, 1, 2].map(addressed));
});

test('an answer finds its message, and confirms the address', async () => {
  const id = sent(0);
  const taken = (await takeReply(db, answer(0, 'Come on Thursday.\r\n\r\n> Dear Ann')))!;
  expect(replyById(db, taken.id)).toMatchObject({
    ...{ kind: 'answered', body: 'Come on Thursday.', sender: mailOf(0) },
    message: { id },
  });
  expect(outcomeOf(db, mailOf(0))).toMatchObject({ outcome: 'confirmed' });
});

test('who answers from another address confirms nothing of the one written to', async () => {
  sent(0);
  await takeReply(db, Buffer.from(answer(0, 'Yes').toString().replace(mailOf(0), 'boss@a0.example')));
  expect(outcomeOf(db, mailOf(0))).toBeUndefined();
});

test('an answer that names no message is of the last one to its sender', async () => {
  const id = sent(1);
  const plain = source([`From: ${mailOf(1).toUpperCase()}`, 'Subject: Hello'], 'Who are you?');
  expect(replyById(db, (await takeReply(db, plain))!.id)!.message!.id).toBe(id);
  const strange = source(['From: x@else.example', 'Subject: Hello'], 'Who are you?');
  expect(replyById(db, (await takeReply(db, strange))!.id)!.message).toBeNull();
});

test('an answer to one that was perhaps sent says that it was', async () => {
  const id = sent(0, false);
  expect(messageById(db, id)!.state).toBe('perhaps');
  await takeReply(db, answer(0, 'Yes.'));
  expect(messageById(db, id)!.state).toBe('sent');
});

test('who opts out is noted, and what waits for them is taken back', async () => {
  sent(0);
  const [, other] = messagesOf(db, campaign);
  putInOutbox(db, other!.id, { mail: mailOf(0), certainty: 97 }, 'Ilona');
  const taken = await takeReply(db, answer(0, 'No'));
  expect(taken).toMatchObject({ kind: 'opted-out', optedOut: { mail: mailOf(0), person: 'person-0' } });
  expect(optedOut(db)).toEqual({ mails: new Set([mailOf(0)]), people: new Set(['person-0']) });
  expect(messageById(db, other!.id)!.state).toBe('draft');
});

describe('a report that it could not be delivered', () => {
  const report = (status: string) =>
    source(
      [
        'From: postmaster@a0.example',
        'Subject: Returned',
        'Content-Type: multipart/report; report-type=delivery-status; boundary=b',
      ],
      [
        '--b',
        'Content-Type: text/plain',
        '',
        'It failed.',
        '--b',
        'Content-Type: message/delivery-status',
        '',
        `Status: ${status}`,
        '--b',
        'Content-Type: text/rfc822-headers',
        '',
        `Message-ID: ${idOf(0)}`,
        '--b--',
      ].join('\r\n'),
    );
  test.each([
    ['5.1.1', 'refuted'],
    ['5.2.2', undefined],
    ['4.4.1', undefined],
  ])('with status %s', async (status, outcome) => {
    const id = sent(0);
    expect((await takeReply(db, report(status)))!.kind).toBe('bounced');
    expect(messageById(db, id)!.state).toBe('bounced');
    expect(outcomeOf(db, mailOf(0))?.outcome).toBe(outcome);
  });
});

test('a message of HTML alone is read as text, and one taken twice is there once', async () => {
  sent(0);
  const html = answer(0, '<p>Come &amp; see</p><script>alert(1)</script><b>us</b>', [
    'Content-Type: text/html; charset=utf-8',
    'Message-ID: <one@a0.example>',
  ]);
  const taken = (await takeReply(db, html))!;
  const { body } = replyById(db, taken.id)!;
  expect(body).toContain('Come & see');
  expect(body).not.toContain('<');
  expect(await takeReply(db, html)).toBeNull();
});
