import { randomBytes } from 'node:crypto';
import type { Transporter } from 'nodemailer';
import type { MailServerBody, OutreachSettingsBody } from '../../contract/outreach.ts';
import type { OutboxState } from '../../contract/outreach-views.ts';
import { nextWorkingTime } from '../../core/outreach/hours.ts';
import type { Db } from '../db/open.ts';
import type { Log } from '../log.ts';
import type { MessageRow } from '../tables/outreach/messages.ts';
import {
  countSentSince,
  countWaiting,
  noteBounced,
  noteNotTaken,
  notePerhaps,
  noteSent,
  perhapsAfterStop,
  sentTimes,
  takeFromOutbox,
  takeToSend,
  waiting,
} from '../tables/outreach/outbox.ts';
import { allOutcomes, noteOutcome, optedOut } from '../tables/outreach/outcomes.ts';
import { addReply } from '../tables/outreach/replies.ts';
import { isPaused, readOutreachSettings } from '../tables/outreach/settings.ts';
import { handedOverOf, type HandedOver } from './handed-over.ts';
import { ownMailServer, transportTo } from './mail-server.ts';

const LOOK_MS = 400;
const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
/** A message that is put off is tried again after 5, 10, 20 … minutes; where time is hastened, of seconds. */
const FIRST_WAIT = 5;
const MOST_TRIES = 7;
/** Between two messages, so that no server takes them for a flood. */
const PAUSE_MS = 150;

/** Hands messages of the outbox over, one after the other, as limits, hours and pauses allow. */
export class Post {
  private readonly dir: string;
  private readonly db: Db;
  private readonly log: Log;
  private readonly standInPort: number;
  private timer: NodeJS.Timeout | null = null;
  private working: Promise<void> | null = null;
  private stopped = false;
  private trouble: string | null = null;

  constructor(dir: string, db: Db, log: Log, standInPort: number) {
    this.dir = dir;
    this.db = db;
    this.log = log;
    this.standInPort = standInPort;
    const perhaps = perhapsAfterStop(db);
    if (perhaps) log.warn({ messages: perhaps }, 'Messages may have gone when the program ended');
  }

  start(): void {
    this.timer = setInterval(() => this.look(), LOOK_MS);
    this.timer.unref();
  }

  /** Ends after the message that is being handed over. */
  async stop(): Promise<void> {
    this.stopped = true;
    if (this.timer) clearInterval(this.timer);
    await this.working;
  }

  state(): OutboxState {
    const settings = readOutreachSettings(this.db);
    const own = ownMailServer(this.dir);
    const next = this.next(settings, own);
    return {
      paused: isPaused(this.db),
      waiting: countWaiting(this.db),
      today: countSentSince(this.db, dayStart()),
      daily: settings.daily,
      next: next === null ? null : new Date(next.at).toISOString(),
      through: own ? { own: true, host: own.host, port: own.port, user: own.user } : { own: false },
      trouble: settings.mail === null ? NO_SENDER : this.trouble,
    };
  }

  private look(): void {
    if (this.working || this.stopped) return;
    this.working = this.work()
      .catch((error: Error) => {
        this.trouble = error.message;
        this.log.error({ err: error }, 'The outbox stands still');
      })
      .finally(() => (this.working = null));
  }

  private async work(): Promise<void> {
    if (countWaiting(this.db) === 0 || isPaused(this.db)) return;
    const own = ownMailServer(this.dir);
    const transport = transportTo(own, this.standInPort);
    try {
      for (;;) {
        const settings = readOutreachSettings(this.db);
        if (this.stopped || settings.mail === null || isPaused(this.db)) return;
        // Another server begins anew, at the next look.
        if (JSON.stringify(ownMailServer(this.dir)) !== JSON.stringify(own)) return;
        const next = this.next(settings, own);
        if (next === null || next.at > Date.now()) return;
        await this.handOver(next.message, settings, own, transport);
        await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
      }
    } finally {
      transport.close();
    }
  }

  /** The message to go next, and when it may; null where none waits. */
  private next(
    settings: OutreachSettingsBody,
    own: MailServerBody | null,
  ): { message: MessageRow; at: number } | null {
    const now = Date.now();
    const open = Math.max(now, this.limitOpens(settings));
    const hasten = settings.hasten && own === null;
    let best: { message: MessageRow; at: number } | null = null;
    const hours = new Map<string, number | null>();
    // Of many to one country the hours are looked up once.
    const working = (country: string | null, from: number) => {
      const key = `${country} ${from}`;
      if (!hours.has(key)) hours.set(key, nextWorkingTime(country, from, settings));
      return hours.get(key)!;
    };
    for (const message of waiting(this.db)) {
      const from = Math.max(open, message.next_at ?? 0);
      const at = hasten ? from : working(message.country, from);
      if (at !== null && (best === null || at < best.at)) best = { message, at };
      if (best && best.at <= now) break;
    }
    return best;
  }

  /** From when on the limits of the day and the hour leave room for one more. */
  private limitOpens({ daily, hourly }: OutreachSettingsBody): number {
    const start = dayStart();
    if (countSentSince(this.db, start) >= daily) return nextDayStart();
    const lately = sentTimes(this.db, Date.now() - HOUR);
    return lately.length < hourly ? 0 : lately[lately.length - hourly]! + HOUR;
  }

  private async handOver(
    message: MessageRow,
    settings: OutreachSettingsBody,
    own: MailServerBody | null,
    transport: Transporter,
  ): Promise<void> {
    const mail = message.mail!;
    const stop = this.stops(message, own);
    if (stop !== null) {
      takeFromOutbox(this.db, [message.id]);
      this.db.prepare('UPDATE message SET trouble = ? WHERE id = ?').run(stop, message.id);
      return;
    }
    const messageId = `<just-tally.${message.id}.${randomBytes(6).toString('hex')}@${settings.mail!.split('@')[1]}>`;
    if (!takeToSend(this.db, message.id, messageId)) return;
    let became: HandedOver;
    try {
      await transport.sendMail({
        messageId,
        from: { name: settings.sender, address: settings.mail! },
        to: { name: message.name, address: mail },
        subject: message.subject,
        text: wholeText(message.body, settings),
        // Text of users is text: nothing in it is fetched from a file or an address.
        disableFileAccess: true,
        disableUrlAccess: true,
      });
      became = { how: 'taken' };
    } catch (error) {
      became = handedOverOf(error as Error);
    }
    this.note(message, became, settings.hasten && own === null);
  }

  /** Why a message must not go after all, or null. Looked at last thing before it goes. */
  private stops({ mail, person }: MessageRow, own: MailServerBody | null): string | null {
    const lower = mail!.toLowerCase();
    const gone = optedOut(this.db);
    if (gone.mails.has(lower) || gone.people.has(person)) return 'Opted out since it was put in the outbox.';
    if (allOutcomes(this.db).get(lower)?.outcome === 'refuted')
      return 'The address came back since it was put in the outbox.';
    if (!own && !lower.endsWith('.example'))
      return 'Without a mail server of your own messages go to addresses that end in .example only.';
    return null;
  }

  private note(message: MessageRow, became: HandedOver, hastened: boolean): void {
    const { id, tries } = message;
    if (became.how === 'taken') {
      this.trouble = null;
      return noteSent(this.db, id);
    }
    if (became.how === 'perhaps') return notePerhaps(this.db, id, became.trouble);
    if (became.how === 'later' && tries + 1 < MOST_TRIES) {
      const wait = FIRST_WAIT * 2 ** tries * (hastened ? 200 : MINUTE);
      this.trouble = became.trouble;
      return noteNotTaken(this.db, id, became.trouble, Date.now() + wait);
    }
    this.db.transaction(() => {
      noteBounced(this.db, id, became.trouble);
      if (became.how === 'refused')
        noteOutcome(this.db, {
          mail: message.mail!,
          outcome: 'refuted',
          how: 'its mail host has no such mailbox',
        });
      addReply(this.db, {
        ...{
          message: id,
          sender: `postmaster@${message.mail!.split('@')[1]}`,
          kind: 'bounced',
          backOn: null,
        },
        ...{ subject: `Not taken: ${message.subject}`, body: became.trouble, incomingId: null },
      });
    })();
  }
}

const NO_SENDER = 'Nothing goes out before your own mail address is set in the settings of Outreach.';

/** A message as it goes: what was written, with the signature and the line on how to hear no more below it. */
export function wholeText(
  body: string,
  { signature, unsubscribe }: Pick<OutreachSettingsBody, 'signature' | 'unsubscribe'>,
): string {
  return [body, [signature, unsubscribe].filter(Boolean).join('\n')].filter(Boolean).join('\n\n');
}

/** Midnight that the day began with, by the clock of this machine. */
export function dayStart(): number {
  return new Date().setHours(0, 0, 0, 0);
}

function nextDayStart(): number {
  const day = new Date();
  day.setDate(day.getDate() + 1);
  return day.setHours(0, 0, 0, 0);
}
