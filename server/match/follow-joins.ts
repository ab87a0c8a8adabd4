import type { Services } from '../services.ts';
import { followHandovers } from '../tables/handover/ledger.ts';
import { moveNotes } from '../tables/notes.ts';

/** What is known of companies by their keys goes to those they were joined to: notes, what was handed over, lists; and all is counted anew. */
export async function followJoins(
  { workspace, handover, lists, engine }: Pick<Services, 'workspace' | 'handover' | 'lists' | 'engine'>,
  joined: { gone: string; key: string }[],
): Promise<void> {
  moveNotes(workspace, 'companies', joined);
  followHandovers(handover, joined);
  await lists.change('followKeys', joined);
  await engine.reload();
}
