import { open } from 'node:fs/promises';
import { request as httpRequest } from 'node:http';
import { request as httpsRequest } from 'node:https';
import { Webhook } from 'standardwebhooks';
import type { Db } from '../db/open.ts';
import type { Log } from '../log.ts';
import {
  dueDeliveries,
  hookById,
  nextDue,
  noteAttempt,
  type DeliveryRow,
  type HookRow,
} from '../tables/handover/programs.ts';
import { resolved, type LookUp } from './hosts.ts';

/** Pauses before what failed is tried again, in ms: grown as the Standard Webhooks specification advises, then it is given up. */
export const PAUSES = [5e3, 30e3, 2 * 60e3, 10 * 60e3, 30 * 60e3, 2 * 3600e3, 6 * 3600e3, 12 * 3600e3];
/** Longest that an answer is waited for, in ms. */
const LONGEST = 15_000;
/** Letters of an answer that are kept. */
const KEPT = 300;
/** Longest sleep between two looks, since timers of days do not hold. */
const MOST_SLEEP = 60_000;

/** "Gone": the receiver wants no more of it. */
const GONE = 410;

export interface HookPostNeeds {
  db: Db;
  /** The file of an export. */
  fileOf(exportId: string): string | null;
  /** Where the stand-in listens. */
  standIn(): string;
  log: Log;
  pauses?: readonly number[];
  lookUp?: LookUp;
}

/** Posts what waits for webhooks, one request of each at a time, in order, until it is taken or given up. What was waiting when the program stopped goes on at its next start. */
export class HookPost {
  private readonly needs: HookPostNeeds;
  private timer: NodeJS.Timeout | null = null;
  private going: Promise<void> | null = null;
  private stopped = false;

  constructor(needs: HookPostNeeds) {
    this.needs = needs;
  }

  /** Looks for what is due, and again when the next is. */
  wake(): void {
    if (this.stopped || this.going) return;
    this.going = this.round()
      .catch((error: unknown) => this.needs.log.error({ error }, 'Webhooks could not be posted'))
      .finally(() => {
        this.going = null;
        this.sleep();
      });
  }

  async stop(): Promise<void> {
    this.stopped = true;
    if (this.timer) clearTimeout(this.timer);
    await this.going;
  }

  private sleep(): void {
    if (this.stopped) return;
    if (this.timer) clearTimeout(this.timer);
    const due = nextDue(this.needs.db);
    if (due === null) return;
    this.timer = setTimeout(() => this.wake(), Math.min(MOST_SLEEP, Math.max(0, due - Date.now())));
    this.timer.unref();
  }

  private async round(): Promise<void> {
    for (;;) {
      const due = dueDeliveries(this.needs.db, Date.now());
      if (due.length === 0 || this.stopped) return;
      // Each webhook on its own: a slow one keeps no other waiting.
      await Promise.all(due.map((one) => this.attempt(one)));
    }
  }

  private async attempt(row: DeliveryRow): Promise<void> {
    const { db, pauses = PAUSES } = this.needs;
    const hook = hookById(db, row.hook!)!;
    const { ok, forGood, answer } = await this.post(row, hook).catch((error: Error) => ({
      ok: false,
      forGood: false,
      answer: error.message,
    }));
    const now = Date.now();
    const pause = pauses[row.attempts];
    const state = ok ? 'delivered' : forGood || pause === undefined ? 'given-up' : 'waiting';
    noteAttempt(db, row.id, { state, dueAt: now + (pause ?? 0), now, answer: answer.slice(0, KEPT) });
  }

  private async post(
    row: DeliveryRow,
    hook: HookRow,
  ): Promise<{ ok: boolean; forGood: boolean; answer: string }> {
    const { db, fileOf, standIn, lookUp } = this.needs;
    const path = fileOf(row.export);
    if (path === null) return { ok: false, forGood: true, answer: 'The file of the export is gone.' };
    const body = await stretch(path, row.from_byte, row.to_byte);
    const own = hook.url === 'stand-in';
    const url = new URL(own ? standIn() : hook.url);
    const { address, family } = own ? { address: url.hostname, family: 4 } : await resolved(db, url, lookUp);
    const at = new Date();
    const headers = {
      'content-type': 'application/x-ndjson',
      'content-length': String(body.length),
      'user-agent': 'Just-Tally',
      'webhook-id': row.id,
      'webhook-timestamp': String(Math.floor(at.getTime() / 1000)),
      'webhook-signature': new Webhook(hook.secret).sign(row.id, at, body.toString('utf8')),
      'x-batch': `${row.nth}/${row.of}`,
    };
    const { status, text } = await send(url, address, family, headers, body);
    return {
      ok: status >= 200 && status < 300,
      forGood: status === GONE,
      answer: `${status}${text ? ` ${text}` : ''}`,
    };
  }
}

async function stretch(path: string, from: number, to: number): Promise<Buffer> {
  const file = await open(path, 'r');
  try {
    const bytes = Buffer.alloc(to - from);
    await file.read(bytes, 0, bytes.length, from);
    return bytes;
  } finally {
    await file.close();
  }
}

/** Sends to one address, whatever the name means by now; redirects are not followed. */
function send(
  url: URL,
  address: string,
  family: number,
  headers: Record<string, string>,
  body: Buffer,
): Promise<{ status: number; text: string }> {
  const ask = url.protocol === 'https:' ? httpsRequest : httpRequest;
  return new Promise((resolve, reject) => {
    const request = ask(
      url,
      {
        method: 'POST',
        headers,
        signal: AbortSignal.timeout(LONGEST),
        lookup: (_name, options, done) =>
          options.all
            ? (done as unknown as (error: null, found: object[]) => void)(null, [{ address, family }])
            : done(null, address, family),
      },
      (answer) => {
        let text = '';
        answer.setEncoding('utf8');
        answer.on('data', (part: string) => {
          if (text.length < KEPT) text += part;
        });
        answer.on('end', () => resolve({ status: answer.statusCode!, text: text.trim() }));
        answer.on('error', reject);
      },
    );
    request.on('error', (error: NodeJS.ErrnoException) =>
      reject(
        error.name === 'AbortError' || error.name === 'TimeoutError'
          ? new Error(`No answer within ${LONGEST / 1000} seconds.`)
          : error,
      ),
    );
    request.end(body);
  });
}
