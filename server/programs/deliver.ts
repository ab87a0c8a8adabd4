import { constants } from 'node:fs';
import { access, copyFile, open, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { fileName } from '../../core/exports/names.ts';
import { Problem } from '../../core/tape/problem.ts';
import type { Db } from '../db/open.ts';
import {
  addDeliveries,
  allFolders,
  hookById,
  type DeliveryRow,
  type HookRow,
} from '../tables/handover/programs.ts';

/** Takes an export that is made to folders and webhooks. */

export interface Deliver {
  folders?: readonly string[];
  hooks?: readonly string[];
}

/** @throws Problem naming a folder or webhook that is not there, or that cannot take the format */
export function checkDeliver(
  db: Db,
  { folders = [], hooks = [] }: Deliver,
  format: string,
  zipped: boolean,
): void {
  const known = new Set(allFolders(db).map(({ id }) => id));
  const gone = folders.find((id) => !known.has(id)) ?? hooks.find((id) => !hookById(db, id));
  if (gone !== undefined)
    throw new Problem('unknown-target', 'A folder or webhook that this was to go to is no longer there.', {
      field: 'deliver',
      value: gone,
      rule: 'ids of folders and webhooks',
    });
  if (hooks.length && (format !== 'jsonl' || zipped))
    throw new Problem('wrong-format', 'Webhooks are posted JSON Lines, in one file.', {
      field: 'format',
      value: format,
      rule: 'jsonl, not shared out and not in a ZIP',
    });
}

/** Of where an export went, what is still there. */
export function stillThere(db: Db, { folders = [], hooks = [] }: Deliver): Deliver {
  const known = new Set(allFolders(db).map(({ id }) => id));
  return {
    folders: folders.filter((id) => known.has(id)),
    hooks: hooks.filter((id) => hookById(db, id) !== undefined),
  };
}

export interface Made {
  id: string;
  name: string;
  /** Ending of its file. */
  ending: string;
  path: string;
  rows: number;
}

/** Copies an export to its folders and puts it in line for its webhooks. What went wrong with a folder is kept beside, and is no failure of the export. */
export async function deliver(db: Db, { folders = [], hooks = [] }: Deliver, made: Made): Promise<void> {
  const now = Date.now();
  const rows: Omit<DeliveryRow, 'id' | 'attempts' | 'due_at' | 'tried_at'>[] = [];
  for (const folder of allFolders(db).filter(({ id }) => folders.includes(id))) {
    const answer = await copyTo(folder.path, made).then(
      (name) => ({ state: 'delivered' as const, answer: name }),
      (error: Error) => ({ state: 'given-up' as const, answer: error.message }),
    );
    rows.push({
      ...{ hook: null, folder: folder.id, export: made.id, nth: 1, of: 1, from_byte: 0, to_byte: 0 },
      ...{ rows: made.rows, ...answer },
    });
  }
  for (const hook of hooks.flatMap((id) => hookById(db, id) ?? [])) {
    const batches = await batchesOf(made.path, hook);
    batches.forEach(([from, to, count], i) =>
      rows.push({
        ...{ hook: hook.id, folder: null, export: made.id, nth: i + 1, of: batches.length },
        ...{ from_byte: from, to_byte: to, rows: count, state: 'waiting', answer: null },
      }),
    );
  }
  addDeliveries(db, rows, now);
}

/** Copies a file under its name with day and time, and only as a whole under that. Returns the name. */
async function copyTo(folder: string, { name, ending, path }: Made): Promise<string> {
  const trouble = await folderTrouble(folder);
  if (trouble) throw new Error(trouble);
  const now = new Date();
  const two = (n: number) => String(n).padStart(2, '0');
  const stamp = `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())} ${two(now.getHours())}${two(now.getMinutes())}${two(now.getSeconds())}`;
  const own = `${fileName(name, stamp.slice(0, 10))} ${stamp}.${ending}`;
  const partial = join(folder, `${own}.part`);
  try {
    await copyFile(path, partial);
    await rename(partial, join(folder, own));
  } catch (error) {
    await rm(partial, { force: true });
    throw error;
  }
  return own;
}

/** What is wrong with a folder that is to be written to; null where nothing is. */
export async function folderTrouble(path: string): Promise<string | null> {
  const found = await stat(path).catch(() => null);
  if (!found) return `The folder ${path} is not there.`;
  if (!found.isDirectory()) return `${path} is a file, not a folder.`;
  return access(path, constants.W_OK).then(
    () => null,
    () => `The folder ${path} cannot be written to.`,
  );
}

/** Stretches of a file of lines, so many lines each: from which byte, to which, and how many lines. */
async function batchesOf(
  path: string,
  { batch }: Pick<HookRow, 'batch'>,
): Promise<[from: number, to: number, rows: number][]> {
  const LINE_FEED = 10;
  const found: [number, number, number][] = [];
  const file = await open(path, 'r');
  try {
    const bytes = Buffer.alloc(2 ** 20);
    let [from, at, count] = [0, 0, 0];
    for (;;) {
      const { bytesRead } = await file.read(bytes, 0, bytes.length, at);
      if (bytesRead === 0) break;
      for (let i = 0; i < bytesRead; i++)
        if (bytes[i] === LINE_FEED && ++count === batch) {
          found.push([from, at + i + 1, count]);
          from = at + i + 1;
          count = 0;
        }
      at += bytesRead;
    }
    if (count) found.push([from, at, count]);
  } finally {
    await file.close();
  }
  return found;
}
