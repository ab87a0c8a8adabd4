import { mkdirSync, existsSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { nanoid } from 'nanoid';
import { dueAt } from '../../core/runs/telling.ts';
import type { Rate } from '../../core/runs/kinds.ts';
import { ownMailServer, transportTo } from '../outreach/mail-server.ts';
import { deliver } from '../programs/deliver.ts';
import type { Services } from '../services.ts';
import { hookById } from '../tables/handover/programs.ts';
import {
  addNotice,
  dueNotices,
  isSent,
  noteTold,
  tellSettings,
  type Notice,
  type StoredNotice,
} from '../tables/runs/notices.ts';

/** Tells what there is to tell: under the bell and in the feed at once, by mail and webhook at the rate asked, grouped. */

const FOLDER = 'notices';
const SENDER = 'just-tally@localhost';

/** The zone of this machine, by which digests and schedules without one go. */
export const ZONE = Intl.DateTimeFormat().resolvedOptions().timeZone;

export function tell(
  services: Pick<Services, 'runs'>,
  notice: Omit<Notice, 'dueAt'>,
  rate: Rate,
  now: number,
): void {
  if (rate === 'never') return;
  const { db } = services.runs;
  addNotice(db, { ...notice, dueAt: dueAt(rate, now, tellSettings(db).hour, ZONE) }, now);
}

/** Sends what is due: all of it in one mail, and in one post to each webhook. */
export async function sendDue(services: Services, now: number): Promise<void> {
  const { db } = services.runs;
  const due = dueNotices(db, now);
  if (due.length === 0) return;
  const troubles: string[] = [];
  const attempt = async (work: () => Promise<void>) => {
    try {
      await work();
    } catch (error) {
      troubles.push((error as Error).message);
    }
  };
  const byMail = due.filter(({ ways }) => ways.includes('mail'));
  if (byMail.length) await attempt(() => mail(services, byMail));
  for (const way of new Set(due.flatMap(({ ways }) => ways.filter((one) => isSent(one) && one !== 'mail'))))
    await attempt(() =>
      post(
        services,
        way,
        due.filter(({ ways }) => ways.includes(way)),
      ),
    );
  noteTold(
    db,
    due.map(({ id }) => id),
    now,
    troubles.length ? troubles.join(' ') : null,
  );
}

/** A digest as plain text. */
export function digestText(notices: readonly StoredNotice[]): string {
  return notices
    .map(({ title, why, items }) => [title, ...items.map((item) => `  - ${item}`), `  (${why})`].join('\n'))
    .join('\n\n');
}

async function mail({ dir, outreach, runs }: Services, notices: readonly StoredNotice[]): Promise<void> {
  const { mail: to } = tellSettings(runs.db);
  if (to === '') throw new Error('No address is set that mails go to; say one under Runs, “how I am told”.');
  const transport = transportTo(ownMailServer(dir), outreach.mailHost);
  try {
    await transport.sendMail({
      ...{ from: ownMailServer(dir) ? to : SENDER, to },
      subject:
        notices.length === 1
          ? `Just Tally: ${notices[0]!.title}`
          : `Just Tally: ${notices.length} things to tell`,
      text: digestText(notices),
    });
  } catch (error) {
    throw new Error(`The mail to ${to} was not taken: ${(error as Error).message}`, { cause: error });
  } finally {
    transport.close();
  }
}

async function post(
  { dir, handover, programs }: Services,
  hook: string,
  notices: readonly StoredNotice[],
): Promise<void> {
  if (!hookById(handover, hook)) throw new Error('A webhook that was to be told is not there any more.');
  const id = `notice-${nanoid(12)}`;
  mkdirSync(join(dir, FOLDER), { recursive: true });
  const path = join(dir, FOLDER, `${id}.jsonl`);
  await writeFile(
    path,
    notices.map(({ ways: _, trouble: __, ...notice }) => `${JSON.stringify(notice)}\n`).join(''),
  );
  await deliver(
    handover,
    { hooks: [hook] },
    { id, name: 'Notices', ending: 'jsonl', path, rows: notices.length },
  );
  programs.post.wake();
}

/** The file of what a webhook is told, by the name of its delivery; null for that of something else. */
export function noticeFile(dir: string, id: string): string | null {
  const path = join(dir, FOLDER, `${id}.jsonl`);
  return id.startsWith('notice-') && existsSync(path) ? path : null;
}
