import type { CodeTree, Scheme } from '../../../core/codes/tree.ts';
import type { Db } from '../../db/open.ts';
import { startWorker } from '../../threads.ts';
import { changedSince, revisionOf, type Revision } from '../../tables/revision.ts';
import { buildColumns, planAll, storedFields, type BuildPlan } from './build-columns.ts';
import { assembled, buildUniverse } from './build-universe.ts';
import { sharedInt32, sharedUint32 } from './shared-arrays.ts';
import {
  openSnapshot,
  saveSnapshot,
  recordsById,
  type StoredColumn,
  type StoredUniverse,
} from './stored-universe.ts';

/** From this many companies on, two threads build the columns. */
const WORTH_A_THREAD = 30_000;
/** Above this share of companies to be read, taking over the others is not worth it. */
const WORTH_PATCHING = 0.3;

/** How the columns came about. */
export type Opened = 'snapshot' | 'patched' | 'built';

/**
 * The columns of the universe in a folder: the saved ones if they are of its present revision, else
 * the saved ones with what changed since read anew, else all built from the database. What is new is saved;
 * `unsaved` says why it could not be.
 */
export async function openColumns(
  dir: string,
  db: Db,
  trees: ReadonlyMap<Scheme, CodeTree>,
): Promise<{ universe: StoredUniverse; opened: Opened; unsaved: string | null }> {
  const saved = openSnapshot(dir);
  const now = revisionOf(db);
  if (saved?.stamp === now.stamp && saved.revision === now.revision)
    return { universe: saved, opened: 'snapshot', unsaved: null };
  const plan = saved ? planPatch(db, saved) : null;
  const universe = plan ? buildUniverse(db, trees, plan) : await buildAll(dir, db, trees);
  return { universe, opened: plan ? 'patched' : 'built', unsaved: trySaving(dir, universe) };
}

/** Saves the columns for the next start; where that fails (no space, say), counting goes on without. Returns why it failed. */
function trySaving(dir: string, universe: StoredUniverse): string | null {
  try {
    saveSnapshot(dir, universe);
    return null;
  } catch (error) {
    return (error as Error).message;
  }
}

/** Reads only the companies added, remade or removed since `earlier`; null where that is not known or too many. */
export function planPatch(db: Db, earlier: StoredUniverse): BuildPlan | null {
  const changed = changedSince(db, earlier);
  if (!changed) return null;
  const last = earlier.ids.at(-1) ?? 0;
  const there = db
    .prepare<[string], number>(
      'SELECT id FROM company WHERE id IN (SELECT value FROM json_each(?)) ORDER BY id',
    )
    .pluck();
  const remade: number[] = [];
  for (let at = 0; at < changed.length; at += 10_000)
    for (const id of there.all(JSON.stringify(changed.slice(at, at + 10_000))))
      if (id <= last) remade.push(id);
  const added = db
    .prepare<[number], number>('SELECT id FROM company WHERE id > ? ORDER BY id')
    .pluck()
    .all(last);
  if (remade.length + added.length > WORTH_PATCHING * earlier.size) return null;

  const gone = new Set(changed);
  for (const id of remade) gone.delete(id);
  const kept = earlier.ids.filter((id) => !gone.has(id));
  // A remade company was there before, or came back under an id that had been freed.
  const before = new Set(kept);
  const all = [...new Set([...kept, ...remade.filter((id) => !before.has(id))])];
  if (all.length > kept.length) all.sort((a, b) => a - b);
  const ids = sharedUint32(all.length + added.length);
  ids.set(all);
  ids.set(added, all.length);
  const recordOf = recordsById(ids);
  const from = sharedInt32(ids.length).fill(-1);
  for (let r = 0; r < earlier.ids.length; r++) {
    const now = recordOf[earlier.ids[r]!] ?? -1;
    if (now >= 0 && !gone.has(earlier.ids[r]!)) from[now] = r;
  }
  for (const id of remade) from[recordOf[id]!] = -1;
  return {
    subject: 'companies',
    table: 'company',
    size: ids.length,
    ids,
    recordOf,
    from,
    read: [...remade, ...added],
    earlier,
  };
}

export interface ColumnsWorkerData {
  dir: string;
  plan: BuildPlan;
  fields: string[];
}

export interface ColumnsWorkerReply {
  revision: Revision;
  columns: Map<string, StoredColumn>;
}

/** Builds in two threads, numbers, categories and sources in this one and all else in the other, which takes about as long. */
async function buildAll(dir: string, db: Db, trees: ReadonlyMap<Scheme, CodeTree>): Promise<StoredUniverse> {
  const plan = planAll(db);
  if (plan.size < WORTH_A_THREAD) return buildUniverse(db, trees, plan);
  const here: string[] = [];
  const there: string[] = [];
  for (const { id, kind, store } of storedFields())
    (['number', 'money', 'date'].includes(kind) || store.at === 'column' || id === 'source'
      ? here
      : there
    ).push(id);
  const worker = startWorker('server/engine/opening/columns-worker', {
    dir,
    plan,
    fields: there,
  } satisfies ColumnsWorkerData);
  const reply = new Promise<ColumnsWorkerReply>((resolve, reject) => {
    worker.once('message', resolve);
    worker.once('error', reject);
  });
  const columns = buildColumns(db, plan, trees, here);
  const { revision, columns: others } = await reply;
  const now = revisionOf(db);
  // A load that ended just between the two threads' first looks: read the rest again as this thread sees it.
  const same = revision.stamp === now.stamp && revision.revision === now.revision;
  for (const [id, column] of same ? others : buildColumns(db, plan, trees, there)) columns.set(id, column);
  return assembled(db, plan, trees, columns);
}
