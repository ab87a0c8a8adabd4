import { mkdirSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { nanoid } from 'nanoid';
import { OWN_SENDER, ownMailServer, transportTo } from '../outreach/mail-server.ts';
import { deliver } from '../programs/deliver.ts';
import type { Services } from '../services.ts';
import { hookById } from '../tables/handover/programs.ts';
import { dueNotices, isSent, noteTold, tellSettings, type StoredNotice } from '../tables/runs/notices.ts';
import { NOTICES_FOLDER } from './notice-file.ts';

/** Tells by mail and webhook what is due, grouped. */

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
      ...{ from: ownMailServer(dir) ? to : OWN_SENDER, to },
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
  mkdirSync(join(dir, NOTICES_FOLDER), { recursive: true });
  const path = join(dir, NOTICES_FOLDER, `${id}.jsonl`);
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
