import { createTransport } from 'nodemailer';
import PostalMime from 'postal-mime';
import { SMTPServer } from 'smtp-server';
import type { Log } from '../../log.ts';
import type { Db } from '../../db/open.ts';
import { OWN_SENDER } from '../mail-server.ts';
import { listenHere, portOf, sourceOf, stopServer } from '../smtp.ts';
import { answerDelay, answerOf, hostKindOf, mailboxExists, UNKNOWN_CERTAINTY } from './behaviour.ts';
import { answerSource, type Answered } from './answers.ts';

/** Seed of the demo's world of mailboxes. */
const SEED = 20_260_930;
const LOOK_MS = 250;

export interface StandInWish {
  db: Db;
  log: Log;
  /** How sure an address is, in percent, or null where nobody knows it: so often there is such a mailbox. */
  certaintyOf(mail: string): number | null;
  hastened(): boolean;
  /** Port that answers go to. */
  inbox: number;
}

/**
 * Stands in for all mail hosts of the world, on this machine alone: it takes messages over SMTP or refuses them, and what its
 * mailboxes answer comes back over SMTP. Answers that are due are kept in the database, so that they come after a restart too.
 */
export class StandIn {
  private readonly wish: StandInWish;
  private readonly server: SMTPServer;
  private readonly timer: NodeJS.Timeout;
  private readonly putOff = new Set<string>();
  private answering = false;

  private constructor(wish: StandInWish) {
    this.wish = wish;
    this.server = new SMTPServer({
      authOptional: true,
      disabledCommands: ['AUTH', 'STARTTLS'],
      size: 1_000_000,
      logger: false,
      onRcptTo: ({ address }, { envelope: { mailFrom } }, done) => {
        // What the program tells goes to one's own mailbox, which is there.
        const own = mailFrom !== false && mailFrom.address === OWN_SENDER;
        done(own ? null : this.refusal(address.toLowerCase()));
      },
      onData: (stream, session, done) => {
        sourceOf(stream).then(
          async (source) => {
            await this.take(
              source,
              session.envelope.rcptTo.map(({ address }) => address.toLowerCase()),
            );
            done();
          },
          (error: Error) => done(error),
        );
      },
    });
    this.server.on('error', (error) => wish.log.debug({ err: error }, 'The stand-in mail host'));
    this.timer = setInterval(() => void this.answer(), LOOK_MS);
    this.timer.unref();
  }

  static async start(wish: StandInWish): Promise<StandIn> {
    const host = new StandIn(wish);
    await listenHere(host.server);
    return host;
  }

  get port(): number {
    return portOf(this.server);
  }

  async stop(): Promise<void> {
    clearInterval(this.timer);
    await stopServer(this.server);
  }

  private refusal(mail: string): Error | null {
    const kind = hostKindOf(SEED, mail.split('@')[1] ?? '');
    const say = (responseCode: number, message: string) =>
      Object.assign(new Error(message), { responseCode });
    if (kind === 'puts-off' && !this.putOff.has(mail)) {
      this.putOff.add(mail);
      return say(451, '4.7.1 Come again in a while');
    }
    if (kind === 'takes-all' || this.exists(mail)) return null;
    return say(550, '5.1.1 No such mailbox here');
  }

  private exists(mail: string): boolean {
    return mailboxExists(SEED, mail, this.wish.certaintyOf(mail) ?? UNKNOWN_CERTAINTY);
  }

  private async take(source: Buffer, to: readonly string[]): Promise<void> {
    const { messageId, subject, from } = await PostalMime.parse(source);
    const sender = from && 'address' in from ? from.address : undefined;
    if (!messageId || !sender || sender === OWN_SENDER) return;
    const { db, hastened } = this.wish;
    for (const mail of to) {
      const answer = this.exists(mail) ? answerOf(SEED, mail) : 'comes-back';
      if (answer === 'none') continue;
      const due: Answered = { answer, from: mail, to: sender, subject: subject ?? '', messageId };
      db.prepare('INSERT INTO stand_in_answer (due, answer) VALUES (?, ?)').run(
        Date.now() + Math.round(answerDelay(SEED, mail, hastened())),
        JSON.stringify(due),
      );
    }
  }

  private async answer(): Promise<void> {
    if (this.answering) return;
    this.answering = true;
    const { db, inbox, log } = this.wish;
    try {
      const due = db
        .prepare<[number], { id: number; answer: string }>(
          'SELECT id, answer FROM stand_in_answer WHERE due <= ? ORDER BY due, id LIMIT 20',
        )
        .all(Date.now());
      if (due.length === 0) return;
      const post = createTransport({ host: '127.0.0.1', port: inbox, ignoreTLS: true });
      for (const { id, answer } of due) {
        const answered = JSON.parse(answer) as Answered;
        await post.sendMail({
          envelope: { from: answered.from, to: answered.to },
          raw: answerSource(answered, Date.now()),
        });
        db.prepare('DELETE FROM stand_in_answer WHERE id = ?').run(id);
      }
      post.close();
    } catch (error) {
      log.debug({ err: error }, 'The stand-in could not answer');
    } finally {
      this.answering = false;
    }
  }
}
