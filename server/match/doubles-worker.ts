import { workerData } from 'node:worker_threads';
import { PRECISION } from '../../core/match/outcome.ts';
import type { Mapping } from '../../core/records/mapping.ts';
import { openMatches, openUniverse } from '../db/open.ts';
import { runJob } from '../jobs/thread.ts';
import { apartPairs } from '../tables/matches/doubles.ts';
import { joinAcross } from './join-across.ts';
import { keepMatch, tellMatching, type KeptRow } from './keep-match.ts';
import { matchOwn } from './match-universe.ts';
import { firmByKey, universeMark, withoutNumber } from './universe-firms.ts';

/**
 * The thread that looks for companies which the universe has twice. Two that have a number in one register are two, so that only
 * those without a number are looked for among all others.
 */

export interface DoublesJobData extends Record<string, unknown> {
  dir: string;
  person: string;
  /** Sources of which it was asked that their companies are joined with those of others, where they surely are one. */
  across: string[];
}

export interface DoublesResult extends Record<string, unknown> {
  match: string;
  joined: { gone: string; key: string }[];
  /** Whether all was joined that was found to be. */
  joinedAll: boolean;
}

function search({ dir, person, across, job }: DoublesJobData & { job: string }): DoublesResult {
  const universe = openUniverse(dir, { readonly: true });
  universe.exec('BEGIN');
  const matches = openMatches(dir);
  const apart = apartPairs(matches);
  matches.close();
  const matching = matchOwn(
    { dir, universe, told: tellMatching },
    withoutNumber(universe),
    PRECISION,
    (key, other) => apart.has([key, other].sort().join(' ')),
  );
  const kept = function* (): Generator<KeptRow> {
    for (const [i, found] of matching.rows.entries()) {
      const key = matching.keys(i);
      yield { row: i + 1, cells: [key], firm: firmByKey(universe, key), twiceOf: null, found };
    }
  };
  keepMatch(
    dir,
    universe,
    {
      ...{ id: job, of: 'doubles', name: 'Doubles', fileName: '', header: [], person, precision: PRECISION },
      ...{ mapping: NOTHING_READ, rows: matching.rows.length, notData: 0 },
    },
    matching,
    kept(),
  );
  const searched = universeMark(universe);
  universe.close();
  return { match: job, ...joinAcross(dir, job, across, searched, person) };
}

/** There is no file that was read. */
const NOTHING_READ: Mapping = {
  columns: [],
  scheme: 'nace-2.1',
  decimal: '.',
  dates: 'dmy',
  country: null,
  currency: 'EUR',
  year: 2000,
  revenueUnit: 1,
};

void runJob(() => search(workerData as DoublesJobData & { job: string }));
