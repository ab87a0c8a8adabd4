import Database from 'better-sqlite3';
import { join } from 'node:path';
import { SMTPServer } from 'smtp-server';
import type { CampaignAnswer, OutreachAnswer, PutOutAnswer } from '../contract/outreach-views.ts';
import { listenHere, portOf, sourceOf, stopServer } from '../server/outreach/smtp.ts';
import { hold, randomFrom, type Harness } from './harness.ts';
import { inFolder, pause, Program } from './program.ts';

/** Kills the program while it hands messages over: nobody may get one twice, and what it says of each must be so. */

const PEOPLE = 24;
/** How long the mail server thinks before it says that it took a message, at most. */
const THINKS_MS = 120;

/** A mail server that notes whom it took a message for. */
async function mailServer(random: () => number) {
  const took: string[] = [];
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['AUTH', 'STARTTLS'],
    onData: (stream, session, done) => {
      sourceOf(stream).then(
        async () => {
          took.push(...session.envelope.rcptTo.map(({ address }) => address));
          await pause(random() * THINKS_MS);
          done();
        },
        // A program that was killed in the middle of a message has handed none over.
        (error: Error) => done(error),
      );
    },
  });
  // A client that was killed leaves its connection in the middle.
  server.on('error', () => {});
  await listenHere(server);
  return { took, port: portOf(server), stop: () => stopServer(server) };
}

interface Written {
  mail: string;
  state: string;
}

function messagesIn(dir: string): Written[] {
  const db = new Database(join(dir, 'outreach.sqlite'), { readonly: true });
  hold(db.pragma('integrity_check', { simple: true }) === 'ok', 'outreach.sqlite is not whole');
  const found = db.prepare<[], Written>("SELECT mail, state FROM message WHERE state <> 'draft'").all();
  db.close();
  return found;
}

/** A program with people to write to through a server of one's own, and all of their messages in the outbox. */
async function written(dir: string, port: number): Promise<Program> {
  const program = await Program.started(dir);
  const load = async (name: string, content: string, more: object = {}) => {
    const { state, message } = await program.ended(await program.beginLoad(name, content, more));
    hold(state === 'done', `${name} was not loaded: ${message}`);
  };
  const companies = Array.from({ length: PEOPLE }, (_, i) => `Firm ${i} Ltd,${i + 1},GB,firm-${i}.example`);
  await load('firms', `name,registration number,country,web\n${companies.join('\n')}\n`);
  const people = Array.from(
    { length: PEOPLE },
    (_, i) => `Ann Other,firm-${i}.example,ann@firm-${i}.example`,
  );
  const read = { encoding: 'utf-8', delimiter: ',', hasHeader: true, subject: 'people' };
  await load('people', `Full name,Company domain,E-mail\n${people.join('\n')}\n`, { read });
  const { settings } = await program.get<OutreachAnswer>('/outreach');
  await program.ask('PUT', '/outreach/settings', {
    ...settings,
    ...{
      mail: 'us@here.example',
      daily: 500,
      hourly: 500,
      sameText: 500,
      from: 0,
      to: 24,
      days: [1, 2, 3, 4, 5, 6, 7],
    },
  });
  await program.ask('PUT', '/outreach/server', { host: '127.0.0.1', port });
  await program.ask('POST', '/outreach/templates', {
    name: 'T',
    subject: 'Air',
    body: 'Dear {name} of {company}',
  });
  const tape = { format: 'just-tally.tape', version: 1, subject: 'people', lines: [] };
  const made = (await program.ask('POST', '/campaigns', { name: 'All', tape })).body as CampaignAnswer;
  hold(
    made.today.length === PEOPLE,
    `${made.today.length} of ${PEOPLE} go out: ${JSON.stringify(made.roll.steps)}`,
  );
  await program.ask('POST', `/campaigns/${made.campaign.id}/seen`, { people: made.today });
  const { put } = (await program.ask('POST', `/campaigns/${made.campaign.id}/outbox`, {}))
    .body as PutOutAnswer;
  hold(put.length === PEOPLE, `${put.length} of ${PEOPLE} were put in the outbox`);
  return program;
}

export async function mail(harness: Harness, kills: number, seed: number): Promise<void> {
  const random = randomFrom(seed);
  console.log('Messages handed over while the program is killed');
  let perhaps = 0;
  await harness.check(
    `nobody is written to twice over ${kills} kills, and “sent” is true of each that says it`,
    () =>
      inFolder(async (dir) => {
        const server = await mailServer(random);
        try {
          let program = await written(dir, server.port);
          for (let kill = 0; kill < kills; kill++) {
            await pause(200 + random() * 900);
            await program.end('SIGKILL');
            program = await Program.started(dir);
          }
          for (;;) {
            const { outbox } = await program.get<OutreachAnswer>('/outreach');
            if (outbox.waiting === 0) break;
            await pause(100);
          }
          await program.end('SIGTERM');
          const twice = server.took.filter((one, at) => server.took.indexOf(one) !== at);
          hold(twice.length === 0, `Written to twice: ${twice.join(', ')}`);
          const messages = messagesIn(dir);
          hold(messages.length === PEOPLE, `${messages.length} of ${PEOPLE} messages are left`);
          for (const { mail: to, state } of messages) {
            hold(state === 'sent' || state === 'perhaps', `${to} is ${state} after the outbox is empty`);
            hold(state !== 'sent' || server.took.includes(to), `${to} is said to be sent and was not`);
            if (state === 'perhaps') perhaps++;
          }
          hold(perhaps <= kills, `${perhaps} are perhaps sent after ${kills} kills`);
        } finally {
          await server.stop();
        }
      }),
  );
  harness.figure('messages “perhaps sent”', `${perhaps} of ${PEOPLE} after ${kills} kills`);
}
