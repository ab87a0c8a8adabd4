import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ExportBody } from '../../contract/exports.ts';
import { formatOf } from '../../core/exports/formats.ts';
import { asOfDay } from '../days.ts';
import { prepareExport } from '../exports/make-export.ts';
import { runExport } from '../exports/run-export.ts';
import { checked } from '../http/check.ts';
import type { Services } from '../services.ts';
import { factsRevision } from '../tables/facts.ts';
import { handoverRevision } from '../tables/handover/ledger.ts';
import type { FeedRow } from '../tables/handover/programs.ts';
import { listsRevision } from '../tables/lists/changes.ts';
import { universeMark } from '../match/universe-firms.ts';
import { readSettings } from '../tables/workspace.ts';

/** What a feed gives now: made when somebody asks for it, and kept until anything it rests on changes. */

const FOLDER = 'feeds';
/** Files that are being made, so that two who ask at once wait for the same. */
const making = new Map<string, Promise<void>>();

export function wishOfFeed({ wish }: Pick<FeedRow, 'wish'>): ExportBody {
  return checked(ExportBody, JSON.parse(wish) as object);
}

/** Says whether what a feed gives is the same as before. */
export function feedTag({ universe, workspace, listsDb, handover }: Services, feed: FeedRow): string {
  const rests = [
    universeMark(universe),
    listsRevision(listsDb),
    factsRevision(workspace),
    feed.wish.includes('handed') ? handoverRevision(handover) : 0,
    asOfDay(readSettings(workspace)),
    feed.wish,
  ];
  return createHash('sha256').update(JSON.stringify(rests)).digest('base64url').slice(0, 24);
}

/** The file of a feed as it is now. */
export async function feedFile(services: Services, feed: FeedRow, tag: string): Promise<string> {
  const wish = wishOfFeed(feed);
  const folder = join(services.dir, FOLDER);
  const name = `${feed.id}-${tag}.${formatOf(wish.format).ending}`;
  const path = join(folder, name);
  if (existsSync(path)) return path;
  let work = making.get(path);
  if (!work) {
    work = (async () => {
      mkdirSync(folder, { recursive: true });
      const { data } = await prepareExport(services, wish, null);
      await runExport({ ...data, path, ledger: false });
      for (const other of readdirSync(folder))
        if (other.startsWith(`${feed.id}-`) && other !== name && !other.endsWith('.part'))
          rmSync(join(folder, other));
    })();
    making.set(path, work);
    work.finally(() => making.delete(path)).catch(() => {});
  }
  await work;
  return path;
}

/** Takes away what a feed that is no more had made. */
export function forgetFeedFiles(dir: string, id: string): void {
  const folder = join(dir, FOLDER);
  if (!existsSync(folder)) return;
  for (const file of readdirSync(folder))
    if (file.startsWith(`${id}-`)) rmSync(join(folder, file), { recursive: true, force: true });
}
