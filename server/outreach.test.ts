import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { statSync } from 'node:fs';
import { join } from 'node:path';
import { SMTPServer } from 'smtp-server';
import type {
  CampaignAnswer,
  PutOutAnswer,
  RepliesAnswer,
  WritingAnswer,
} from '../contract/outreach-views.ts';
import { openUniverse } from './db/open.ts';
import { askHost } from './outreach/ask-host.ts';
import { listenHere, portOf, sourceOf, stopServer } from './outreach/smtp.ts';
import type { RowsAnswer } from '../contract/responses.ts';
import { tape as tapeOf } from './testing/test-server.ts';
import { ANSWERING, everybody, mailboxAt, OutreachDesk, stepsOf } from './testing/outreach-desk.ts';

/** What is written to people, through the API and the real mail protocol: from the outbox to what comes back. */

const server = new OutreachDesk();
beforeAll(() => server.open(['yes', 'no', 'away', 'comes-back', 'missing', 'none', 'none', 'question']));
afterAll(() => server.stop());

describe('from drafts to what comes back', () => {
  let first: CampaignAnswer;
  let replies: RepliesAnswer;
  beforeAll(async () => {
    first = await server.campaign({ tape: ANSWERING });
    await server.sendAll(first);
    replies = await server.settled(6);
  });
  const byKind = (kind: string) => replies.replies.filter((reply) => reply.kind === kind);

  test('each answer is what it is, with its thread', () => {
    expect(replies.counts).toEqual({ answered: 2, 'out-of-office': 1, bounced: 2, 'opted-out': 1 });
    const [away] = byKind('out-of-office');
    expect(away!.backOn).toMatch(/^\d{4}-\d{2}-\d{2}$/);
    expect(away!.message!.mail).toBe(server.people[2]!.mail);
    expect(
      byKind('answered')
        .map(({ message }) => message!.mail)
        .sort(),
    ).toEqual([server.people[0]!.mail, server.people[7]!.mail].sort());
    expect(
      byKind('bounced')
        .map(({ message }) => [message!.mail, message!.state])
        .sort(),
    ).toEqual([server.people[3]!.mail, server.people[4]!.mail].sort().map((mail) => [mail, 'bounced']));
  });

  test('who said no is on the suppression list at once, and nobody is written to a second time', async () => {
    const again = await server.campaign({ tape: ANSWERING });
    expect(stepsOf(again)).toEqual({
      chosen: 8,
      refuted: -2,
      'opted-out': -1,
      'written-lately': -5,
    });
    expect(again.roll.foot).toBe(0);
    const { lists } = (await server.api.get('/api/lists')).body as {
      lists: { name: string; members: number; suppression: string }[];
    };
    expect(lists).toMatchObject([{ name: 'Opted out of messages', members: 1, suppression: 'members' }]);
    const went = await server.sendAll(again);
    expect(went.put).toEqual([]);
  });

  test('figures are of what was sent, with their interval; a meeting is marked on its reply', async () => {
    const answered = byKind('answered')[0]!;
    await server.api.patch(`/api/outreach/replies/${answered.id}`).send({ meeting: true, done: true });
    const { figures } = (await server.api.get('/api/outreach/figures?by=proof')).body as {
      figures: {
        label: string;
        sent: number;
        answered: number;
        meetings: number;
        share: { low: number; high: number };
      }[];
    };
    // Two came back; of the other six two were answered.
    expect(figures).toMatchObject([
      { label: 'Solvent in the air down by 71 %.', sent: 6, answered: 2, meetings: 1 },
    ]);
    expect(figures[0]!.share.low).toBeLessThan(1 / 3);
    expect(figures[0]!.share.high).toBeGreaterThan(1 / 3);
  });

  test('what came back is taken into the universe: the address that failed has no certainty, the one answered from is confirmed', async () => {
    expect((await server.outreach()).outcomes).toBeGreaterThan(0);
    const { job } = (await server.api.post('/api/outreach/addresses')).body as { job: { id: string } };
    expect((await server.ended(job.id)).job.state).toBe('done');
    expect((await server.outreach()).outcomes).toBe(0);
    const columns = ['mail', 'certainty', 'address'];
    for (const [test, mails] of [
      ['refuted', [server.people[3]!.mail, server.people[4]!.mail]],
      [
        'confirmed',
        [server.people[0]!.mail, server.people[1]!.mail, server.people[2]!.mail, server.people[7]!.mail],
      ],
    ] as const) {
      const { rows } = (
        await server.api.post('/api/rows').send({
          tape: everybody([{ id: 'a', field: 'address', test: { any: [test] } }]),
          columns,
        })
      ).body as { rows: { cells: { mail: string; certainty: number } }[] };
      expect(rows.map(({ cells }) => cells.mail).sort()).toEqual([...mails].sort());
      for (const { cells } of rows) expect(cells.certainty).toBe(test === 'refuted' ? 0 : 99);
    }
  });

  test('answers are events of their companies, once, and no reason to write', async () => {
    const replies = { ...tapeOf([{ id: 'a', field: 'kind', test: { any: ['reply'] } }]), subject: 'events' };
    const columns = ['name', 'company', 'source'];
    const read = async () =>
      (await server.api.post('/api/rows').send({ tape: replies, columns })).body as RowsAnswer;
    const { rows, total } = await read();
    const came = [...byKind('answered'), ...byKind('opted-out')].filter(({ message }) => message !== null);
    expect(total).toBe(came.length);
    expect(rows.map(({ cells }) => cells.company).sort()).toEqual(
      came.map(({ message }) => message!.companyName).sort(),
    );
    expect(rows.map(({ cells }) => cells.name)).toContain(
      `${byKind('opted-out')[0]!.message!.name} wants no more messages, of “${first.campaign.name}”`,
    );
    const { job } = (await server.api.post('/api/outreach/addresses')).body as { job: { id: string } };
    expect((await server.ended(job.id)).job.result).toMatchObject({ events: 0 });
    expect((await read()).total).toBe(total);
  });

  test('the page of a company says what was written to its people', async () => {
    const { message } = byKind('opted-out')[0]!;
    const somebody = { tape: everybody(), columns: ['name'], keys: [message!.person] };
    const { rows } = (await server.api.post('/api/rows').send(somebody)).body as RowsAnswer;
    const answer = await server.api.get(`/api/companies/${rows[0]!.company}/written`);
    expect(answer.body).toMatchObject({
      written: [{ person: message!.person, name: message!.name, answer: 'opted-out' }],
    });
    // What was written to one that was joined to it since is there too; of another it says nothing.
    const db = openUniverse(server.dir);
    db.prepare('INSERT INTO company_join (gone, key, how, person, at) VALUES (?, ?, ?, ?, ?)').run(
      ...[rows[0]!.company, 'CZ-joined', 'hand', 'Ilona', '2026-09-30'],
    );
    db.close();
    const joined = await server.api.get('/api/companies/CZ-joined/written');
    expect(joined.body).toMatchObject({ written: [{ person: message!.person }] });
    expect((await server.api.get('/api/companies/CZ-other/written')).body).toEqual({ written: [] });
  });

  test('the page of somebody says what was written to them', async () => {
    const person = byKind('opted-out')[0]!.message!.person;
    const answer = await server.api.get(`/api/people/${person}/written`);
    expect(answer.body).toMatchObject({
      optedOut: true,
      outcome: 'somebody answered from it',
      written: [{ campaign: first.campaign.name, state: 'sent', answer: 'opted-out' }],
    });
  });

  test('who was taken for opting out by mistake comes off that list again', async () => {
    const [reply] = byKind('opted-out');
    const kept = async () => {
      const { lists } = (await server.api.get('/api/lists')).body as {
        lists: { name: string; members: number }[];
      };
      return lists.find(({ name }) => name.startsWith('Opted out'))?.members;
    };
    const before = (await kept())!;
    const change = (kind: string) => server.api.patch(`/api/outreach/replies/${reply!.id}`).send({ kind });
    expect((await change('answered')).status).toBe(200);
    expect(await kept()).toBe(before - 1);
    expect((await change('opted-out')).status).toBe(200);
    expect(await kept()).toBe(before);
  });

  test('a campaign of which something went out is kept', async () => {
    const answer = await server.api.delete(`/api/campaigns/${first.campaign.id}`);
    expect(answer.status).toBe(409);
    expect((answer.body as { error: { message: string } }).error.message).toContain(
      'what was written to whom is kept',
    );
  });
});

describe('mail hosts are asked', () => {
  test('what each says of an address counts at once; of a host that takes anything nothing is learned', async () => {
    const one = await server.campaign({ tape: ANSWERING, name: 'Asked' });
    const people = one.roll.steps[0]!.delta;
    const answer = await server.api.post(`/api/campaigns/${one.campaign.id}/check`).send({});
    expect(answer.status).toBe(202);
    const { job } = await server.ended((answer.body as { job: { id: string } }).job.id);
    expect(job).toMatchObject({ state: 'done', result: { asked: people } });
    const { accepts, refuses } = job.result as { accepts: number; refuses: number };
    // All their hosts are honest; the two whose messages came back are not there.
    expect([accepts, refuses]).toEqual([people - 2, 2]);
    expect((await server.outreach()).outcomes).toBeGreaterThan(0);
  });
  test.each([
    ['honest', true, 'accepts'],
    ['honest', false, 'refuses'],
    ['takes-all', false, 'accepts-all'],
    ['puts-off', true, 'puts-off'],
  ] as const)('a host that is %s, of a mailbox there: %s', async (kind, there, said) => {
    const mail = mailboxAt(kind, there);
    expect(await askHost('127.0.0.1', server.mailHost, 'us@here.example', mail)).toBe(said);
  });
  test('a host that is not there does not answer', async () => {
    expect(await askHost('127.0.0.1', 1, 'us@here.example', 'a@b.example')).toBe('no-answer');
  });
});

describe('limits', () => {
  test('two windows that press send at once put each message out once', async () => {
    const [one, other] = [await server.campaign(), await server.campaign()];
    await server.api.post('/api/outreach/outbox/pause').send({ paused: true });
    const before = await server.campaignNow(one);
    expect(before.today).toHaveLength(3);
    for (const made of [one, other]) await server.see(made, before.today);
    const put = await Promise.all(
      [one, other, one, other].map(({ campaign: made }) =>
        server.api.post(`/api/campaigns/${made.id}/outbox`).send({}),
      ),
    );
    const all = put.flatMap(({ body }) => (body as PutOutAnswer).put);
    expect(new Set(all).size).toBe(all.length);
    expect(all).toHaveLength(before.today.length);
    const cancelled = await server.api.post('/api/outreach/outbox/cancel').send({ messages: all });
    expect((cancelled.body as { taken: number[] }).taken).toHaveLength(3);
    expect((await server.campaignNow(one)).today).toEqual(before.today);
    await server.api.post('/api/outreach/outbox/pause').send({ paused: false });
  });

  test('what is over today’s limit is a row of the roll', async () => {
    await server.settings({ daily: 1 });
    const one = await server.campaign();
    const answer = (await server.api.get(`/api/campaigns/${one.campaign.id}`)).body as CampaignAnswer;
    expect(answer.roll.foot).toBe(0);
    expect(answer.roll.steps.at(-1)!.label).toBe('Over today’s limit of 1');
    await server.settings({ daily: 500 });
  });

  test('nothing is sent to the world without a server of one’s own, whose settings only the owner reads', async () => {
    const came: string[] = [];
    const own = new SMTPServer({
      authOptional: true,
      disabledCommands: ['STARTTLS', 'AUTH'],
      onData: (stream, _session, done) => {
        void sourceOf(stream).then((source) => {
          came.push(source.toString());
          done();
        });
      },
    });
    await listenHere(own);
    await server.loadAs(
      'Outside',
      ['Full name,Company domain,E-mail', 'Oda World,outside.test,oda.world@outside.test'],
      'people',
    );
    const outside = await server.campaign({
      tape: everybody([{ id: 'a', field: 'source', test: { any: ['outside'] } }]),
    });
    // Nothing is known of where she works, which the template names.
    expect(stepsOf(outside)).toMatchObject({ unfilled: -1 });
    const path = `/api/campaigns/${outside.campaign.id}`;
    const { people: all } = (await server.api.get(`${path}/people`)).body as { people: { person: string }[] };
    const her = all[0]!.person;
    await server.api.put(`${path}/messages/${her}`).send({ subject: 'Air', body: 'Dear Oda, may we call?' });
    const ready = (await server.api.get(path)).body as CampaignAnswer;
    const first = await server.sendAll(ready);
    expect(first.put).toHaveLength(1);
    const message = async () =>
      ((await server.api.get(`${path}/messages/${her}`)).body as WritingAnswer).message;
    await server.settled(0);
    expect(await message()).toMatchObject({
      state: 'draft',
      trouble: expect.stringContaining('.example only') as unknown,
    });
    await server.api
      .put('/api/outreach/server')
      .send({ host: '127.0.0.1', port: portOf(own), secure: false, password: 'kept apart' });
    expect(statSync(join(server.dir, 'mail-server.json')).mode & 0o777).toBe(0o600);
    expect(JSON.stringify(await server.outreach())).not.toContain('kept apart');
    // One's own server waits for working hours.
    await server.settings({ from: 0, to: 24, days: [1, 2, 3, 4, 5, 6, 7] });
    await server.sendAll(ready);
    await server.settled(0);
    expect(await message()).toMatchObject({ state: 'sent', mail: 'oda.world@outside.test' });
    expect(came).toHaveLength(1);
    expect(came[0]).toContain('oda.world@outside.test');
    await server.api.delete('/api/outreach/server');
    await stopServer(own);
  });

  test('a message that came as a file is taken once', async () => {
    const source = [
      'From: somebody@else.example',
      'To: jonas@ternhollow.example',
      'Subject: A question',
      'Message-ID: <one@else.example>',
      '',
      'What is it that you make?',
    ].join('\r\n');
    const send = () =>
      server.api.post('/api/outreach/replies').attach('file', Buffer.from(source), 'one.eml');
    const first = await send();
    expect(first.body).toMatchObject({
      reply: { kind: 'answered', sender: 'somebody@else.example', message: null },
    });
    expect((await send()).body).toEqual({ reply: null });
  });
});
