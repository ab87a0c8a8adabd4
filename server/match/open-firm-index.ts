import { join } from 'node:path';
import { placeIn } from '../../core/bisect.ts';
import { FirmIndex } from '../../core/match/firm-index.ts';
import { IndexBuilder, MOST_PATCHED, type IndexParts } from '../../core/match/index-parts.ts';
import { readyFirm } from '../../core/match/firm.ts';
import type { Db } from '../db/open.ts';
import { isFreeMail } from '../free-mail.ts';
import { openArrays, saveArrays } from '../stored-arrays.ts';
import { changedSince, revisionOf, type Revision } from '../tables/revision.ts';
import { allFirms, countCompanies, firmsOf } from './universe-firms.ts';

/** Grows with each change of what is kept, or of how companies are made ready. */
const VERSION = 1;
/** Companies after which progress is told. */
const A_LOOK = 5000;

/** How far a match is. `done` of `total` of what `doing` says; may throw to end it. */
export type Told = (done: number, total: number, doing: string) => void;

type Kept = Revision & IndexParts;

export const firmIndexPath = (dir: string): string => join(dir, 'universe.firms');

/**
 * The index of a universe's companies: the one kept in its folder, with the few companies changed since made ready anew, else one
 * built by looking through all of them, which is kept for the next time.
 * @param universe in a transaction, so that it stays as it is meanwhile
 */
export function openFirmIndex(dir: string, universe: Db, told: Told): FirmIndex {
  const kept = openArrays(firmIndexPath(dir), VERSION) as Kept | null;
  const patched = kept && patch(kept, universe);
  if (patched) return patched;
  const companies = countCompanies(universe);
  const builder = new IndexBuilder();
  let passed = 0;
  for (const { id, key, firm } of allFirms(universe)) {
    if (passed++ % A_LOOK === 0) told(passed - 1, companies, 'companies looked through');
    builder.add(id, key, readyFirm(firm, isFreeMail));
  }
  const parts = builder.finish();
  try {
    saveArrays(firmIndexPath(dir), VERSION, { ...revisionOf(universe), ...parts } satisfies Kept);
  } catch {
    // Without room for it, the next match looks through all companies again.
  }
  return new FirmIndex(parts);
}

/** What is kept, with what changed since; null where that is not known, or too much. */
function patch(kept: Kept, universe: Db): FirmIndex | null {
  const changed = changedSince(universe, kept);
  if (changed === null) return null;
  const last = kept.ids.at(-1) ?? 0;
  const places = changed.map((id) => placeIn(kept.ids, id)).filter((place) => place >= 0);
  const came = firmsOf(universe, changed, last, MOST_PATCHED + 1);
  if (places.length > MOST_PATCHED || came.length > MOST_PATCHED) return null;
  const builder = new IndexBuilder();
  for (const { id, key, firm } of came) builder.add(id, key, readyFirm(firm, isFreeMail));
  return new FirmIndex(kept, new Set(places), came.length > 0 ? builder.finish() : null);
}
