import { COMPARED, compare, marksOf, type NameFigures } from '../../core/match/compare.ts';
import { readyFirm, type Firm, type ReadyFirm } from '../../core/match/firm.ts';
import type { RowOutcome } from '../../core/match/match-rows.ts';
import { openMatchesToFill, type Db } from '../db/open.ts';
import { stopIfCancelled, tellProgress } from '../jobs/thread.ts';
import { addMatch, type MatchMade, type MatchRowMade } from '../tables/matches/made.ts';
import type { MatchedUniverse } from './match-universe.ts';
import { isFreeMail } from '../free-mail.ts';
import { firmByKey, universeMark } from './universe-firms.ts';

/** Keeps what a match came to; part of the threads that match. */

/** A row with what was found for it; null where it was not looked for. */
export interface KeptRow {
  row: number;
  cells: string[];
  firm: Firm | null;
  twiceOf: number | null;
  found: RowOutcome<string> | null;
}

/** Tells how far a match is. @throws Cancelled */
export function tellMatching(done: number, total: number, doing: string): void {
  stopIfCancelled();
  tellProgress(done, total, doing);
}

type Said = Pick<
  MatchMade,
  'id' | 'of' | 'name' | 'fileName' | 'header' | 'mapping' | 'person' | 'rows' | 'notData' | 'precision'
>;

/** What was found for a row as it is kept: its outcome and its candidates, of the doubtful with what the best agrees in, to settle them together. */
export function foundMaker(
  universe: Db,
  { companies, ofWord }: Pick<MatchedUniverse, 'companies' | 'ofWord'>,
) {
  const names = { countOf: ofWord, companies };
  return (
    firm: Firm,
    { outcome, candidates }: RowOutcome<string>,
  ): Pick<MatchRowMade, 'candidates'> & RowFound => {
    const ready = readyFirm(firm, isFreeMail);
    return {
      outcome,
      candidates: candidates.map(({ company, chance, by }, nth) => {
        const other = nth === 0 && outcome === 'doubtful' ? firmByKey(universe, company) : null;
        const marks = other && agreement(ready, readyFirm(other, isFreeMail), names);
        return {
          ...{ key: company, chance, by },
          agrees: marks ? COMPARED.filter((field) => marks[field] === 'equal') : [],
        };
      }),
    };
  };
}

/** What two records say of each thing that is compared. */
const agreement = (a: ReadyFirm, b: ReadyFirm, names: NameFigures) => marksOf(a, b, compare(a, b, names));

type RowFound = Pick<RowOutcome<string>, 'outcome'>;

/** Writes a match in one transaction; a search for doubles takes the place of the one before. Nothing is written once it is cancelled. */
export function keepMatch(
  dir: string,
  universe: Db,
  said: Said,
  matching: MatchedUniverse,
  rows: Iterable<KeptRow>,
): void {
  const { model, limits, learning, shared, companies } = matching;
  const foundOf = foundMaker(universe, matching);
  const made = function* (): Generator<MatchRowMade> {
    for (const { found, ...row } of rows)
      yield {
        ...row,
        ...(found && row.firm
          ? foundOf(row.firm, found)
          : { outcome: row.firm === null ? ('unreadable' as const) : ('twice' as const), candidates: [] }),
      };
  };
  stopIfCancelled();
  const db = openMatchesToFill(dir);
  const match = { ...said, model, limits, learning, shared, companies };
  addMatch(db, { ...match, madeAt: Date.now(), universe: universeMark(universe) }, made());
  db.close();
}
