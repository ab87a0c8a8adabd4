import type { Db } from '../db/open.ts';
import type { EngineHost } from '../engine/host.ts';
import type { ListsHost } from '../lists/host.ts';
import { followHandovers } from '../tables/handover/ledger.ts';
import { moveNotes } from '../tables/notes.ts';

/** What goes by the keys of companies. */
export interface ByKeys {
  workspace: Db;
  handover: Db;
  lists: ListsHost;
  engine: EngineHost;
}

/** What is known of companies by their keys goes to those they were joined to: notes, what was handed over, lists; and all is counted anew. */
export async function followJoins(
  { workspace, handover, lists, engine }: ByKeys,
  joined: { gone: string; key: string }[],
): Promise<void> {
  moveNotes(workspace, 'companies', joined);
  followHandovers(handover, joined);
  await lists.change('followKeys', joined);
  await engine.reload();
}
