import { join } from 'node:path';
import { openHandover, openLists, openRuns, openWorkspace, type Db } from '../db/open.ts';
import type { StoredUniverse } from './opening/stored-universe.ts';
import { Engine } from './engine.ts';
import { Reviewing } from './reviewing.ts';
import { recordsOfAll } from './records.ts';
import type { ReferenceData } from './universe-lookup.ts';
import { FactsReader } from './workspace-facts.ts';

/** An engine over columns that are opened, with the settings, lists and ledgers of a folder; `useChanged` reads of those what changed. */
export function openCounting(
  dir: string,
  db: Db,
  universe: StoredUniverse,
  reference: ReferenceData,
): { engine: Engine; lists: Db; useChanged(): void } {
  const records = recordsOfAll(universe, db);
  const lists = openLists(dir, { readonly: true });
  lists.prepare('ATTACH ? AS u').run(join(dir, 'universe.sqlite'));
  const facts = new FactsReader(
    openWorkspace(dir, { readonly: true }),
    lists,
    openHandover(dir, { readonly: true }),
    openRuns(dir, { readonly: true }),
    records,
    () => new Date(),
    universe,
  );
  const engine = new Engine(db, reference, universe, facts.changed()!, records);
  engine.useReview(new Reviewing(engine));
  return {
    engine,
    lists,
    useChanged: () => {
      const changed = facts.changed();
      if (changed) engine.useFacts(changed);
    },
  };
}
